/** A conversation as it is shown: its messages, and what their states are called. */

import type { Channel } from '../../../core/writer';

export interface ThreadMessage {
  readonly id: string;
  readonly channel: Channel;
  readonly direction: 'in' | 'out';
  readonly subject: string;
  readonly body: string;
  readonly personalLine: string | null;
  readonly state: string;
  readonly touch: number | null;
  readonly fromAddress: string | null;
  readonly toAddress: string | null;
  readonly approvedByName: string | null;
  readonly handledAt: number | null;
  readonly at: number;
  readonly dueAt: number | null;
  readonly says: string | null;
  readonly rfcId: string | null;
  readonly inReplyTo: string | null;
  readonly facts: readonly {
    readonly field: string;
    readonly value: string | number | boolean | null;
    readonly quote?: string;
    readonly url?: string;
  }[];
  readonly checks: readonly { readonly id: string; readonly ok: boolean }[];
  readonly reading: {
    readonly kind: string;
    readonly objection: string | null;
    readonly when: string | null;
    readonly quote: string | null;
    readonly plan?: 'stop' | 'pause' | 'continue';
    readonly toMachines?: readonly string[];
    readonly confidence?: number;
    readonly tone?: string;
    readonly also?: readonly string[];
    readonly named?: { readonly name: string | null; readonly email: string | null };
    readonly times?: readonly string[];
    readonly taughtBy?: string;
    readonly corrected?: { readonly by: string; readonly kind: string; readonly objection: string | null };
  } | null;
}

export const STATE_WORDS: Readonly<Record<string, string>> = {
  sent: 'sent',
  received: 'received',
  planned: 'will go',
  dropped: 'does not go',
  refused: 'refused',
  failed: 'failed',
  'in doubt': 'in doubt',
  approved: 'approved',
  written: 'waits for approval',
};

/** What we did, at the head of a message of ours. */
export const DID_WORDS: Readonly<Record<Channel, string>> = {
  'e-mail': 'We wrote',
  call: 'We called',
  'profile note': 'We left a note on the profile',
  letter: 'We sent a letter',
};

/** “Touch 2 · call”, or an answer, which stands in no plan. */
export const touchText = ({ touch, channel }: Pick<ThreadMessage, 'touch' | 'channel'>): string =>
  touch === null ? 'Our answer' : `Touch ${touch + 1}${channel === 'e-mail' ? '' : ` · ${channel}`}`;

/** An answer of ours that no person approved: a rule let it go. Touches of a plan are counted, answers are not. */
export const wentAlone = ({ direction, touch, approvedByName }: Pick<ThreadMessage, 'direction' | 'touch' | 'approvedByName'>): boolean =>
  direction === 'out' && touch === null && approvedByName === null;

/** What they wrote and what they quoted below it. */
export function splitQuoted(body: string): readonly [own: string, quoted: string] {
  const at = body.search(/\n(?:On .+ wrote:|>)/);
  return at < 0 ? [body.trim(), ''] : [body.slice(0, at).trim(), body.slice(at).trim()];
}
