import type { ReplyKind } from '../../core/reply';
import { dayText } from '../kit/format';
import type { Tone } from '../kit/tone';

const TONES: Readonly<Partial<Record<ReplyKind, Tone>>> = {
  interested: 'moss',
  'meeting accepted': 'moss',
  'already customer': 'moss',
  question: 'river',
  objection: 'brick',
  decline: 'brick',
  angry: 'brick',
  unsubscribe: 'brick',
  bounce: 'brick',
  complaint: 'brick',
  'not now': 'brass',
  'wrong person': 'brass',
  'moved job': 'brass',
  'meeting declined': 'brass',
  'out of office': 'plum',
  'soft bounce': 'plum',
};
/** The colour of a kind of answer, everywhere the same. */
export const replyTone = (kind: string): Tone => TONES[kind as ReplyKind] ?? 'plain';

interface Follows {
  readonly kind: string;
  readonly when: string | null;
  /** answers of before do not say */
  readonly plan?: 'stop' | 'pause' | 'continue' | undefined;
}
/** What an answer did to the plan: “the plan waits until Mon 14 Dec”. */
export function followsText({ kind, when, plan }: Follows, zone: string): string {
  if (plan === undefined) return '';
  if (plan === 'continue') return 'nobody has answered: the plan goes on';
  if (plan === 'stop')
    return kind === 'unsubscribe' || kind === 'bounce' || kind === 'complaint'
      ? 'the plan ended; nobody writes to this address again'
      : 'the plan stopped';
  return when === null ? 'the plan waits some days' : `the plan waits until ${dayText(Date.parse(when), zone)}`;
}
