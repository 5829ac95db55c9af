import { z } from 'zod';
import { plural, printDuration } from '../../base';
import { STANDARD } from '../../fields';
import type { Library } from '../meaning/library';
import { answerName, type ResultShape } from '../meaning/scope';
import { needs, oneOf } from '../meaning/way';
import { deed, figure, plain, value } from '../parts/parts';
import { reading } from '../parts/phrasing';
import { question } from '../tree/clauses';
import type { Cursor } from '../tree/cursor';
import { asText, questionText } from '../tree/notation';
import type { Amount, Question, Wait, Word } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

export interface Read {
  readonly verb: 'read';
  readonly target: Word;
  readonly places: readonly Word[];
  readonly questions: readonly Question[];
  readonly maxPages?: Amount;
  readonly maxCost?: Amount;
  /** what was read longer ago is read again */
  readonly noOlder?: Wait;
  readonly as?: Word;
}
declare module '../tree/tree' {
  interface Steps {
    readonly read: Read;
  }
}

/** Where a company and a person can be read about. */
const COMPANY_PLACES = ['website', 'news', 'register', 'people', 'jobs'];
const PERSON_PLACES = ['people', 'news'];
/** What stands at the places now that did not at the reading before. */
const WHAT_IS_NEW: ResultShape = { changes: { type: 'number', label: 'what is new' }, news: { type: 'string' } };

export const read: VerbOf<Read> = {
  verb: 'read',
  help: 'Reads the company’s site and answers the questions, each with the words it rests on.',
  begins: [['read', 'read company from website as research', 'its site']],
  names: [],
  speaks: [],
  phrases: [
    [
      /^(?:read|look at|visit|go through|research|check) (?:their |the |its )?(?:company )?(?:web ?site|site|home ?page|web)\b/,
      (_, ask) => reading(`read company from website as research\n  ${firstQuestion(ask.library)}`),
    ],
  ],
  samples: [
    'read company from website, news as r%\n  heads: number in vans "How many vans do they have?"\n  grows: yes/no "Do they have more than a year ago?"\n  kind: one of "large", "small" "What kind are they?"\n  at most 8 pages, 0.20 EUR\n  no older than 1 day',
  ],

  read(row, clauses) {
    const target = row.wantPath('what to read about (company or person)');
    if (!target || !row.want('from', 'read company from website')) return undefined;
    const places = [];
    do {
      const place = row.wantPath('a place to read');
      if (place) places.push(place);
    } while (row.take(','));
    const as = row.asName();
    let limits: Limits = {};
    const questions: Question[] = [];
    for (const clause of clauses) {
      if (clause.take('no', 'older', 'than')) {
        const noOlder = clause.wantDuration();
        if (noOlder) limits = { ...limits, noOlder };
        clause.end();
      } else if (clause.take('at', 'most')) limits = { ...limits, ...readLimits(clause) };
      else {
        const asked = question(clause);
        if (asked) questions.push(asked);
      }
    }
    return { verb: 'read', target, places, questions, ...limits, ...(as && { as }) };
  },
  print({ target, places, questions, maxPages, maxCost, noOlder, as }) {
    const limits = [maxPages && `${maxPages.value} pages`, maxCost && `${maxCost.value.toFixed(2)} EUR`].filter(
      (limit) => limit !== undefined,
    );
    return [
      `read ${target.text} from ${places.map((place) => place.text).join(', ')}${asText(as)}`,
      ...questions.map(questionText),
      ...(limits.length > 0 ? [`at most ${limits.join(', ')}`] : []),
      ...(noOlder ? [`no older than ${printDuration(noOlder.duration)}`] : []),
    ];
  },
  check(step, way, check, say, line) {
    oneOf(step.target, ['company', 'person'], 'what can be read about', say);
    const places = step.target.text === 'person' ? PERSON_PLACES : COMPANY_PLACES;
    for (const place of step.places) oneOf(place, places, 'a place to read', say);
    // To look for what is new, nothing needs to be asked.
    if (step.questions.length === 0 && !step.noOlder)
      say(line.head, 'wrong place', 'ask at least one question below: vans: number "How many vans …?"');
    const seen = new Set(Object.keys(WHAT_IS_NEW));
    for (const { id } of step.questions) {
      if (id.text in WHAT_IS_NEW) say(id, 'name twice', `“${id.text}” is what every reading says is new: call the question otherwise`);
      else if (seen.has(id.text)) say(id, 'name twice', `“${id.text}” is asked twice`);
      seen.add(id.text);
    }
    // With other places to look at, a missing site is no fault.
    if (step.places.every((place) => place.text === 'website'))
      needs('company.website', 'the company’s site', line.head, way, check, say, line);
  },
  result: ({ questions }) => ({ ...Object.fromEntries(questions.map(({ id, type }) => [id.text, answerName(type)])), ...WHAT_IS_NEW }),
  say: ({ places, questions, maxPages }) => [
    deed('Read'),
    value(places.map((place) => (place.text === 'website' ? 'site' : place.text)).join(', ')),
    plain('for'),
    value(plural(questions.length, 'answer')),
    ...(maxPages ? [plain(', at most'), figure(maxPages, plural(maxPages.value, 'page'), String(maxPages.value))] : []),
  ],
  json: () =>
    z.strictObject({
      verb: z.literal('read'),
      target: shapes.name,
      places: z.array(shapes.name),
      questions: z.array(shapes.question),
      maxPages: shapes.amount.optional(),
      maxCost: shapes.amount.optional(),
      noOlder: shapes.span.optional(),
      as: shapes.as,
    }),
  compiles: () => ({}),
  weighs: LETS_PASS,
  finds({ target, places, questions }) {
    // What is read is asked once and kept: two lines that ask the same place are no use side by side.
    const asks = places.map((place) => `${target.text} at ${place.text}`);
    const known = target.text === 'person' ? ['person.name', 'company.name'] : ['company.name', 'company.website'];
    return { needs: [...known, ...asks], fills: [...questions.map(({ id }) => `${target.text}.${id.text}`), ...asks] };
  },
};

type Limits = Pick<Read, 'maxPages' | 'maxCost' | 'noOlder'>;

/** `8 pages, 0.20 EUR` */
function readLimits(clause: Cursor): Limits {
  let limits: Limits = {};
  do {
    const amount = clause.wantNumber('a limit');
    if (!amount) break;
    if (clause.take('pages') ?? clause.take('page')) limits = { ...limits, maxPages: { ...amount, unit: 'pages' } };
    else if (clause.take('EUR')) limits = { ...limits, maxCost: { ...amount, unit: 'EUR' } };
    else clause.say('a limit is in pages or in EUR');
  } while (clause.take(','));
  clause.end();
  return limits;
}

/** A question to begin with: after the first field of the workspace's own, or after what any company has. */
function firstQuestion(library: Library): string {
  const field = library.fields.find((entry) => entry.record === 'company' && !STANDARD.of('company', entry.key) && !entry.isRetired);
  if (!field) return 'employees: number "How many people work there?"';
  const type = field.type === 'number' && field.unit !== undefined ? `number in ${field.unit}` : (ASKED_AS[field.type] ?? 'text');
  return `${field.key}: ${type} "What is their ${field.label}?"`;
}
const ASKED_AS: Readonly<Record<string, string>> = { number: 'number', 'yes/no': 'yes/no', year: 'year', date: 'date', list: 'list' };
