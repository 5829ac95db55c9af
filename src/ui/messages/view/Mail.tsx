/** @jsxImportSource @emotion/react */
'use client';
import { printValue } from '../../../core/fields';
import { plural } from '../../../core/base';
import { dayTimeText, pageText } from '../../kit/format';
import { Marked, Tag } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { followsText, replyTone } from '../../client/replies';
import { splitQuoted, STATE_WORDS, wentAlone, type ThreadMessage } from '../state/thread';

/** One mail of a conversation: what was written, what was understood, what it rests on. */
export function Mail({
  message,
  personName,
  zone,
  onHandle,
}: {
  readonly message: ThreadMessage;
  readonly personName: string;
  readonly zone: string;
  readonly onHandle: ((id: string) => void) | undefined;
}) {
  const incoming = message.direction === 'in';
  const [own, quoted] = splitQuoted(message.body);
  return (
    <article
      css={placed({
        background: 'var(--paper)',
        border: '1px solid var(--line)',
        borderLeft: `3px solid ${incoming ? 'var(--brass-mark)' : 'var(--w3)'}`,
        borderRadius: 4,
        padding: '10px 14px',
        marginLeft: incoming ? 0 : 40,
        marginRight: incoming ? 40 : 0,
      })}
    >
      <header css={placed({ display: 'flex', gap: 8, alignItems: 'baseline', paddingBottom: 6, flexWrap: 'wrap' })}>
        <span className="strong">
          {incoming ? (message.reading?.kind === 'bounce' ? (message.fromAddress ?? 'mail system') : personName) : 'We wrote'}
        </span>
        <span className="quiet">{dayTimeText(message.at, zone)}</span>
        {message.state !== 'sent' && message.state !== 'received' ? (
          <Tag tone={message.state === 'in doubt' ? 'plum' : 'brick'}>{STATE_WORDS[message.state] ?? message.state}</Tag>
        ) : null}
        {message.reading ? (
          <>
            <Tag tone={replyTone(message.reading.kind)}>
              {message.reading.kind}
              {message.reading.objection ? ` · ${message.reading.objection}` : ''}
            </Tag>
            <span className="quiet small">{followsText(message.reading, zone)}</span>
          </>
        ) : null}
        <span className="grow" />
        {message.approvedByName ? <span className="quiet small">approved by {message.approvedByName}</span> : null}
        {wentAlone(message) ? <span className="in-brass small">went alone by a rule</span> : null}
      </header>
      <div css={placed({ whiteSpace: 'pre-wrap', overflowWrap: 'anywhere' })}>
        {message.personalLine ? (
          <Marked text={own} passage={message.personalLine} as="personal" />
        ) : (
          <Marked text={own} passage={message.reading?.quote} as="quote" />
        )}
      </div>
      {(message.reading?.toMachines ?? []).length > 0 ? (
        <p className="in-brass small" css={placed({ margin: '6px 0 0' })}>
          ■ left out, for it speaks to a machine and not to us: {(message.reading?.toMachines ?? []).map((words) => `“${words}”`).join(' ')}
        </p>
      ) : null}
      {quoted ? (
        <details>
          <summary className="quiet small">what they quoted</summary>
          <div className="quiet small" css={placed({ whiteSpace: 'pre-wrap' })}>
            {quoted}
          </div>
        </details>
      ) : null}
      <footer className="quiet small" css={placed({ paddingTop: 6 })}>
        {message.facts.map((fact) => (
          <div key={fact.field}>
            rests on {fact.field.replace(/_/g, ' ')} {printValue(fact.value)} {fact.url ? pageText(fact.url) : ''}
          </div>
        ))}
        {!incoming && message.checks.length > 0 ? `✓ ${plural(message.checks.length, 'check')} · ` : ''}
        <span title={`Message-ID ${message.rfcId ?? ''}${message.inReplyTo ? `, in reply to ${message.inReplyTo}` : ''}`}>
          {message.inReplyTo ? 'in the same thread' : 'first of the thread'}
        </span>
        {onHandle ? (
          <>
            {' '}
            ·{' '}
            <button
              className="linkish"
              onClick={() => {
                onHandle(message.id);
              }}
            >
              I take care of it
            </button>
          </>
        ) : null}
      </footer>
    </article>
  );
}
