import { NAME, type Cursor } from './cursor';
import { assignment, question, refuse, type ReadStep } from './clauses';
import { READ_NOTICE } from './notices';
import type { Token } from './rows';
import { SCREENS } from './screens';
import { READ_WAIT } from './waits';
import type { ClockIntake, Named, Question, SortLabel, StepOf, Verb, Word } from './tree';

type Readable = Exclude<Verb, 'split' | 'unknown'>;

const read: ReadStep<'read'> = (row, clauses) => {
  const target = row.wantPath('what to read about (company or person)');
  if (!target || !row.want('from', 'read company from website')) return undefined;
  const places = [];
  do {
    const place = row.wantPath('a place to read');
    if (place) places.push(place);
  } while (row.take(','));
  const as = row.asName();
  let limits: Pick<StepOf<'read'>, 'maxPages' | 'maxCost' | 'noOlder'> = {};
  const questions: Question[] = [];
  for (const clause of clauses) {
    if (clause.take('no', 'older', 'than')) {
      const noOlder = clause.wantDuration();
      if (noOlder) limits = { ...limits, noOlder };
      clause.end();
      continue;
    }
    if (!clause.take('at', 'most')) {
      const asked = question(clause);
      if (asked) questions.push(asked);
      continue;
    }
    do {
      const amount = clause.wantNumber('a limit');
      if (!amount) break;
      if (clause.take('pages') ?? clause.take('page')) limits = { ...limits, maxPages: { ...amount, unit: 'pages' } };
      else if (clause.take('EUR')) limits = { ...limits, maxCost: { ...amount, unit: 'EUR' } };
      else clause.say('a limit is in pages or in EUR');
    } while (clause.take(','));
    clause.end();
  }
  return { verb: 'read', target, places, questions, ...limits, ...(as && { as }) };
};

const match: ReadStep<'match'> = (row, clauses) => {
  const targets = [];
  do {
    const target = row.wantPath('what to match (person, company)');
    if (target) targets.push(target);
  } while (row.take(','));
  let bars: Pick<StepOf<'match'>, 'askAbove' | 'sameAbove'> = {};
  for (const clause of [row, ...clauses]) {
    while (!clause.done) {
      const which = clause.take('ask', 'above') ? 'askAbove' : clause.take('same', 'above') ? 'sameAbove' : undefined;
      const bar = which && clause.wantNumber('a bar between 0 and 1');
      if (!which || !bar) {
        if (!which) clause.say('write ask above 0.60, or same above 0.95');
        break;
      }
      bars = { ...bars, [which]: bar };
      clause.take(',');
    }
  }
  return { verb: 'match', targets, ...bars };
};

const ask: ReadStep<'ask'> = (row, clauses) => {
  const who = row.wantName('a team or a role');
  if (!who || !row.want('to', 'ask "north" to approve opener') || !row.want('approve', 'ask "north" to approve opener')) return undefined;
  const message = row.wantPath('the message to approve');
  if (!message) return undefined;
  let extra: Pick<StepOf<'ask'>, 'within' | 'otherwise'> = {};
  for (const clause of [row, ...clauses]) {
    if (clause.take('within')) {
      const within = clause.wantDuration();
      if (within) extra = { ...extra, within };
    }
    if (clause.take('otherwise')) {
      if (clause.take('stop')) {
        const text = clause.wantName('the reason');
        if (text) extra = { ...extra, otherwise: { does: 'stop', text } };
      } else if (clause.take('tell')) {
        const whom = clause.wantPath('whom to tell');
        const text = clause.wantName('what to tell them');
        if (whom && text) extra = { ...extra, otherwise: { does: 'tell', who: whom, text } };
      } else clause.say('write otherwise tell owner "…", or otherwise stop "…"');
    }
    if (clause !== row) clause.end();
  }
  return { verb: 'ask', who, message, ...extra };
};

/** `price: "finds it too dear" like "over our budget", "too much for us"` */
function sortLabel(row: Cursor): SortLabel | undefined {
  const name = row.wantPath('the label');
  if (!name || !row.want(':', 'price: "finds it too dear" like "over our budget"')) return undefined;
  const meaning = row.wantName('what the label means');
  const examples: Named[] = [];
  if (row.take('like'))
    do {
      const example = row.wantName('an example');
      if (example) examples.push(example);
    } while (row.take(','));
  row.end();
  return meaning && { from: name.from, to: examples.at(-1)?.to ?? meaning.to, name, meaning, examples };
}

