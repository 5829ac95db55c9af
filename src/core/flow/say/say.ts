import { never, plural, printDuration } from '../../base';
import {
  clockText,
  type ClockIntake,
  quote,
  type Arm,
  type ClockTime,
  type Expr,
  type Line,
  type Named,
  type Span,
  type Step,
  type Wait,
  type WaitFor,
  type Word,
} from '../syntax';
import { STANDARD, type Catalogue } from '../../fields';
import { sayFeel, sayPath } from './feel';

/** What kind of thing a part of a sentence is: it decides what may be put in its place. */
export type PartSlot =
  | 'condition'
  /** a text, a number or a day worked out */
  | 'formula'
  | 'number'
  | 'scorecard'
  | 'template'
  | 'plan'
  | 'chain'
  | 'team'
  | 'who'
  | 'pipeline'
  | 'stage'
  | 'opening'
  | 'document'
  | 'intake'
  | 'duration'
  | 'clock'
  | 'addressee'
  | 'webhook'
  | 'text';

/** One piece of a line as a person reads it. A part with a span can be changed in place: its text there is `source`. */
export interface Part {
  readonly text: string;
  readonly role: 'verb' | 'plain' | 'value' | 'clause';
  readonly edit?: Span & { readonly slot: PartSlot; readonly source: string; readonly quoted: boolean };
}

/** A kind of document as people speak of it. */
const DOCUMENT_WORDS: Readonly<Record<string, string>> = {
  cv: 'what a CV holds',
  brief: 'what a brief asks for',
  call: 'what a call was about',
};
const documentWords = (kind: string): string => DOCUMENT_WORDS[kind] ?? kind;

const verb = (text: string): Part => ({ text, role: 'verb' });
const plain = (text: string): Part => ({ text, role: 'plain' });
const value = (text: string): Part => ({ text, role: 'value' });
const named = (name: Named, slot: PartSlot, text = name.text): Part => ({
  text,
  role: 'value',
  edit: { from: name.from, to: name.to, slot, source: name.text, quoted: true },
});
const word = (name: Word | undefined): readonly Part[] => (name ? [plain('as'), value(name.text)] : []);
const feel = (expr: Expr, slot: 'condition' | 'formula', fields: Catalogue): Part => ({
  text: expr.parsed.expr ? sayFeel(expr.parsed.expr, fields) : expr.parsed.text || '…',
  role: 'value',
  edit: { from: expr.from, to: expr.to, slot, source: expr.parsed.text, quoted: false },
});
const condition = (expr: Expr, fields: Catalogue): Part => feel(expr, 'condition', fields);
const formula = (expr: Expr, fields: Catalogue): Part => feel(expr, 'formula', fields);
const bar = (amount: Span & { readonly value: number }, text: string, source = text): Part => ({
  text,
  role: 'value',
  edit: { from: amount.from, to: amount.to, slot: 'number', source, quoted: false },
});

const length = (wait: Wait): Part => ({
  text: printDuration(wait.duration),
  role: 'value',
  edit: { from: wait.from, to: wait.to, slot: 'duration', source: printDuration(wait.duration), quoted: false },
});
const clock = (time: ClockTime): Part => ({
  text: clockText(time.minute),
  role: 'value',
  edit: { from: time.from, to: time.to, slot: 'clock', source: clockText(time.minute), quoted: false },
});

