/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import Link from '../../kit/Link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { AnswerDraftView } from '../../../api';
import { printValue } from '../../../core/fields';
import { plural } from '../../../core/base';
import { call, sayProblem } from '../../client';
import { dayTimeText, pageText } from '../../kit/format';
import { Marked, Notice, Tag, TopBar } from '../../kit/parts';
import { followsText, replyTone } from '../../client/replies';
import { THREAD_TONE, type ThreadRow } from './Threads';
import { placed } from '../../kit/placed';
import { Answer } from './Answer';
import { Waiting } from './Waiting';

export interface ThreadMessage {
  readonly id: string;
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
  } | null;
}
interface Props {
  readonly thread: ThreadRow & { readonly personId: string; readonly tripId: string | null; readonly mailbox: string };
  readonly messages: readonly ThreadMessage[];
  readonly zone: string;
  readonly mayDecide: boolean;
  /** the answer that would go out; null: nothing goes into this conversation any more */
  readonly draft: AnswerDraftView | null;
  /** conversations that need a person, the longest waiting first */
  readonly waiting: readonly string[];
}

const STATE_WORDS: Readonly<Record<string, string>> = {
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

/** One conversation on one matter: what went and came, what was understood, what still goes out by itself. */
export function Thread({ thread, messages, zone, mayDecide, draft, waiting }: Props) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const happened = messages.filter((message) => ['sent', 'received', 'failed', 'in doubt'].includes(message.state));
  const rest = messages.filter((message) => !happened.includes(message));
  const handle = (id: string): void => {
    call('handleReply', { params: { id }, body: {} }).then(
      () => {
        router.refresh();
      },
      (error: unknown) => {
        setProblem(sayProblem(error));
      },
    );
  };
  return (
    <>
      <TopBar
        path={<Link href="/messages">Messages</Link>}
        title={thread.subject}
        tags={
          <>
            <Tag tone={THREAD_TONE[thread.state]}>
              {thread.state}
              {thread.state === 'paused' && thread.pausedUntil !== null ? ` until ${dayTimeText(thread.pausedUntil, zone)}` : ''}
            </Tag>
            <span className="quiet cut">
              with {thread.personName}
              {thread.companyName ? ` · ${thread.companyName}` : ''}
            </span>
          </>
        }
      >
        <Waiting threadId={thread.id} waiting={waiting} />
        <Button component={Link} href={`/records/people/${thread.personId}`}>
          The record
        </Button>
        {thread.tripId ? (
          <Button component={Link} href={`/trips/${thread.tripId}`}>
            The trip
          </Button>
        ) : null}
      </TopBar>
      {problem ? <Notice>{problem}</Notice> : null}
      <div className="cols">
        <section
          className="col grow"
          css={placed({ padding: 16, display: 'flex', flexDirection: 'column', gap: 12 })}
          aria-label="Conversation"
        >
          {happened.map((message) => (
            <Mail
              key={message.id}
              message={message}
              personName={thread.personName}
              zone={zone}
              onHandle={mayDecide && message.direction === 'in' && message.handledAt === null ? handle : undefined}
            />
          ))}
          {happened.length === 0 ? <p className="quiet">Nothing has left yet.</p> : null}
        </section>
        {draft ? (
          <Answer
            key={`${draft.inReplyTo ?? ''} ${messages.length}`}
            threadId={thread.id}
            personName={thread.personName}
            first={draft}
            waits={messages.some((message) => message.id === draft.inReplyTo && message.handledAt === null)}
            mayDecide={mayDecide}
            zone={zone}
          />
        ) : null}
        <aside className="col paper" css={placed({ width: draft ? 250 : 400, flex: 'none' })} aria-label="Still to come">
          <div className="bar ruled">
            <h2 className="grow">Still to come</h2>
            <span className="quiet">from {thread.mailbox}</span>
          </div>
          {rest.map((message) => (
            <div key={message.id} css={placed({ padding: '9px 16px', borderBottom: '1px solid var(--line2)' })}>
              <div css={placed({ display: 'flex', gap: 8 })}>
                <span className="strong grow">Touch {(message.touch ?? 0) + 1}</span>
                <Tag tone={message.state === 'planned' ? 'river' : 'plain'}>{STATE_WORDS[message.state] ?? message.state}</Tag>
              </div>
              <div className="quiet">
                {message.state === 'planned' && message.dueAt !== null
                  ? `${dayTimeText(message.dueAt, zone)}, in the reader’s office hours`
                  : (message.says ?? '')}
              </div>
              <details>
                <summary className="quiet">{message.subject}</summary>
                <div css={placed({ whiteSpace: 'pre-wrap', paddingTop: 6 })}>{message.body}</div>
              </details>
            </div>
          ))}
          {rest.length === 0 ? (
            <p className="quiet" css={placed({ padding: '10px 16px' })}>
              Nothing more goes out by itself.
            </p>
          ) : null}
          <p className="quiet small" css={placed({ padding: '10px 16px' })}>
            The plan stops by itself at an answer, a bounce or an unsubscribe, and pauses while the reader is away.
          </p>
        </aside>
      </div>
    </>
  );
}

function Mail({
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

function splitQuoted(body: string): readonly [own: string, quoted: string] {
  const at = body.search(/\n(?:On .+ wrote:|>)/);
  return at < 0 ? [body.trim(), ''] : [body.slice(0, at).trim(), body.slice(at).trim()];
}