/** `unless test entry, disposable mailbox` */
function screens(row: Cursor): readonly Word[] {
  const out: Word[] = [];
  do {
    const [first, ...more] = wordsUntilComma(row);
    if (!first) {
      row.say(`say what to screen out: ${SCREENS.join(', ')}`);
      break;
    }
    const last = more.at(-1) ?? first;
    out.push({ from: first.from, to: last.to, text: [first, ...more].map((token) => token.text).join(' ') });
  } while (row.take(','));
  row.end();
  return out;
}
function wordsUntilComma(row: Cursor): readonly Token[] {
  const out: Token[] = [];
  for (let token = row.peek(); token && token.text !== ','; token = row.peek()) {
    const taken = row.take(token.text);
    if (!taken) break;
    out.push(taken);
  }
  return out;
}

/** `at 08:30 within 20 minutes on working days`, or `every 30 minutes from 08:00 to 18:00 on working days` */
function clockStrokes(row: Cursor): Omit<ClockIntake, 'when' | 'from' | 'to'> | undefined {
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

/** Keyed by verb: a new verb does not compile until it can be read. */
export const READ_STEP: { readonly [V in Readable]: ReadStep<V> } = {
  'take in': (row, clauses) => {
    if (!row.want('from', 'take in from file "autumn-fair"')) return undefined;
    const from = row.wantPath('where records come from (file, form, hand)');
    if (!from) return undefined;
    const name = row.peek()?.kind === 'String' ? row.wantName('the intake') : undefined;
    const strokes = from.text === 'clock' ? clockStrokes(row) : undefined;
    const time = strokes?.time;
    const fields: Word[] = [];
    if (from.text === 'change' && row.want('of', 'take in from change of stage'))
      do {
        const field = row.wantPath('the field that changes, or record for a new one');
        if (field) fields.push(field);
      } while (row.take(','));
    let oncePer;
    let when;
    for (const clause of [row, ...clauses]) {
      clause.take(',');
      if (clause.take('once', 'per')) oncePer = clause.wantPath('the field that tells records apart');
      else if ((time || fields.length > 0) && clause.take('when')) when = clause.wantFeel('which records are due');
      if (clause !== row) clause.end();
    }
    const clock = strokes && { from: strokes.time.from, to: strokes.time.to, ...strokes, when };
    const [first, last] = [fields[0], fields.at(-1)];
    const change = first && last && { from: first.from, to: last.to, fields, ...(when && { when }) };
    return {
      verb: 'take in',
      from,
      ...(name && { name }),
      ...(oncePer && { oncePer }),
      ...(clock && { clock }),
      ...(change && { change }),
    };
  },
  keep: (row, clauses) => {
    if (!row.want('when', 'keep when email != null')) return undefined;
    const when = row.wantFeel('the condition');
    let otherwise;
    let unless: readonly Word[] | undefined;
    for (const clause of clauses) {
      if (clause.take('else', 'set')) otherwise = assignment(clause);
      else if (clause.take('unless')) unless = screens(clause);
      else clause.say('below “keep” only unless … and else set … may stand', clause.row);
    }
    return when && { verb: 'keep', when, ...(unless && { unless }), ...(otherwise && { otherwise }) };
  },
  match,
  read,
  score: (row, clauses) => {
    refuse(clauses, 'score');
    const target = row.wantPath('what to score');
    if (!target || !row.want('with', 'score company with "Ideal customer"')) return undefined;
    const scorecard = row.wantName('the scorecard');
    const as = row.asName();
    return scorecard && { verb: 'score', target, scorecard, ...(as && { as }) };
  },
  'look up': (row, clauses) => {
    refuse(clauses, 'look up');
    const field = row.wantPath('the field to look up');
    if (!field || !row.want('with', 'look up email with "Work e-mail"')) return undefined;
    const chain = row.wantName('the lookup chain');
    return chain && { verb: 'look up', field, chain };
  },
  open: (row, clauses) => {
    refuse(clauses, 'open');
    if (row.take('application')) {
      if (!row.want('for', 'open application for "Commissioning technician" at "Received"')) return undefined;
      const opening = row.wantName('the opening');
      if (!opening || !row.want('at', 'at "Received"')) return undefined;
      const stage = row.wantName('the stage');
      const as = row.asName();
      return stage && { verb: 'open', what: 'application', opening, stage, ...(as && { as }) };
    }
    if (!row.want('deal', 'open deal in "Sales" at "Qualified"') || !row.want('in', 'open deal in "Sales"')) return undefined;
    const pipeline = row.wantName('the pipeline');
    if (!pipeline || !row.want('at', 'at "Qualified"')) return undefined;
    const stage = row.wantName('the stage');
    const as = row.asName();
    return stage && { verb: 'open', what: 'deal', pipeline, stage, ...(as && { as }) };
  },
  assign: (row, clauses) => {
    refuse(clauses, 'assign');
    const what = row.peek()?.text === 'in' ? undefined : row.wantPath('what to assign');
    if (!row.want('in', 'assign in turn among "north"') || !row.want('turn', 'in turn') || !row.want('among', 'among "north"'))
      return undefined;
    const team = row.wantName('the team');
    return team && { verb: 'assign', team, ...(what && { what }) };
  },
  set: (row, clauses) => {
    refuse(clauses, 'set');
    const made = assignment(row);
    return made && { verb: 'set', assignment: made };
  },
  note: (row, clauses) => {
    refuse(clauses, 'note');
    const text = row.wantFeel('the text of the note');
    return text && { verb: 'note', text };
  },
  write: (row, clauses) => {
    refuse(clauses, 'write');
    const channel = row.wantPath('the channel (email)');
    const template = channel && row.wantName('the text');
    const as = row.asName();
    return channel && template && { verb: 'write', channel, template, ...(as && { as }) };
  },
  ask,
  send: (row, clauses) => {
    refuse(clauses, 'send');
    const message = row.wantPath('the message to send');
    const sameThread = row.take('in', 'the', 'same', 'thread') !== undefined;
    return message && { verb: 'send', message, sameThread };
  },
  'follow up': (row, clauses) => {
    refuse(clauses, 'follow up');
    if (!row.want('with', 'follow up with "First contact"')) return undefined;
    const plan = row.wantName('the plan');
    return plan && { verb: 'follow up', plan };
  },
  ...READ_WAIT,
  ...READ_NOTICE,
  'pick out': (row, clauses) => {
    const document = row.peek()?.text === 'from' ? undefined : row.wantPath('what kind of document it is (cv, brief)');
    if (!row.want('from', 'pick out from answer.text as brief')) return undefined;
    const text = row.wantFeel('the text to pick from', [['as', NAME]]);
    const as = row.asName();
    const questions = clauses.map(question).filter((asked) => asked !== undefined);
    return text && { verb: 'pick out', ...(document && { document }), text, questions, ...(as && { as }) };
  },
  sort: (row, clauses) => {
    const text = row.wantFeel('the text to sort', [['as', NAME]]);
    const as = row.asName();
    const labels = clauses.map(sortLabel).filter((label) => label !== undefined);
    return text && { verb: 'sort', text, labels, ...(as && { as }) };
  },
  move: (row, clauses) => {
    refuse(clauses, 'move');
    const what = row.wantPath('the deal or application to move');
    if (!what || !row.want('to', 'move deal to "Meeting"')) return undefined;
    const stage = row.wantName('the stage');
    return stage && { verb: 'move', what, stage };
  },
  call: (row, clauses) => {
    refuse(clauses, 'call');
    if (!row.want('with', 'call with "First talk"')) return undefined;
    const script = row.wantName('the talk');
    const as = row.asName();
    return script && { verb: 'call', script, ...(as && { as }) };
  },
  book: (row, clauses) => {
    refuse(clauses, 'book');
    if (!row.want('meeting', 'book meeting with "north"') || !row.want('with', 'book meeting with "north"')) return undefined;
    const team = row.wantName('the team');
    const within = row.take('within') ? row.wantDuration() : undefined;
    const as = row.asName();
    return team && { verb: 'book', team, ...(within && { within }), ...(as && { as }) };
  },
  prepare: (row, clauses) => {
    refuse(clauses, 'prepare');
    const document = row.wantName('the document');
    const as = row.asName();
    return document && { verb: 'prepare', document, ...(as && { as }) };
  },
  stop: (row, clauses) => {
    refuse(clauses, 'stop');
    const reason = row.done ? undefined : row.wantName('the reason');
    return { verb: 'stop', ...(reason && { reason }) };
  },
};

/** Every verb as its words, longest first, so that `look up` is seen before a shorter one could be. */
export const VERB_WORDS: readonly (readonly [Verb, readonly string[]])[] = [...Object.keys(READ_STEP), 'split']
  .map((verb) => [verb as Verb, verb.split(' ')] as const)
  .sort((a, b) => b[1].length - a[1].length);

/** The verbs by their first word, so that a line tries only those it may begin with. */
const BY_FIRST = new Map<string, (readonly [Verb, readonly string[]])[]>();
for (const entry of VERB_WORDS) {
  const first = entry[1][0] ?? '';
  BY_FIRST.set(first, [...(BY_FIRST.get(first) ?? []), entry]);
}

/** Takes the verb a row begins with; undefined when it begins with none. */
export function takeVerb(row: Cursor): Verb | undefined {
  for (const [verb, words] of BY_FIRST.get(row.peek()?.text ?? '') ?? []) if (row.takeAll(words)) return verb;
  return undefined;
}

export function readStep<V extends Readable>(verb: V, row: Cursor, clauses: readonly Cursor[]): StepOf<V> | undefined {
  const step = READ_STEP[verb](row, clauses);
  if (step) row.end();
  return step;
}