function sayWait(until: WaitFor, fields: Catalogue): readonly Part[] {
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

/** The line as a sentence in parts; fields are called as their business calls them. */
export function sayLine(line: Line, fields: Catalogue = STANDARD): readonly Part[] {
  return sayStep(line.step, fields);
}

export function sayArm(arm: Arm, fields: Catalogue = STANDARD): readonly Part[] {
  return arm.when ? [{ text: 'when', role: 'clause' }, condition(arm.when, fields)] : [{ text: 'else', role: 'clause' }];
}

const strokes = ({ time, every, until }: ClockIntake): readonly Part[] => {
  if (!every) return [plain('at'), clock(time)];
  return [
    plain('every'),
    length(every),
    ...(time.minute > 0 || until ? [plain('from'), clock(time)] : []),
    ...(until ? [plain('to'), clock(until)] : []),
  ];
};

function sayStep(step: Step, fields: Catalogue): readonly Part[] {
  switch (step.verb) {
    case 'take in':
      return [
        verb('Take in'),
        plain(`from ${step.from.text}`),
        ...(step.name ? [named(step.name, 'intake')] : []),
        ...(step.clock
          ? [
              ...strokes(step.clock),
              ...(step.clock.within ? [plain('within'), length(step.clock.within)] : []),
              ...(step.clock.workingDays ? [plain('on working days')] : []),
            ]
          : []),
        ...(step.change
          ? [
              plain('of'),
              value(
                step.change.fields.map((field) => (field.text === 'record' ? 'a new record' : fieldWords(field.text, fields))).join(', '),
              ),
            ]
          : []),
        ...[step.clock?.when, step.change?.when].flatMap((when) => (when ? [plain('when'), condition(when, fields)] : [])),
        ...(step.oncePer ? [plain(', once per'), value(fieldWords(step.oncePer.text, fields))] : []),
      ];
    case 'keep':
      return [
        verb('Keep'),
        plain('when'),
        condition(step.when, fields),
        ...(step.unless ? [plain('unless'), value(step.unless.map((screen) => screen.text).join(', '))] : []),
        ...(step.otherwise
          ? [plain('· else set'), value(fieldWords(step.otherwise.field.text, fields)), plain('to'), formula(step.otherwise.value, fields)]
          : []),
      ];
    case 'match':
      return [
        verb('Match'),
        value(step.targets.map((target) => target.text).join(', ')),
        ...(step.askAbove ? [plain('· ask above'), bar(step.askAbove, step.askAbove.value.toFixed(2))] : []),
        ...(step.sameAbove ? [plain('· same above'), bar(step.sameAbove, step.sameAbove.value.toFixed(2))] : []),
      ];
    case 'read':
      return [
        verb('Read'),
        value(step.places.map((place) => (place.text === 'website' ? 'site' : place.text)).join(', ')),
        plain('for'),
        value(plural(step.questions.length, 'answer')),
        ...(step.maxPages
          ? [plain(', at most'), bar(step.maxPages, plural(step.maxPages.value, 'page'), String(step.maxPages.value))]
          : []),
      ];
    case 'score':
      return [verb('Score'), plain(step.target.text), plain('with'), named(step.scorecard, 'scorecard'), ...word(step.as)];
    case 'split':
      return [verb('Split')];
    case 'look up':
      return [verb('Look up'), value(fieldWords(step.field.text, fields)), plain('with'), named(step.chain, 'chain')];
    case 'open':
      return step.what === 'deal'
        ? [verb('Open'), value('deal'), plain('in'), named(step.pipeline, 'pipeline'), plain('at'), named(step.stage, 'stage')]
        : [verb('Open'), value('application'), plain('for'), named(step.opening, 'opening'), plain('at'), named(step.stage, 'stage')];
    case 'assign':
      return [verb('Assign'), plain(step.what ? `${step.what.text} in turn among` : 'in turn among'), named(step.team, 'team')];
    case 'set':
      return [verb('Set'), value(fieldWords(step.assignment.field.text, fields)), plain('to'), formula(step.assignment.value, fields)];
    case 'note':
      return [verb('Note'), formula(step.text, fields)];
    case 'write':
      return [
        verb('Write'),
        plain(step.channel.text === 'email' ? 'e-mail' : step.channel.text),
        named(step.template, 'template'),
        ...word(step.as),
      ];
    case 'ask':
      return [
        verb('Ask'),
        named(step.who, 'who'),
        plain('to approve'),
        value(step.message.text),
        ...(step.within ? [plain('within'), length(step.within)] : []),
        ...(step.otherwise ? [plain(step.otherwise.does === 'stop' ? '· else stop' : `· else tell ${step.otherwise.who.text}`)] : []),
      ];
    case 'send':
      return [verb('Send'), value(step.message.text), ...(step.sameThread ? [plain('in the same thread')] : [])];
    case 'follow up':
      return [verb('Follow up'), plain('with plan'), named(step.plan, 'plan')];
    case 'wait':
      return [verb('Wait'), ...sayWait(step.for, fields), ...word(step.as)];
    case 'gather':
      return [
        verb('Gather'),
        bar(step.count, plural(step.count.value, 'record'), String(step.count.value)),
        plain('or'),
        length(step.atMost),
        ...word(step.as),
      ];
    case 'sort':
      return [
        verb('Sort'),
        formula(step.text, fields),
        plain('as'),
        value(step.labels.map((label) => label.name.text).join(', ')),
        ...word(step.as),
      ];
    case 'pick out':
      return [
        verb('Pick out'),
        value(
          [
            ...(step.document ? [documentWords(step.document.text)] : []),
            ...(step.questions.length > 0 ? [plural(step.questions.length, 'answer')] : []),
          ].join(' and '),
        ),
        plain('from'),
        formula(step.text, fields),
        ...word(step.as),
      ];
    case 'move':
      return [verb('Move'), value(step.what.text), plain('to'), named(step.stage, 'stage')];
    case 'tell':
      return [
        verb('Tell'),
        step.who.kind === 'role' ? value(step.who.name.text) : named(step.who.name, 'addressee'),
        ...(step.byEmail ? [plain('by e-mail')] : []),
        formula(step.text, fields),
        ...(step.paper ? [plain('with'), value(step.paper.text)] : []),
      ];
    case 'hand over':
      return [
        verb('Hand over'),
        plain('to'),
        named(step.to, 'webhook'),
        ...(step.answer ? [plain('and wait, at most'), length(step.answer.atMost)] : []),
        ...word(step.as),
      ];
    case 'call':
      return [verb('Call'), plain('with'), named(step.script, 'text'), ...word(step.as)];
    case 'book':
      return [
        verb('Book'),
        plain('meeting with'),
        named(step.team, 'team'),
        ...(step.within ? [plain('within'), length(step.within)] : []),
        ...word(step.as),
      ];
    case 'prepare':
      return [verb('Prepare'), named(step.document, 'document'), ...word(step.as)];
    case 'stop':
      return [verb('Stop'), ...(step.reason ? [named(step.reason, 'text', `“${step.reason.text}”`)] : [])];
    case 'unknown':
      return [plain(step.text.split('\n')[0] ?? '')];
    default:
      return never(step);
  }
}

/** The parts as one plain sentence. */
export function sentenceOf(parts: readonly Part[]): string {
  return parts.reduce((said, part) => (said === '' || part.text.startsWith(',') ? said : `${said} `) + part.text, '');
}

/** A field's name as a line writes it (`status`, `company.size`), in words. */
const fieldWords = (path: string, fields: Catalogue): string => {
  const words = sayPath(path.split('.'), fields);
  return words === path ? path.replace('email', 'e-mail').replace('.', ' ').replace(/_/g, ' ') : words;
};

/** The replacement text for a part: quoted where the part is a name. */
export function partText(edit: NonNullable<Part['edit']>, typed: string): string {
  return edit.quoted ? quote(typed) : typed.trim();
}
