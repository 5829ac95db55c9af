import type { ReplyKind } from '../../core/reply';
import { dayText, dayTimeText } from '../kit/format';
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

/** A day and time as the sender's clocks show them: “Tue 1 Dec 09:15”; the day alone where no time was said. */
const saidTime = (time: string): string =>
  time.includes('T') ? dayTimeText(Date.parse(`${time}Z`), 'UTC') : dayText(Date.parse(time), 'UTC');
const ALSO: Readonly<Record<string, string>> = {
  interested: 'is interested',
  question: 'asks something',
  objection: 'objects',
  'not now': 'says not now',
  'already customer': 'is with us already',
  'moved job': 'has moved on',
  'wrong person': 'says it is the wrong person',
};

interface Beside {
  readonly also?: readonly string[] | undefined;
  readonly times?: readonly string[] | undefined;
}
/** What an answer says beside its kind: “also asks something · their time: Tue 1 Dec 09:15 or Mon 7 Dec 16:00”. */
export const besideText = ({ also = [], times = [] }: Beside): string =>
  [
    ...(also.length > 0 ? [`also ${also.map((kind) => ALSO[kind] ?? kind).join(' and ')}`] : []),
    ...(times.length > 0 ? [`their time: ${times.map(saidTime).join(' or ')}`] : []),
  ].join(' · ');
