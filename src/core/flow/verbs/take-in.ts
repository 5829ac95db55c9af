import { z } from 'zod';
import { durationMs, printDuration } from '../../base';
import { catalogueOf, type Catalogue } from '../../fields';
import type { Library } from '../meaning/library';
import { answerName } from '../meaning/scope';
import { exists, feel, fieldAt, oneOf, type Check, type Say } from '../meaning/way';
import { clock, condition, deed, fieldWords, length, named, plain, value, type Part } from '../parts/parts';
import { reading, withThing, type PhraseRule } from '../parts/phrasing';
import type { Cursor } from '../tree/cursor';
import { clockText, feelText, quote } from '../tree/notation';
import type { ClockTime, Expr, Named, Span, Wait, Word } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

/** When the clock takes records in. */
export interface ClockIntake extends Span {
  /** when it strikes; with `every` the first stroke of a day */
  readonly time: ClockTime;
  /** it strikes again and again, until the end of the day or this time */
  readonly every?: Wait;
  readonly until?: ClockTime;
  readonly workingDays: boolean;
  /** it strikes somewhere within this time, another moment every day */
  readonly within?: Wait;
  readonly when: Expr | undefined;
}

/** A record comes in when one of these fields changes; `record` stands for the record itself, when it is new. */
export interface ChangeIntake extends Span {
  readonly fields: readonly Word[];
  readonly when?: Expr;
}

export interface TakeIn {
  readonly verb: 'take in';
  readonly from: Word;
  readonly name?: Named;
  readonly oncePer?: Word;
  readonly clock?: ClockIntake;
  readonly change?: ChangeIntake;
}
declare module '../tree/tree' {
  interface Steps {
    readonly 'take in': TakeIn;
  }
}

/** Doors by which records come in. */
const INTAKES = ['file', 'form', 'webhook', 'mailbox', 'calendar', 'hand', 'clock', 'change'];
const LEAST_EVERY_MS = durationMs({ amount: 5, unit: 'minute' });
const MOST_EVERY_MS = durationMs({ amount: 12, unit: 'hour' });
const MOST_WITHIN_MS = 4 * 3_600_000;

