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

export interface DoorLine {
  readonly id: string;
  readonly name: string;
  readonly slug: string;
  readonly isOn: boolean;
  readonly lastAt: number | null;
  readonly taken: number;
  readonly refused: number;
  readonly flows: readonly string[];
}

/** Forms and webhook addresses: what stands open, what came through it, and which flow it begins. */
export function Doors({
  forms,
  hooks,
  now,
  mayTakeIn,
  onProblem,
}: {
  readonly forms: readonly DoorLine[];
  readonly hooks: readonly DoorLine[];
  readonly now: number;
  readonly mayTakeIn: boolean;
  readonly onProblem: (problem: string) => void;
}) {
  const router = useRouter();
  const [made, setMade] = useState<{ readonly id: string; readonly secret: string; readonly token: string } | null>(null);
  const [naming, setNaming] = useState<{ readonly kind: 'form' | 'webhook'; readonly name: string } | null>(null);
  const taken = [...forms, ...hooks].map((door) => door.name);
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
        <h2 className="grow">Forms and webhooks</h2>
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
          </>
        ) : null}
      </div>
      {naming ? (
        <form
          className="naming"
          onSubmit={(event) => {
            event.preventDefault();
            make(naming.kind, naming.name.trim());
          }}
        >
          <TextField
            autoFocus
            label={`Name of the ${naming.kind}`}
            helperText={`flows take in from it by this name: take in from ${naming.kind} "${naming.name}"`}
            value={naming.name}
            onChange={(event) => {
              setNaming({ ...naming, name: event.target.value });
            }}
          />
          <Button type="submit" variant="contained" disabled={naming.name.trim() === ''}>
            Make it
          </Button>
          <Button
            onClick={() => {
              setNaming(null);
            }}
          >
            Leave it
          </Button>
        </form>
      ) : null}
      {made ? (
        <Notice calm>
          <span className="strong">Told this once and never again.</span> Secret for signatures: <code>{made.secret}</code> · token for
          senders without: <code>{made.token}</code>{' '}
          <Button component={Link} href={`/sources/webhooks/${made.id}`}>
            I have kept them, go on
          </Button>
        </Notice>
      ) : null}
      {forms.length + hooks.length === 0 ? (
        <p className="empty">
          None yet. A form has a page of its own; a webhook address takes what another system posts. What comes in begins the flows that
          take in from there.
        </p>
      ) : (
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
            {forms.map((door) => (
              <Row key={door.id} door={door} kind="form" href={`/sources/forms/${door.id}`} address={`/f/${door.slug}`} now={now} />
            ))}
            {hooks.map((door) => (
              <Row key={door.id} door={door} kind="webhook" href={`/sources/webhooks/${door.id}`} address={`/in/${door.slug}`} now={now} />
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

function Row({
  door,
  kind,
  href,
  address,
  now,
}: {
  readonly door: DoorLine;
  readonly kind: string;
  readonly href: string;
  readonly address: string;
  readonly now: number;
}) {
  return (
    <GoRow href={href}>
      <td>
        <Link href={href} className="strong" style={{ textDecoration: 'none' }}>
          {door.name}
        </Link>{' '}
        <span className="quiet small">{address}</span>
      </td>
      <td className="quiet">{kind}</td>
      <td>{door.isOn ? <Tag tone="moss">✓ on</Tag> : <Tag>○ off</Tag>}</td>
      <td className="quiet">{door.flows.join(', ') || 'no flow'}</td>
      <td className="right">{countText(door.taken)}</td>
      <td className="right">{countText(door.refused)}</td>
      <td className="right quiet">{door.lastAt === null ? 'never' : ago(door.lastAt, now)}</td>
    </GoRow>
  );
}
