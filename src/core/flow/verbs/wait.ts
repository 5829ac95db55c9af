import { z } from 'zod';
import { never, printDuration } from '../../base';
import { CAME } from '../meaning/scope';
import { feel, noLimit } from '../meaning/way';
import { asName, clock, condition, deed, formula, length, plain, value, type Part } from '../parts/parts';
import { message, NO_MESSAGE, reading, SPAN, span } from '../parts/phrasing';
import type { Catalogue } from '../../fields';
import { refuse } from '../tree/clauses';
import { NAME, type Cursor } from '../tree/cursor';
import { asText, clockText, feelText, limitText } from '../tree/notation';
import type { ClockTime, Expr, Wait, Word } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

/** What a line waits for. */
export type WaitFor =
  | { readonly kind: 'while'; readonly length: Wait }
  | { readonly kind: 'clock'; readonly time: ClockTime; readonly workingDay: boolean; readonly readerTime: boolean }
  | { readonly kind: 'date'; readonly date: Expr }
  | { readonly kind: 'reply'; readonly message: Word; readonly atMost?: Wait }
  | { readonly kind: 'condition'; readonly when: Expr; readonly atMost?: Wait };

export interface WaitStep {
  readonly verb: 'wait';
  readonly for: WaitFor;
  readonly as?: Word;
}
declare module '../tree/tree' {
  interface Steps {
    readonly wait: WaitStep;
  }
}

export const wait: VerbOf<WaitStep> = {
  verb: 'wait',
  help: 'Rests here: for a while, until a time, for a reply, or for a condition, with a limit.',
  begins: [
    ['wait', 'wait 3 days', 'a while'],
    ['wait for reply to', 'wait for reply to ', 'for an answer'],
    ['wait until', 'wait until 09:00 on a working day', 'for a time of day'],
  ],
  names: [],
  speaks: [/^wait for/, /^wait until/],
  phrases: [
    [
      new RegExp(
        `^(?:wait|pause|hold)(?: until| for)? (?:they|he|she|we get|there is|an?|the|for)?\\s*(?:answer|reply|replies|reply comes|write back)(?:.*?(?:at most|up to|no longer than|for|within) ${SPAN})?`,
      ),
      (found, ask) =>
        message(ask) === undefined
          ? NO_MESSAGE
          : reading(`wait for reply to ${message(ask) ?? ''}, at most ${found[1] ? span(found[1], found[2]) : '8 days'} as answer`),
    ],
    [
      /^(?:wait|pause|hold)? ?until (\d{1,2})(?::(\d\d))?(?: o.?clock| am| in the morning)?(?: (?:on )?(?:a |the next )?(working day|workday))?$/,
      (found) => reading(`wait until ${(found[1] ?? '9').padStart(2, '0')}:${found[2] ?? '00'}${found[3] ? ' on a working day' : ''}`),
    ],
    [
      new RegExp(`^(?:wait|pause|hold|sleep)(?: for)? ${SPAN}$|^${SPAN} later$`),
      (found) => reading(`wait ${span(found[1] ?? found[3], found[2] ?? found[4])}`),
    ],
  ],
  samples: [
    'wait 3 working days',
    "wait until 09:05 on a working day in reader's time",
    'wait until date("2026-11-24")',
    'wait for email != null, at most 2 weeks as w%',
    'write email "{text}" as x%\nask "{team}" to approve x%\nsend x%\nwait for reply to x%, at most 8 days as answer%',
  ],

  read(row, clauses) {
    const until = readFor(row, clauses);
    if (until?.kind !== 'reply' && until?.kind !== 'condition') refuse(clauses, 'wait');
    const as = row.asName();
    return until && { verb: 'wait', for: until, ...(as && { as }) };
  },
  print: (step) => [`wait ${forText(step.for)}${asText(step.as)}`],
  check(step, way, check, say, line) {
    way.sentJustNow = false;
    const until = step.for;
    if (until.kind === 'date') feel(until.date, 'date', way, check, say);
    if (until.kind === 'condition') {
      feel(until.when, 'boolean', way, check, say);
      if (!until.atMost) noLimit(line, say);
    }
    if (until.kind !== 'reply') return;
    check.used.add(until.message.text);
    if (!way.sent.has(until.message.text))
      say(until.message, 'unknown name', `“${until.message.text}” is not a message sent above: write send ${until.message.text}`);
    if (!until.atMost) noLimit(line, say);
  },
  result: (step) => (step.for.kind === 'reply' ? { ...CAME, kind: { type: 'string' }, text: { type: 'string' } } : CAME),
  say: (step, fields) => [deed('Wait'), ...sayFor(step.for, fields), ...asName(step.as)],
  json: () =>
    z.strictObject({
      verb: z.literal('wait'),
      for: z.discriminatedUnion('kind', [
        z.strictObject({ kind: z.literal('while'), length: shapes.span }),
        z.strictObject({ kind: z.literal('clock'), time: shapes.time, workingDay: z.boolean(), readerTime: z.boolean() }),
        z.strictObject({ kind: z.literal('date'), date: shapes.feel }),
        z.strictObject({ kind: z.literal('reply'), message: shapes.name, atMost: shapes.span.optional() }),
        z.strictObject({ kind: z.literal('condition'), when: shapes.feel, atMost: shapes.span.optional() }),
      ]),
      as: shapes.as,
    }),
  compiles: ({ for: until }) => ({ own: until.kind === 'condition' ? until.when : until.kind === 'date' ? until.date : undefined }),
  weighs: LETS_PASS,
};

