/** @jsxImportSource @emotion/react */
'use client';
import type { ReactNode } from 'react';
import Link from '../../kit/Link';
import { ago, dayTimeText } from '../../kit/format';
import { GoRow, Empty, Tag, TopBar, type Tone } from '../../kit/parts';
import { SteadyBody } from '../../kit/SteadyBody';
import { placed } from '../../kit/placed';
import { firstName } from '../state/hand-over';
import { replyTone } from '../../client/replies';

export interface ThreadRow {
  readonly id: string;
  readonly personName: string;
  readonly companyName: string | null;
  readonly subject: string;
  readonly state: 'open' | 'answered' | 'paused' | 'ended';
  readonly pausedUntil: number | null;
  readonly lastAt: number | null;
  readonly count: number;
  readonly lastKind: string | null;
  /** null: everybody */
  readonly holderName: string | null;
}

export const THREAD_TONE: Readonly<Record<ThreadRow['state'], Tone>> = { open: 'river', answered: 'brass', paused: 'plum', ended: 'plain' };
interface ThreadsProps {
  readonly threads: readonly ThreadRow[];
  readonly now: number;
  readonly zone: string;
  /** the parts of Messages */
  readonly tabs: ReactNode;
}

/** Conversations, the one with the latest word first. */
export function Threads({ threads, now, zone, tabs }: ThreadsProps) {
  const count = (state: ThreadRow['state']): number => threads.filter((thread) => thread.state === state).length;
  return (
    <>
      <TopBar
        title="Messages"
        tags={
          <>
            {tabs}
            <span className="quiet">
              {count('open')} open · {count('answered')} answered · {count('paused')} paused · {count('ended')} ended
            </span>
          </>
        }
      />
      <div className="cols">
        <section className="col paper grow">
          {threads.length === 0 ? (
            <Empty title="No conversation yet">
              A conversation begins when a first message has been approved on the desk. Its answers, and what Millrace understood of them,
              stand here.
            </Empty>
          ) : (
            <table className="plain">
              <thead>
                <tr>
                  <th>with</th>
                  <th>company</th>
                  <th>about</th>
                  <th>state</th>
                  <th>last answer</th>
                  <th>has it</th>
                  <th className="right">mails</th>
                  <th className="right">last</th>
                </tr>
              </thead>
              <SteadyBody items={threads} idOf={(thread) => thread.id}>
                {(thread) => (
                  <GoRow key={thread.id} href={`/messages/${thread.id}`}>
                    <td>
                      <Link href={`/messages/${thread.id}`} className="strong" css={placed({ textDecoration: 'none' })}>
                        {thread.personName}
                      </Link>
                    </td>
                    <td className="cut" css={placed({ maxWidth: 180 })}>
                      {thread.companyName}
                    </td>
                    <td className="cut quiet" css={placed({ maxWidth: 260 })}>
                      {thread.subject}
                    </td>
                    <td>
                      <Tag tone={THREAD_TONE[thread.state]}>
                        {thread.state}
                        {thread.state === 'paused' && thread.pausedUntil !== null ? ` until ${dayTimeText(thread.pausedUntil, zone)}` : ''}
                      </Tag>
                    </td>
                    <td>
                      {thread.lastKind ? (
                        <Tag tone={replyTone(thread.lastKind)}>{thread.lastKind}</Tag>
                      ) : (
                        <span className="quiet">none yet</span>
                      )}
                    </td>
                    <td className="cut quiet">{thread.holderName === null ? 'everybody' : firstName(thread.holderName)}</td>
                    <td className="right">{thread.count}</td>
                    <td className="right quiet">{thread.lastAt === null ? 'planned' : ago(thread.lastAt, now)}</td>
                  </GoRow>
                )}
              </SteadyBody>
            </table>
          )}
        </section>
      </div>
    </>
  );
}
