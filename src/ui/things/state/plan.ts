/** A plan on its axis of working days. */
import { CHANNELS, type Channel, type FollowUpPlan } from '../../../core/writer';

export const CHANNEL_WORDS: Readonly<Record<Channel, string>> = {
  'e-mail': 'E-mail',
  call: 'Call',
  'profile note': 'Profile note',
  letter: 'Letter',
};
/** As they stand at the head of a lane; drawn, not named. */
export const CHANNEL_GLYPHS: Readonly<Record<Channel, string>> = { 'e-mail': '✉', call: '✆', 'profile note': '☰', letter: '▤' };

const LATEST = 400;
/** Room behind the last touch, so that it can be moved on. */
const ROOM = 4;
const LEAST_SPAN = 12;

/** How many working days the axis shows. */
export const spanOf = ({ touches }: FollowUpPlan): number => Math.max(LEAST_SPAN, (touches.at(-1)?.day ?? 0) + ROOM);

/** The lanes there are: mail, and every other channel a touch goes by. */
export function lanesOf({ touches }: FollowUpPlan, channelAt: (text: string) => Channel): readonly Channel[] {
  const used = new Set(touches.map(({ template }) => channelAt(template)));
  return CHANNELS.filter((channel) => channel === 'e-mail' || used.has(channel));
}

/** A touch on another day; those behind it stand in their order. The first stays where it is. Says where it stands then. */
export function movedTo(plan: FollowUpPlan, at: number, day: number): { readonly plan: FollowUpPlan; readonly at: number } {
  const touch = plan.touches[at];
  if (!touch || at === 0) return { plan, at };
  const moved = { ...touch, day: Math.min(LATEST, Math.max(0, Math.round(day))) };
  const [first, ...rest] = plan.touches.filter((_, i) => i !== at);
  if (!first) return { plan, at };
  const before = rest.filter((other, i) => other.day < moved.day || (other.day === moved.day && i + 1 < at));
  const behind = rest.filter((other) => !before.includes(other));
  return { plan: { ...plan, touches: [first, ...before, moved, ...behind] }, at: before.length + 1 };
}

/** Every touch by a name that stays its own when it moves: its text, and which of those with the same text it is. */
export const keysOf = ({ touches }: FollowUpPlan): readonly string[] =>
  touches.map(({ template }, i) => `${template} ${touches.slice(0, i).filter((other) => other.template === template).length}`);

interface Figures {
  readonly reached: number;
  readonly answered: number;
  readonly bounced: number;
  readonly unsubscribed: number;
}
/** The share of those the first touch reached who still wait before each touch; undefined where nobody was reached yet. */
export function stillWaiting(measured: readonly Figures[]): readonly number[] | undefined {
  const all = measured[0]?.reached ?? 0;
  if (all === 0) return undefined;
  let left = all;
  return measured.map(({ answered, bounced, unsubscribed }) => {
    const share = left / all;
    left = Math.max(0, left - answered - bounced - unsubscribed);
    return share;
  });
}

/** So wide are the words below a touch, in hundredths of the axis. */
const WORDS_WIDE = 34;

/** A row for each label by where it begins, in hundredths of the axis, so that none lies over another; null: it has none. */
export function rowsFor(lefts: readonly (number | null)[]): readonly number[] {
  const ends: number[] = [];
  return lefts.map((left) => {
    if (left === null) return 0;
    const free = ends.findIndex((end) => end <= left);
    const row = free < 0 ? ends.length : free;
    ends[row] = left + WORDS_WIDE;
    return row;
  });
}
