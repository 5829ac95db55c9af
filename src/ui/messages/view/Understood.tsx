'use client';
import type { ThreadMessage } from '../state/thread';
import { besideText, followsText, replyTone } from '../../client/replies';
import { Tag } from '../../kit/parts';

interface Props {
  readonly reading: NonNullable<ThreadMessage['reading']>;
  readonly zone: string;
  /** undefined: whoever looks may not correct it */
  readonly onNotSo: (() => void) | undefined;
}

/** What was understood of a mail, how surely, by what, and what it did; corrected by a click. */
export function Understood({ reading, zone, onNotSo }: Props) {
  const { kind, objection, confidence, tone, corrected, taughtBy } = reading;
  const sure = corrected
    ? `${corrected.by} says so; it was taken for ${corrected.kind}${corrected.objection ? ` · ${corrected.objection}` : ''}`
    : `sure ${(confidence ?? 0).toFixed(2)}${taughtBy === undefined ? '' : ', as a correction has shown'}`;
  return (
    <>
      <Tag tone={replyTone(kind)}>
        {kind}
        {objection ? ` · ${objection}` : ''}
      </Tag>
      {onNotSo ? (
        <button className="linkish small" onClick={onNotSo}>
          not so
        </button>
      ) : null}
      <span className="quiet small">
        {[sure, tone && tone !== 'neutral' ? `${tone} in tone` : '', followsText(reading, zone), besideText(reading)]
          .filter(Boolean)
          .join(' · ')}
      </span>
    </>
  );
}
