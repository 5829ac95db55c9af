/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import Link from '../../kit/Link';
import { useRouter } from 'next/navigation';
import type { AnswerDraftView, HandOverView } from '../../../api';
import { call } from '../../client';
import { useAsk } from '../../client/use-ask';
import { dayTimeText } from '../../kit/format';
import { Said, Tag, TopBar } from '../../kit/parts';
import { placed } from '../../kit/placed';
import type { ThreadMessage } from '../state/thread';
import { Answer } from './Answer';
import { HandOver } from './HandOver';
import { Mail } from './Mail';
import { StillToCome } from './StillToCome';
import { THREAD_TONE, type ThreadRow } from './Threads';
import { Waiting } from './Waiting';

interface Props {
  readonly thread: ThreadRow & { readonly personId: string; readonly tripId: string | null; readonly mailbox: string };
  readonly messages: readonly ThreadMessage[];
  readonly zone: string;
  readonly mayDecide: boolean;
  /** the answer that would go out; null: nothing goes into this conversation any more */
  readonly draft: AnswerDraftView | null;
  /** who has it, and to whom it can be handed */
  readonly hand: HandOverView;
  /** conversations that need a person, the longest waiting first */
  readonly waiting: readonly string[];
}

/** One conversation on one matter: what went and came, what was understood, what still goes out by itself. */
export function Thread({ thread, messages, zone, mayDecide, draft, hand, waiting }: Props) {
  const router = useRouter();
  const asking = useAsk();
  const { said, hush, ask } = asking;
  const refresh = (): void => {
    router.refresh();
  };
  const happened = messages.filter((message) => ['sent', 'received', 'failed', 'in doubt'].includes(message.state));
  const rest = messages.filter((message) => !happened.includes(message));
  const theirs = messages.find(({ id }) => id === draft?.inReplyTo);
  const handle = (id: string): void => {
    ask(call('handleReply', { params: { id }, body: {} }), null, refresh);
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
      <Said said={said} onClose={hush} />
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
              asking={mayDecide ? asking : undefined}
              onCorrected={refresh}
              onHandle={mayDecide && message.direction === 'in' && message.handledAt === null ? handle : undefined}
            />
          ))}
          {happened.length === 0 ? <p className="quiet">Nothing has left yet.</p> : null}
        </section>
        {draft ? (
          <Answer
            key={[draft.inReplyTo, messages.length, theirs?.reading?.kind, theirs?.reading?.objection].join(' ')}
            threadId={thread.id}
            personName={thread.personName}
            first={draft}
            waits={theirs?.handledAt === null}
            mayDecide={mayDecide && hand.mayAnswer}
            zone={zone}
            asking={asking}
          >
            {mayDecide ? <HandOver key={hand.holder} threadId={thread.id} hand={hand} asking={asking} onDone={refresh} /> : null}
          </Answer>
        ) : null}
        <StillToCome
          messages={rest}
          mailbox={thread.mailbox}
          zone={zone}
          isNarrow={draft !== null}
          onTakeBack={
            mayDecide
              ? (id) => {
                  ask(call('takeBackAnswer', { params: { id }, body: {} }), 'Taken back: it waits for you again.', refresh);
                }
              : undefined
          }
        />
      </div>
    </>
  );
}