export const takeIn: VerbOf<TakeIn> = {
  verb: 'take in',
  help: 'Where records enter this flow. “once per” takes each only once.',
  begins: [
    ['take in', 'take in from file "', 'where records enter'],
    ['take in from clock', 'take in from clock at 08:00 on working days', 'records that are due'],
    ['take in from clock every', 'take in from clock every 30 minutes from 08:00 to 18:00 on working days', 'records that are due'],
    ['take in from change', 'take in from change of ', 'records that change'],
    ['take in from mailbox', 'take in from mailbox "', 'mails'],
    ['take in from calendar', 'take in from calendar "', 'booked meetings'],
  ],
  names: [[/\btake in from (\w+) $/, (library, before) => intakes(library, /take in from (\w+) $/.exec(before)?.[1] ?? ''), 'intake']],
  speaks: [/^when/, /^once per/],
  phrases: [
    door(
      /^(?:start|begin|take|import|use)(?: with| from| in| everyone from| everybody from| people from)* (?:the )?(?:list|file)(?: called| named)? ?(.*)$/,
      'file',
    ),
    door(/^(?:start|begin|take|use)(?: with| from| in)* (?:the )?form(?: called| named)? ?(.*)$/, 'form'),
    [/^(?:start|begin|take (?:them )?in)(?: them)? by hand$/, () => reading('take in from hand')],
  ],
  samples: [],

  read(row, clauses) {
    if (!row.want('from', 'take in from file "autumn-fair"')) return undefined;
    const from = row.wantPath('where records come from (file, form, hand)');
    if (!from) return undefined;
    const name = row.peek()?.kind === 'String' ? row.wantName('the intake') : undefined;
    const strokes = from.text === 'clock' ? readStrokes(row) : undefined;
    const fields = from.text === 'change' ? readFields(row) : [];
    let oncePer;
    let when;
    for (const clause of [row, ...clauses]) {
      clause.take(',');
      if (clause.take('once', 'per')) oncePer = clause.wantPath('the field that tells records apart');
      else if ((strokes || fields.length > 0) && clause.take('when')) when = clause.wantFeel('which records are due');
      if (clause !== row) clause.end();
    }
    const clockIntake = strokes && { from: strokes.time.from, to: strokes.time.to, ...strokes, when };
    const [first, last] = [fields[0], fields.at(-1)];
    const change = first && last && { from: first.from, to: last.to, fields, ...(when && { when }) };
    return {
      verb: 'take in',
      from,
      ...(name && { name }),
      ...(oncePer && { oncePer }),
      ...(clockIntake && { clock: clockIntake }),
      ...(change && { change }),
    };
  },
  print: ({ from, name, clock: strokes, change, oncePer }) => [
    `take in from ${from.text}${name ? ` ${quote(name.text)}` : ''}${strokes ? strokesText(strokes) : ''}${change ? ` of ${change.fields.map((field) => field.text).join(', ')}` : ''}`,
    ...[strokes?.when, change?.when].flatMap((when) => (when ? [`when ${feelText(when)}`] : [])),
    ...(oncePer ? [`once per ${oncePer.text}`] : []),
  ],
  check(step, way, check, say) {
    oneOf(step.from, INTAKES, 'an intake', say);
    const fields = catalogueOf(check.library.fields);
    for (const field of step.change?.fields ?? []) checkChanging(field, fields, check, say);
    if (step.change?.when) feel(step.change.when, 'boolean', way, check, say);
    if (step.clock) checkClock(step.clock, say);
    if (step.clock?.when) feel(step.clock.when, 'boolean', way, check, say);
    else if (step.clock) say(step.clock, 'wrong place', 'say which records are due, below: when quiet_days in [4, 8, 14]');
    if (step.name) exists(step.name, intakes(check.library, step.from.text), step.from.text, say);
    if (step.oncePer && !fieldAt(fields, check.about, step.oncePer.text))
      say(step.oncePer, 'unknown name', `“${step.oncePer.text}” is not a field`);
    // A mail has somebody who wrote it.
    if (step.from.text === 'mailbox') way.ensured.set('email', true);
  },
  result: () => undefined,
  brings(step, library) {
    const answers = library.intakes.find((intake) => intake.kind === step.from.text && intake.name === step.name?.text)?.answers;
    return (
      answers &&
      Object.fromEntries(
        answers.map(({ id, type, unit }) => [
          id,
          // A day of a form is whole; one that was read in a text may be as inexact as it was said.
          type === 'date' ? { type } : answerName(type === 'number' && unit !== undefined ? { kind: type, unit } : { kind: type }),
        ]),
      )
    );
  },
  say: (step, fields) => [
    deed('Take in'),
    plain(`from ${step.from.text}`),
    ...(step.name ? [named(step.name, 'intake')] : []),
    ...(step.clock ? sayClock(step.clock) : []),
    ...(step.change
      ? [
          plain('of'),
          value(step.change.fields.map((field) => (field.text === 'record' ? 'a new record' : fieldWords(field.text, fields))).join(', ')),
        ]
      : []),
    ...[step.clock?.when, step.change?.when].flatMap((when) => (when ? [plain('when'), condition(when, fields)] : [])),
    ...(step.oncePer ? [plain(', once per'), value(fieldWords(step.oncePer.text, fields))] : []),
  ],
  json: () =>
    z.strictObject({
      verb: z.literal('take in'),
      from: shapes.name,
      name: shapes.name.optional(),
      oncePer: shapes.name.optional(),
      clock: z
        .strictObject({
          time: shapes.time,
          workingDays: z.boolean(),
          every: shapes.span.optional(),
          until: shapes.time.optional(),
          within: shapes.span.optional(),
          when: shapes.feel.optional(),
        })
        .optional(),
      change: z.strictObject({ fields: z.array(shapes.name), when: shapes.feel.optional() }).optional(),
    }),
  compiles: () => ({}),
  weighs: LETS_PASS,
};

