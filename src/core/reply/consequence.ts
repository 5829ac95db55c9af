import type { ReplyKind } from './kinds';

/** What an answer of a kind does. */
export interface Consequence {
  /** `stop`: the plan ends; `pause`: it waits; `continue`: this was no answer */
  readonly plan: 'stop' | 'pause' | 'continue';
  /** nobody is written to at this address any more */
  readonly bars: boolean;
  /** somebody has to look */
  readonly wantsPerson: boolean;
  /** as it is told of the sender: “Mara … ” */
  readonly label: string;
}

const person = (plan: Consequence['plan'], label: string): Consequence => ({ plan, bars: false, wantsPerson: true, label });
const machine = (plan: Consequence['plan'], label: string): Consequence => ({ plan, bars: false, wantsPerson: false, label });

/** The one table of what follows (`docs/replies.md` shows it). What is unclear stops and goes to a person. */
const CONSEQUENCES: Readonly<Record<ReplyKind, Consequence>> = {
  interested: person('stop', 'interested'),
  question: person('stop', 'asks something'),
  objection: person('stop', 'objects'),
  'not now': person('pause', 'not now'),
  'wrong person': person('stop', 'says it is the wrong person'),
  'moved job': person('stop', 'has moved on'),
  'already customer': person('stop', 'is with us already'),
  decline: person('stop', 'declines'),
  angry: person('stop', 'is angry'),
  unsubscribe: { plan: 'stop', bars: true, wantsPerson: false, label: 'unsubscribed' },
  'out of office': machine('pause', 'is out of office'),
  'automatic receipt': machine('continue', 'sent an automatic receipt'),
  bounce: { plan: 'stop', bars: true, wantsPerson: false, label: 'bounced' },
  complaint: { plan: 'stop', bars: true, wantsPerson: false, label: 'complained to their provider' },
  'soft bounce': machine('pause', 'could not be reached for now'),
  delayed: machine('continue', 'gets it later'),
  'read receipt': machine('continue', 'opened it'),
  'meeting accepted': person('stop', 'accepts the meeting'),
  'meeting declined': person('stop', 'declines the meeting'),
  thanks: person('pause', 'says thanks'),
  bulk: machine('continue', 'sent a circular'),
  spam: machine('continue', 'sent an advertisement'),
  unclear: person('stop', 'answered'),
};

export const REPLY_KINDS = Object.keys(CONSEQUENCES) as readonly ReplyKind[] as readonly [ReplyKind, ...ReplyKind[]];

/** Kinds that a person can say a mail is, those that want a person first: what mail servers write is told by their heads. */
export const SAYABLE: readonly ReplyKind[] = [
  ...REPLY_KINDS.filter((kind) => CONSEQUENCES[kind].wantsPerson && kind !== 'unclear'),
  ...(['unsubscribe', 'out of office', 'automatic receipt', 'bulk', 'spam', 'unclear'] as const),
];

/** What follows from a kind; one that was written down by an older version and is not known here is unclear. */
export const consequenceOf = (kind: ReplyKind): Consequence => CONSEQUENCES[kind] ?? CONSEQUENCES.unclear;
