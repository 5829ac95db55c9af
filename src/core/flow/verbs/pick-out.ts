import { z } from 'zod';
import { plural } from '../../base';
import type { FeelName } from '../../feel';
import type { Library } from '../meaning/library';
import { answerName, type ResultShape } from '../meaning/scope';
import { feel, oneOf, twice } from '../meaning/way';
import { asName, deed, formula, plain, value } from '../parts/parts';
import { question } from '../tree/clauses';
import { NAME } from '../tree/cursor';
import { DOCUMENT_KINDS, DOCUMENT_PARTS, isDocumentKind } from '../tree/documents';
import { asText, feelText, questionText } from '../tree/notation';
import type { Expr, Question, Word } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

export interface PickOut {
  readonly verb: 'pick out';
  /** what kind of document it is, when its usual parts are wanted */
  readonly document?: Word;
  readonly text: Expr;
  readonly questions: readonly Question[];
  readonly as?: Word;
}
declare module '../tree/tree' {
  interface Steps {
    readonly 'pick out': PickOut;
  }
}

/** A kind of document as people speak of it. */
const DOCUMENT_WORDS: Readonly<Record<string, string>> = {
  cv: 'what a CV holds',
  brief: 'what a brief asks for',
  call: 'what a call was about',
};

export const pickOut: VerbOf<PickOut> = {
  verb: 'pick out',
  help: 'Answers questions from a text, each with the words it rests on. Of a CV or a brief its usual parts come by themselves.',
  begins: [
    ['pick out', 'pick out from ', 'answers from a text'],
    ...DOCUMENT_KINDS.map((kind) => [`pick out ${kind}`, `pick out ${kind} from entry.`, DOCUMENT_WORDS[kind] ?? kind] as const),
  ],
  names: [],
  speaks: [/^pick out (?:\w+ )?from/],
  phrases: [],
  samples: ['pick out cv from job_title as cv%', 'pick out from job_title as p%\n  since: year "Since which year?"'],

  read(row, clauses) {
    const document = row.peek()?.text === 'from' ? undefined : row.wantPath('what kind of document it is (cv, brief)');
    if (!row.want('from', 'pick out from answer.text as brief')) return undefined;
    const text = row.wantFeel('the text to pick from', [['as', NAME]]);
    const as = row.asName();
    const questions = clauses.map(question).filter((asked) => asked !== undefined);
    return text && { verb: 'pick out', ...(document && { document }), text, questions, ...(as && { as }) };
  },
  print: ({ document, text, questions, as }) => [
    `pick out ${document ? `${document.text} ` : ''}from ${feelText(text)}${asText(as)}`,
    ...questions.map(questionText),
  ],
  check({ text, document, questions }, way, check, say, line) {
    feel(text, 'string', way, check, say);
    if (document) oneOf(document, DOCUMENT_KINDS, 'a kind of document', say);
    else if (questions.length === 0) say(line.head, 'wrong place', 'say what to pick out below: budget: number "What is their budget?"');
    const kind = document?.text ?? '';
    for (const { id } of questions)
      if (isDocumentKind(kind) && id.text in DOCUMENT_PARTS[kind])
        say(id, 'name twice', `“${id.text}” is picked out of every ${kind} already`);
    twice(
      questions.map(({ id }) => id),
      say,
    );
  },
  result: ({ document, questions }, library) => ({
    ...documentShape(document?.text ?? ''),
    ...(document?.text === 'cv' ? yearsCounted(library) : {}),
    ...Object.fromEntries(questions.map(({ id, type }) => [id.text, answerName(type)])),
  }),
  say: ({ document, questions, text, as }, fields) => [
    deed('Pick out'),
    value(
      [
        ...(document ? [DOCUMENT_WORDS[document.text] ?? document.text] : []),
        ...(questions.length > 0 ? [plural(questions.length, 'answer')] : []),
      ].join(' and '),
    ),
    plain('from'),
    formula(text, fields),
    ...asName(as),
  ],
  json: () =>
    z.strictObject({
      verb: z.literal('pick out'),
      document: shapes.name.optional(),
      text: shapes.feel,
      questions: z.array(shapes.question),
      as: shapes.as,
    }),
  compiles: ({ text }) => ({ own: text }),
  weighs: LETS_PASS,
  isMadeToBeUsed: true,
};

const documentShape = (kind: string): ResultShape =>
  isDocumentKind(kind)
    ? Object.fromEntries(Object.entries(DOCUMENT_PARTS[kind]).map(([id, type]): [string, FeelName] => [id, answerName({ kind: type })]))
    : {};
/** Years of some kind of work, as fields of the workspace count them out of papers. */
const yearsCounted = ({ fields }: Pick<Library, 'fields'>): ResultShape =>
  Object.fromEntries(
    fields.flatMap((field): [string, FeelName][] =>
      field.yearsIn && !field.isRetired ? [[field.key, { type: 'number', label: field.label }]] : [],
    ),
  );
