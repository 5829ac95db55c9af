/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Answer } from '../../../api';
import { plural } from '../../../core/base';
import { dayTimeText } from '../../kit/format';
import { Notice, Tag, TopBar } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { SecondFactor } from './SecondFactor';
import { Telling } from './Telling';

interface Props {
  readonly user: {
    readonly name: string;
    readonly email: string;
    readonly role: string;
    readonly title: string;
    readonly may: readonly string[];
  };
  readonly sessions: readonly {
    readonly id: string;
    readonly createdAt: number;
    readonly seenAt: number;
    readonly expiresAt: number;
    readonly own: boolean;
  }[];
  readonly factor: Answer<'getSecondFactor'>;
  readonly told: Answer<'getTelling'>;
  readonly zone: string;
}

/** Who one is here, what one may do, where one is signed in and where one is told. */
export function Account({ user, sessions, factor, told, zone }: Props) {
  const router = useRouter();
  const [said, setSaid] = useState<{ readonly calm: boolean; readonly text: string } | null>(null);
  const end = async (which: 'others' | 'all'): Promise<void> => {
    const response = await fetch('/session', { method: 'PUT', body: JSON.stringify({ end: which }) }).catch(() => undefined);
    if (!response?.ok) {
      setSaid({ calm: false, text: 'Millrace could not be reached: no session was ended. Try again in a moment.' });
      return;
    }
    if (which === 'all') {
      window.location.href = '/sign-in';
      return;
    }
    const { ended } = (await response.json()) as { readonly ended: number };
    setSaid({ calm: true, text: ended === 0 ? 'There was no other session.' : `${plural(ended, 'session')} ended.` });
    router.refresh();
  };
  return (
    <>
      <TopBar title="My account" tags={<span className="quiet">{user.email}</span>}>
        <Button
          disabled={sessions.length < 2}
          onClick={() => {
            void end('others');
          }}
        >
          End all other sessions
        </Button>
        <Button
          onClick={() => {
            void end('all');
          }}
        >
          Sign out everywhere
        </Button>
      </TopBar>
      {said ? (
        <Notice
          calm={said.calm}
          onClose={() => {
            setSaid(null);
          }}
        >
          {said.text}
        </Notice>
      ) : null}
      <div className="cols">
        <section className="col paper grow" tabIndex={0} aria-label="Sessions">
          <div className="bar ruled">
            <h2 className="grow">Where you are signed in</h2>
            <span className="quiet">a session ends after three days without use, and in any case after fourteen</span>
          </div>
          <table className="plain">
            <thead>
              <tr>
                <th>session</th>
                <th>began</th>
                <th>last used</th>
                <th>ends at the latest</th>
              </tr>
            </thead>
            <tbody>
              {sessions.map((session) => (
                <tr key={session.id}>
                  <td>{session.own ? <Tag tone="moss">✓ this one</Tag> : <code>{session.id}</code>}</td>
                  <td>{dayTimeText(session.createdAt, zone)}</td>
                  <td>{dayTimeText(session.seenAt, zone)}</td>
                  <td>{dayTimeText(session.expiresAt, zone)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <Telling first={told} email={user.email} />
          <SecondFactor first={factor} zone={zone} mayRequire={user.role === 'owner'} />
        </section>
        <aside className="col" css={placed({ width: 320, flex: 'none', padding: '0 18px' })} aria-label="Role">
          <div className="bar" css={placed({ padding: '8px 0' })}>
            <h2 className="grow">{user.name}</h2>
            <Tag tone="river">{user.role}</Tag>
          </div>
          <p className="quiet">{user.title}</p>
          <h3 css={placed({ marginTop: 12 })}>You may</h3>
          <p>{user.may.join(', ')}</p>
        </aside>
      </div>
    </>
  );
}
