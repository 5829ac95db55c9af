/** @jsxImportSource @emotion/react */
'use client';
import { printValue } from '../../../core/fields';
import { plural } from '../../../core/base';
import { dayTimeText, pageText } from '../../kit/format';
import { Marked, Tag } from '../../kit/parts';
import { placed } from '../../kit/placed';
import type { Asking } from '../../client/use-ask';
import { useState } from 'react';
import { DID_WORDS, splitQuoted, STATE_WORDS, wentAlone, type ThreadMessage } from '../state/thread';
import { NamedInstead } from './NamedInstead';
import { NotSo } from './NotSo';
import { Understood } from './Understood';

/** One mail of a conversation: what was written, what was understood, what it rests on. */
export function Mail({
  message,
  personName,
  zone,
  asking,
  onHandle,
  onCorrected,
}: {
  readonly message: ThreadMessage;
  readonly personName: string;
  readonly zone: string;
  /** of the conversation; undefined: whoever looks may not decide */
  readonly asking: Pick<Asking, 'busy' | 'ask'> | undefined;
  readonly onHandle: ((id: string) => void) | undefined;
  readonly onCorrected: () => void;
}) {
  const incoming = message.direction === 'in';
  const isMail = message.channel === 'e-mail';
  const [notSo, setNotSo] = useState(false);
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
          {incoming
            ? message.reading?.kind === 'bounce'
              ? (message.fromAddress ?? 'mail system')
              : personName
            : DID_WORDS[message.channel]}
        </span>
        <span className="quiet">{dayTimeText(message.at, zone)}</span>
        {message.state !== 'sent' && message.state !== 'received' ? (
          <Tag tone={message.state === 'in doubt' ? 'plum' : 'brick'}>{STATE_WORDS[message.state] ?? message.state}</Tag>
        ) : null}
        {message.reading ? (
          <Understood
            reading={message.reading}
            zone={zone}
            onNotSo={
              asking && incoming && message.reading.kind !== 'bounce'
                ? () => {
                    setNotSo(!notSo);
                  }
                : undefined
            }
          />
        ) : null}
        <span className="grow" />
        {message.approvedByName ? (
          <span className="quiet small">
            {isMail ? 'approved' : 'done'} by {message.approvedByName}
          </span>
        ) : null}
        {wentAlone(message) ? <span className="in-brass small">went alone by a rule</span> : null}
      </header>
      {notSo && asking ? (
        <NotSo
          messageId={message.id}
          quote={message.reading?.quote ?? null}
          asking={asking}
          onDone={() => {
            setNotSo(false);
            onCorrected();
          }}
          onClose={() => {
            setNotSo(false);
          }}
        />
      ) : null}
      {isMail || message.says === null ? null : <p css={placed({ margin: '0 0 6px' })}>{message.says}</p>}
      <div className={isMail ? undefined : 'quiet'} css={placed({ whiteSpace: 'pre-wrap', overflowWrap: 'anywhere' })}>
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
      {incoming && message.reading?.named ? <NamedInstead messageId={message.id} named={message.reading.named} asking={asking} /> : null}
      {quoted ? (
        <details>
          <summary className="quiet small">what they quoted</summary>
          <div className="quiet small" css={placed({ whiteSpace: 'pre-wrap' })}>
            {quoted}
          </div>
        </details>
      ) : null}
      <Foot message={message} onHandle={onHandle} />
    </article>
  );
}

/** What it rests on, how it stands in its thread, and who takes care of it. */
function Foot({ message, onHandle }: { readonly message: ThreadMessage; readonly onHandle: ((id: string) => void) | undefined }) {
  const isMail = message.channel === 'e-mail';
  return (
    <footer className="quiet small" css={placed({ paddingTop: 6 })}>
      {message.facts.map((fact) => (
        <div key={fact.field}>
          rests on {fact.field.replace(/_/g, ' ')} {printValue(fact.value)} {fact.url ? pageText(fact.url) : ''}
        </div>
      ))}
      {message.direction === 'out' && message.checks.length > 0 ? `✓ ${plural(message.checks.length, 'check')} · ` : ''}
      {isMail ? (
        <span title={`Message-ID ${message.rfcId ?? ''}${message.inReplyTo ? `, in reply to ${message.inReplyTo}` : ''}`}>
          {message.inReplyTo ? 'in the same thread' : 'first of the thread'}
        </span>
      ) : (
        message.subject
      )}
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
  );
}
