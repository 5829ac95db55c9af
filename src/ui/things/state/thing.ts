/** A named thing being edited: what is typed, what it would do, and what came of keeping it. */
import type { ThingTrial, ThingView } from '../../../api';
import { plural } from '../../../core/base';
import type { Scorecard } from '../../../core/score';
import type { ThingKind } from '../../../core/things';
import type { MessageTemplate } from '../../../core/writer';

export interface KindWords {
  readonly one: string;
  readonly many: string;
  readonly href: string;
  readonly empty: string;
}
export const KIND_WORDS: Readonly<Record<ThingKind, KindWords>> = {
  scorecard: {
    one: 'scorecard',
    many: 'Scorecards',
    href: '/scorecards',
    empty: 'A scorecard says what a good company or candidate is: criteria with points, what rules out, and the bars of hot and warm.',
  },
  template: {
    one: 'text',
    many: 'Texts',
    href: '/messages/texts',
    empty: 'A text is what readers get: fixed words, slots with their values, and a personal line that rests on a fact.',
  },
  plan: {
    one: 'plan',
    many: 'Plans',
    href: '/messages/plans',
    empty: 'A plan says which text follows which, after how many working days, from which mailbox and at what hours.',
  },
  pipeline: {
    one: 'pipeline',
    many: 'Pipelines',
    href: '/pipeline/stages',
    empty: 'A pipeline is the way of a deal: its stages in their order. Flows open deals in it and move them on.',
  },
  chain: {
    one: 'lookup chain',
    many: 'Lookup chains',
    href: '/lookups/chains',
    empty: 'A chain says which paid providers are asked for an e-mail, one after the other, until an answer is usable.',
  },
  answer: {
    one: 'agreed answer',
    many: 'Answers',
    href: '/messages/answers',
    empty: 'An agreed answer is what we say to an objection or a question: when it fits, in which words, and what may not be said.',
  },
};

/** Problems at one part or below it: `criteria.0` has those of `criteria.0.levels.1.when`. */
export const problemsAt = (problems: ThingTrial['problems'], at: string): ThingTrial['problems'] =>
  problems.filter((problem) => problem.at === at || problem.at.startsWith(`${at}.`));

/** `2 flows, 1 plan`, or that nothing does. */
export const usersText = ({ uses }: Pick<ThingView, 'uses'>): string => {
  const flows = uses.filter((use) => use.kind === 'flow').length;
  const plans = uses.length - flows;
  if (uses.length === 0) return 'nothing';
  return [flows > 0 ? plural(flows, 'flow') : '', plans > 0 ? plural(plans, 'plan') : ''].filter(Boolean).join(', ');
};

/** The name of a copy that nobody else has. */
export function copyName(name: string, taken: readonly string[]): string {
  for (let i = 1; ; i++) {
    const made = i === 1 ? `${name}, a copy` : `${name}, copy ${i}`;
    if (!taken.includes(made)) return made;
  }
}

/** An id for a new criterion that no other has. */
export function nextId(card: Scorecard): string {
  for (let i = card.criteria.length + 1; ; i++) {
    const id = `c${i}`;
    if (!card.criteria.some((criterion) => criterion.id === id)) return id;
  }
}

/** A criterion said by its condition: `company.vans >= 3` is “vans ≥ 3”. */
export function wordsOf(when: string): string {
  return when
    .replace(/\b(?:company|person|deal)\./g, '')
    .replace(/_/g, ' ')
    .replace(/>=/g, '≥')
    .replace(/<=/g, '≤')
    .replace(/!= null/g, 'is known')
    .replace(/= true/g, '')
    .trim();
}

/** All that a scorecard's criteria can give. */
export const mostOf = (card: Scorecard): number =>
  card.criteria.reduce((sum, criterion) => sum + Math.max(...criterion.levels.map((level) => level.points)), 0);

/** Something put in at a place of a text, and where the cursor stands then. */
export function putIn(text: string, at: number, piece: string): { readonly text: string; readonly at: number } {
  return { text: `${text.slice(0, at)}${piece}${text.slice(at)}`, at: at + piece.length };
}

/** A text without a personal line has none of its parts. */
export const personalOf = (text: MessageTemplate): NonNullable<MessageTemplate['personal']> =>
  text.personal ?? { fields: [], required: false, lines: [] };

const NAMED: Readonly<Record<string, string>> = {
  recipient: 'have no address',
  'do not contact': 'are not to be written to',
  'slot left': 'leave a slot empty',
  'wrong name': 'would be greeted wrongly',
  'fact missing': 'lack a fact',
  'figure without fact': 'get a figure no fact has',
  'same line': 'get a line of the last ten',
  'too long': 'get too long a text',
  'may not say': 'get what we never say',
};
export const failureText = (id: string): string => NAMED[id] ?? id;