const intakes = (library: Library, kind: string): readonly string[] =>
  library.intakes.filter((intake) => intake.kind === kind).map((intake) => intake.name);

function door(pattern: RegExp, kind: string): PhraseRule {
  return [pattern, (found, ask) => withThing(found[1], intakes(ask.library, kind), kind, (name) => `take in from ${kind} ${name}`)];
}

/** `at 08:30 within 20 minutes on working days`, or `every 30 minutes from 08:00 to 18:00 on working days` */
function readStrokes(row: Cursor): Omit<ClockIntake, 'when' | 'from' | 'to'> | undefined {
  const every = row.take('every');
  if (!every && !row.want('at', 'take in from clock at 08:00')) return undefined;
  const often = every && row.wantDuration();
  if (every && !often) return undefined;
  const whole = every && !row.take('from');
  const time = whole ? { from: every.from, to: often?.to ?? every.to, minute: 0 } : row.wantClock();
  if (!time) return undefined;
  const until = often && !whole && row.take('to') ? row.wantClock() : undefined;
  const within = !often && row.take('within') ? row.wantDuration() : undefined;
  const workingDays = row.take('on', 'working', 'days') !== undefined;
  return { time, workingDays, ...(often && { every: often }), ...(until && { until }), ...(within && { within }) };
}

/** `of stage, company.status` */
function readFields(row: Cursor): readonly Word[] {
  const fields: Word[] = [];
  if (!row.want('of', 'take in from change of stage')) return fields;
  do {
    const field = row.wantPath('the field that changes, or record for a new one');
    if (field) fields.push(field);
  } while (row.take(','));
  return fields;
}

function strokesText({ time, every, until, within, workingDays }: ClockIntake): string {
  const days = workingDays ? ' on working days' : '';
  if (!every) return ` at ${clockText(time.minute)}${within ? ` within ${printDuration(within.duration)}` : ''}${days}`;
  const from = time.minute === 0 && !until ? '' : ` from ${clockText(time.minute)}`;
  return ` every ${printDuration(every.duration)}${from}${until ? ` to ${clockText(until.minute)}` : ''}${days}`;
}

function sayClock({ time, every, until, within, workingDays }: ClockIntake): readonly Part[] {
  const strokes = every
    ? [
        plain('every'),
        length(every),
        ...(time.minute > 0 || until ? [plain('from'), clock(time)] : []),
        ...(until ? [plain('to'), clock(until)] : []),
      ]
    : [plain('at'), clock(time)];
  return [...strokes, ...(within ? [plain('within'), length(within)] : []), ...(workingDays ? [plain('on working days')] : [])];
}

function checkChanging(field: Word, fields: Catalogue, check: Check, say: Say): void {
  if (field.text === 'record') return;
  const known = fieldAt(fields, check.about, field.text);
  if (!known || known.isComputed === true)
    say(field, 'unknown name', `“${field.text}” is not a field that can change here: name fields, or record for new ones`);
}

function checkClock({ within, every, until, time }: ClockIntake, say: Say): void {
  if (within && durationMs(within.duration) > MOST_WITHIN_MS) say(within, 'wrong place', 'the clock strikes within at most 4 hours');
  const ms = every && durationMs(every.duration);
  if (every && ms !== undefined && (ms < LEAST_EVERY_MS || ms > MOST_EVERY_MS))
    say(every, 'wrong place', 'the clock strikes every 5 minutes at the most, and every 12 hours at the least');
  if (until && until.minute <= time.minute) say(until, 'wrong place', 'this is before the first stroke of the day');
}
