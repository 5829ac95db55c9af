/** @jsxImportSource @emotion/react */
'use client';
import { Button, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { freeName } from '../../../core/base';
import { call, sayProblem } from '../../client';
import { ago, countText } from '../../kit/format';
import Link from '../../kit/Link';
import { GoRow, Notice, Tag } from '../../kit/parts';
import './forms.css';
import { FIRST_FORM } from '../state/form-draft';
import { placed } from '../../kit/placed';

export interface DoorLine {
  readonly id: string;
  readonly kind: 'form' | 'webhook' | 'mailbox' | 'calendar';
  readonly name: string;
  /** where it stands: its own address, or whose mailbox or calendar it is */
  readonly address: string;
  readonly isOn: boolean;
  readonly lastAt: number | null;
  readonly taken: number;
  readonly refused: number;
  readonly flows: readonly string[];
  /** why it could not be looked at; null for doors that others come to */
  readonly problem: string | null;
}

const HREF: Readonly<Record<DoorLine['kind'], string>> = {
  form: '/sources/forms',
  webhook: '/sources/webhooks',
  mailbox: '/sources/watched',
  calendar: '/sources/watched',
};

/** Forms, webhook addresses, mailboxes and calendars: what stands open, what came through it, and which flow it begins. */
export function Doors({
  doors,
  now,
  mayTakeIn,
  onProblem,
}: {
  readonly doors: readonly DoorLine[];
  readonly now: number;
  readonly mayTakeIn: boolean;
  readonly onProblem: (problem: string) => void;
}) {
  const router = useRouter();
  const [made, setMade] = useState<{ readonly id: string; readonly secret: string; readonly token: string } | null>(null);
  const [naming, setNaming] = useState<Named | null>(null);
  const taken = doors.map((door) => door.name);
  const refused = (error: unknown): void => {
    onProblem(sayProblem(error));
  };
  const make = (kind: 'form' | 'webhook', name: string): void => {
    setNaming(null);
    if (kind === 'form')
      call('createForm', { body: { name, form: FIRST_FORM } }).then(({ id }) => {
        router.push(`/sources/forms/${id}`);
      }, refused);
    else
      call('createWebhookIntake', { body: { name } }).then((hook) => {
        setMade(hook);
        router.refresh();
      }, refused);
  };
  return (
    <>
      <div className="bar ruled">
        <h2 className="grow">Doors</h2>
        {mayTakeIn ? (
          <>
            <button
              className="linkish"
              onClick={() => {
                setNaming({ kind: 'form', name: freeName('New form', taken) });
              }}
            >
              make a form
            </button>
            <button
              className="linkish"
              onClick={() => {
                setNaming({ kind: 'webhook', name: freeName('New webhook', taken) });
              }}
            >
              make a webhook address
            </button>
            <Link href="/sources/watched/new?kind=mailbox">connect a mailbox</Link>
            <Link href="/sources/watched/new?kind=calendar">connect a calendar</Link>
          </>
        ) : null}
      </div>
      {naming ? <Naming naming={naming} onName={setNaming} onMake={make} /> : null}
      {made ? (
        <Notice calm>
          <span className="strong">Told this once and never again.</span> Secret for signatures: <code>{made.secret}</code> · token for
          senders without: <code>{made.token}</code>{' '}
          <Button component={Link} href={`/sources/webhooks/${made.id}`}>
            I have kept them, go on
          </Button>
        </Notice>
      ) : null}
      {doors.length === 0 ? (
        <p className="empty">
          None yet. A form has a page of its own; a webhook address takes what another system posts; a mailbox or a calendar is looked at
          every minute. What comes in begins the flows that take in from there.
        </p>
      ) : (
        <DoorTable doors={doors} now={now} />
      )}
    </>
  );
}

interface Named {
  readonly kind: 'form' | 'webhook';
  readonly name: string;
}
interface NamingProps {
  readonly naming: Named;
  readonly onName: (naming: Named | null) => void;
  readonly onMake: (kind: Named['kind'], name: string) => void;
}
/** A door gets its name before it is made: flows speak of it by that. */
function Naming({ naming, onName, onMake }: NamingProps) {
  return (
    <form
      className="naming"
      onSubmit={(event) => {
        event.preventDefault();
        onMake(naming.kind, naming.name.trim());
      }}
    >
      <TextField
        autoFocus
        label={`Name of the ${naming.kind}`}
        helperText={`flows take in from it by this name: take in from ${naming.kind} "${naming.name}"`}
        value={naming.name}
        onChange={(event) => {
          onName({ ...naming, name: event.target.value });
        }}
      />
      <Button type="submit" variant="contained" disabled={naming.name.trim() === ''}>
        Make it
      </Button>
      <Button
        onClick={() => {
          onName(null);
        }}
      >
        Leave it
      </Button>
    </form>
  );
}

function DoorTable({ doors, now }: { readonly doors: readonly DoorLine[]; readonly now: number }) {
  return (
    <table className="plain">
      <thead>
        <tr>
          <th>name</th>
          <th>kind</th>
          <th>state</th>
          <th>begins</th>
          <th className="right">taken in</th>
          <th className="right">refused</th>
          <th className="right">last received</th>
        </tr>
      </thead>
      <tbody>
        {doors.map((door) => (
          <Row key={door.id} door={door} now={now} />
        ))}
      </tbody>
    </table>
  );
}

function Row({ door, now }: { readonly door: DoorLine; readonly now: number }) {
  const href = `${HREF[door.kind]}/${door.id}`;
  return (
    <GoRow href={href}>
      <td>
        <Link href={href} className="strong" css={placed({ textDecoration: 'none' })}>
          {door.name}
        </Link>{' '}
        <span className="quiet small">{door.address}</span>
      </td>
      <td className="quiet">{door.kind}</td>
      <td>
        {door.problem !== null && door.isOn ? (
          <Tag tone="brick" title={door.problem}>
            ■ cannot look
          </Tag>
        ) : door.isOn ? (
          <Tag tone="moss">✓ on</Tag>
        ) : (
          <Tag>○ off</Tag>
        )}
      </td>
      <td className="quiet">{door.flows.join(', ') || 'no flow'}</td>
      <td className="right">{countText(door.taken)}</td>
      <td className="right">{countText(door.refused)}</td>
      <td className="right quiet">{door.lastAt === null ? 'never' : ago(door.lastAt, now)}</td>
    </GoRow>
  );
}
