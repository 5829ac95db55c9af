/** Every reader of texts from outside, fed what would stop a careless one: the work grows with the length and no faster. */
import { DEMO_FIELDS } from '../../testing/fields';
import { countWork } from '../../testing/work';
import { readTyped } from '../fields';
import { checkFlow, EMPTY_LIBRARY, readCondition } from '../flow/check';
import { keepMarks } from '../flow/edit';
import { parseFlow, printFlow } from '../flow/syntax';
import { readHtml, readPage, textBlocks, type PageText } from '../formats';
import { flatten, guessColumns, readRow, readTable } from '../intake';
import { abusiveWords, answerAll, classify, parkedSite, pickDocument, sentencesOf, testEntry, whatTheyDo } from './index';
import { ownWords, parseDeliveryStatus, understandReply, withoutSignature } from '../reply';

// Long enough that what grows with the square shows: eight times the text would be sixty-four times the work.
const LONGEST = 100_000;
const NOW = Date.parse('2026-11-24');
const fill = (piece: string, length: number): string => piece.repeat(Math.ceil(length / piece.length)).slice(0, length);
/** So much of each. */
const LONG: Readonly<Record<string, string>> = {
  'of x': 'x',
  'of open brackets': '(',
  'of nested tags': '<div>',
  'of commas': ',',
  'of newlines': '\n',
};
/** Others that have been seen to cost more than their length, shorter. */
const SHORT: Readonly<Record<string, string>> = {
  'of one letter, parted': 'x ',
  'of open braces': '{',
  'of open tags': '<b a',
  'of spaces': ' ',
  'of digits': '7',
  'of digits, parted': '7 ',
  'of points': '.',
  'of at signs': 'a@',
  'of slashes': '/',
  'of short forms': 'dr. ',
  'of capitals': 'A. ',
  'of quotation marks': '"',
  'of dashes': '- ',
  'of hectares': '4 ha ',
  'of comment marks': '<!-- ',
  'of colons': 'a: ',
  'of accents': 'é́',
};

const QUESTIONS = [
  { id: 'a', type: { kind: 'number', unit: 'ha' }, wording: 'How large is the area under heated glass?' },
  { id: 'b', type: { kind: 'choice', options: ['a', 'x', 'dr'] }, wording: 'What is their main a?', words: ['a', 'x x', 'dr'] },
  { id: 'i', type: { kind: 'list' }, wording: 'Which languages do they teach?', words: ['a', 'x'] },
  { id: 'j', type: { kind: 'number', unit: 'a' }, wording: 'How many a do they have?', words: ['ha', 'a'] },
  { id: 'c', type: { kind: 'text' }, wording: 'Which climate computer do they use?' },
  { id: 'd', type: { kind: 'year' }, wording: 'Since when do they have it?' },
  { id: 'e', type: { kind: 'yes/no' }, wording: 'Was an expansion announced?' },
  { id: 'f', type: { kind: 'text' }, wording: 'What do they heat with?' },
  { id: 'g', type: { kind: 'text' }, wording: 'Who decides?' },
  { id: 'h', type: { kind: 'text' }, wording: 'Which products do they sell?' },
] as const;
const page = (text: PageText) => [{ url: 'http://a.example/', ...text }];
const plainPage = (text: string): PageText => ({ title: '', language: '', published: null, blocks: textBlocks(text) });

/** What is read of a document or a page is cut at its door, at twice this (`docs/security.md`); mails, texts and lists are read whole. */
const AT_DOOR = 100_000;
const READERS: Readonly<Record<string, { readonly longest: number; readonly read: (text: string) => unknown }>> = {
  'a page': { longest: LONGEST, read: (text) => readPage(text, 'http://a.example/') },
  'a page with a heading': { longest: LONGEST, read: (text) => readHtml(`<h1>Firm</h1><p>${text}`) },
  'answers of a page': { longest: AT_DOOR, read: (text) => answerAll(QUESTIONS, page(plainPage(text)), NOW) },
  'what they do': { longest: AT_DOOR, read: (text) => whatTheyDo(page(plainPage(text))) },
  'a curriculum': { longest: AT_DOOR, read: (text) => pickDocument('cv', text, NOW) },
  'a brief': { longest: AT_DOOR, read: (text) => pickDocument('brief', text, NOW) },
  sentences: { longest: LONGEST, read: sentencesOf },
  'an answer by mail': { longest: LONGEST, read: (text) => understandReply({ subject: 'Re: hello', text, autoSubmitted: false, at: 0 }) },
  'own words': { longest: LONGEST, read: (text) => withoutSignature(ownWords(text)) },
  'a delivery report': { longest: LONGEST, read: (text) => parseDeliveryStatus(text, text) },
  labels: { longest: LONGEST, read: (text) => classify(text, [{ name: 'price', meaning: 'what it costs', examples: ['too expensive'] }]) },
  screening: {
    longest: AT_DOOR,
    read: (text) => [
      abusiveWords([text]),
      parkedSite('a.example', text),
      testEntry({ name: text, email: text, company: text, texts: [text] }),
    ],
  },
  'a list': {
    longest: LONGEST,
    read: (text) => {
      const { table } = readTable(Buffer.from(text));
      return (
        table && [
          guessColumns(table.headings, table.rows, DEMO_FIELDS),
          table.rows.slice(0, 50).map((row) => readRow(row, [{ target: 'person.name' }], 'GB', DEMO_FIELDS)),
        ]
      );
    },
  },
  'a posted value': { longest: LONGEST, read: (text) => flatten({ a: text }) },
  'a typed value': { longest: 20_000, read: (text) => readTyped({ type: 'number', unit: 'ha' }, text) },
  'a flow': {
    longest: LONGEST,
    read: (text) => checkFlow(parseFlow(`flow "A"\nabout person\n\ntake in from hand\n${text}`), EMPTY_LIBRARY),
  },
  'a flow printed': { longest: 100_000, read: (text) => printFlow(parseFlow(text).tree, { marks: true }) },
  'a draft saved over another': { longest: 100_000, read: (text) => keepMarks(`flow "A"\n${text}`, `flow "A"\n${text}x`) },
  'a condition': { longest: 4_000, read: (text) => readCondition(text, 'company', DEMO_FIELDS) },
};

describe.each(Object.entries(READERS))('%s', (_name, { longest, read }) => {
  test.each([
    ...Object.entries(LONG).map((entry) => [...entry, longest] as const),
    ...Object.entries(SHORT).map((entry) => [...entry, Math.min(longest, 40_000)] as const),
  ])('%s', (_what, piece, length) => {
    const part = countWork(() => read(fill(piece, length / 8)));
    const whole = countWork(() => read(fill(piece, length)));
    // Eight times the text, eight times the work; what is done once for any text does not count against it.
    expect(whole).toBeLessThan(10 * part + 400_000);
    expect(whole).toBeLessThan(8_000 * length + 400_000);
  });
});