/** `, at most 8 days`, in the row or below it. */
function atMost(row: Cursor, clauses: readonly Cursor[]): { readonly atMost?: Wait } {
  for (const clause of [row, ...clauses]) {
    clause.take(',');
    const limit = clause.take('at', 'most') ? clause.wantDuration() : undefined;
    if (clause !== row) clause.end();
    if (limit) return { atMost: limit };
  }
  return {};
}

function readFor(row: Cursor, clauses: readonly Cursor[]): WaitFor | undefined {
  if (row.take('until')) {
    if (row.peek()?.kind !== 'Number') {
      const date = row.wantFeel('the day to wait for', [['as', NAME]]);
      return date && { kind: 'date', date };
    }
    const time = row.wantClock();
    const workingDay = row.take('on', 'a', 'working', 'day') !== undefined;
    const readerTime = row.take('in') !== undefined && row.takeReaderTime();
    return time && { kind: 'clock', time, workingDay, readerTime };
  }
  if (!row.take('for')) {
    const length = row.wantDuration();
    return length && { kind: 'while', length };
  }
  if (row.take('reply')) {
    const about = row.want('to', 'wait for reply to opener, at most 8 days') && row.wantPath('the message they may answer');
    return about && { kind: 'reply', message: about, ...atMost(row, clauses) };
  }
  const when = row.wantFeel('what to wait for', [
    [',', 'at', 'most'],
    ['as', NAME],
  ]);
  return when && { kind: 'condition', when, ...atMost(row, clauses) };
}

function forText(until: WaitFor): string {
  switch (until.kind) {
    case 'while':
      return printDuration(until.length.duration);
    case 'clock':
      return `until ${clockText(until.time.minute)}${until.workingDay ? ' on a working day' : ''}${until.readerTime ? " in reader's time" : ''}`;
    case 'date':
      return `until ${feelText(until.date)}`;
    case 'reply':
      return `for reply to ${until.message.text}${limitText(until.atMost)}`;
    case 'condition':
      return `for ${feelText(until.when)}${limitText(until.atMost)}`;
    default:
      return never(until);
  }
}

function sayFor(until: WaitFor, fields: Catalogue): readonly Part[] {
  const limit = 'atMost' in until && until.atMost ? [plain(', at most'), length(until.atMost)] : [];
  switch (until.kind) {
    case 'while':
      return [length(until.length)];
    case 'clock':
      return [
        plain('until'),
        clock(until.time),
        ...(until.workingDay ? [plain('on a working day')] : []),
        ...(until.readerTime ? [plain('in the reader’s time')] : []),
      ];
    case 'date':
      return [plain('until'), formula(until.date, fields)];
    case 'reply':
      return [plain('for a reply to'), value(until.message.text), ...limit];
    case 'condition':
      return [plain('for'), condition(until.when, fields), ...limit];
    default:
      return never(until);
  }
}
