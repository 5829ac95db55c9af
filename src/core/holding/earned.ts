import { shareInterval } from '../base';

/** How often a person sent a draft as it stood, of those a person decided. */
export interface Agreement {
  readonly decided: number;
  readonly unchanged: number;
  readonly share: number;
  /** the range the share may truly have (Wilson interval, 95 %) */
  readonly from: number;
  readonly to: number;
}
export function agreementOf({ decided, unchanged }: { readonly decided: number; readonly unchanged: number }): Agreement {
  const [from, to] = shareInterval(unchanged, decided);
  return { decided, unchanged, share: decided === 0 ? 0 : unchanged / decided, from, to };
}

/** So often, at least, must drafts of a kind have gone out as they stood, seen over the whole range that the count allows … */
export const EARNED = 0.8;
/** … and below this, at most, a rule that lets go has lost what it earned. */
const LOST = 0.7;

/** What the count of a kind says of letting it go alone: earned, lost, or not to be told yet. */
export const earned = ({ from, to, decided }: Agreement): 'earned' | 'lost' | 'open' =>
  decided > 0 && from >= EARNED ? 'earned' : decided > 0 && to < LOST ? 'lost' : 'open';

/** Whether an answer that could go alone is one of those a person looks at all the same: the same answer for the same message. */
export function isLookedAt(messageId: string, share: number): boolean {
  let hash = 0x811c9dc5;
  for (const char of messageId) hash = Math.imul(hash ^ char.charCodeAt(0), 0x01000193) >>> 0;
  return hash / 2 ** 32 < share;
}
