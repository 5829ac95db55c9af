/** Saying what a mail is, where it was understood otherwise. */
import type { CorrectionTrialView } from '../../../api';
import { plural } from '../../../core/base';
import type { Objection, ReplyKind } from '../../../core/reply';
import { dayText } from '../../kit/format';

export interface Correction {
  readonly kind: ReplyKind;
  readonly objection: Objection | null;
  readonly words: string | null;
}

/** With another kind: what an objection is about is asked for objections only. */
export const withKind = (correction: Correction, kind: ReplyKind): Correction => ({
  ...correction,
  kind,
  objection: kind === 'objection' ? (correction.objection ?? 'price') : null,
});

/** What follows at once, in words. */
export function thenText({ plan, when, bars }: CorrectionTrialView['follows']): string {
  if (bars) return 'nobody is written to at this address any more';
  if (plan === 'continue') return 'what is planned goes on';
  const day = when === null ? null : dayText(Date.parse(`${when}T12:00:00Z`), 'UTC');
  if (plan === 'stop') return `nothing more goes by itself${day === null ? '' : `; to be written to again from ${day}`}`;
  return day === null ? 'what is planned waits' : `what is planned waits until ${day}`;
}

/** What the words would teach, in words. */
export function teachesText({ read, same, other }: CorrectionTrialView, words: string | null): string {
  if (words === null) return 'only this mail';
  const known = `of the last ${plural(read, 'mail')}`;
  if (same + other.length === 0) return `${known} none says it like this; the next that does is understood so`;
  const agrees = same > 0 ? `, ${same} already so` : '';
  return `${known} ${plural(other.length, 'says', 'say')} it like this and ${other.length === 1 ? 'was' : 'were'} understood otherwise${agrees}`;
}
