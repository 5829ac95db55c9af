/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import type { MailboxShape } from '../../../api';
import { agoText } from '../../kit/format';
import { placed } from '../../kit/placed';

type Line = NonNullable<MailboxShape['domain']['seen']>['lines'][number];
const STANDS: Readonly<Record<Line['standing'], readonly [tone: string, glyph: string]>> = {
  good: ['in-moss', '✓'],
  weak: ['in-brass', '◆'],
  wrong: ['in-brick', '■'],
  unknown: ['quiet', '·'],
};

interface Props {
  readonly box: MailboxShape;
  readonly now: number;
  readonly busy: boolean;
  readonly onKey: ((make: boolean) => void) | undefined;
}

/** What the domain says of the mailbox's mails, as a reader's server sees it, with the lines to put there; and the key that signs them. */
export function DomainSays({ box: { address, domain }, now, busy, onKey }: Props) {
  const { seen, key } = domain;
  const added = seen?.lines.find(({ what }) => what === 'signature')?.add ?? null;
  return (
    <>
      <div className="bar">
        <h2 className="grow">What {address.split('@')[1]} says of these mails</h2>
        <span className="quiet small">{seen === null ? 'never looked at' : `looked at ${agoText(seen.at, now)}`}</span>
        {onKey ? (
          <Button
            disabled={busy}
            onClick={() => {
              onKey(key === null);
            }}
          >
            {key === null ? 'Make a key to sign with' : 'Throw the key away'}
          </Button>
        ) : null}
      </div>
      <ul className="check-steps">
        {(seen?.lines ?? []).map(({ what, standing, says, add }) => (
          <li key={what}>
            <span className={STANDS[standing][0]}>{STANDS[standing][1]}</span> <span className="strong">{what}</span> {says}
            {add === null ? '.' : ':'}
            {add === null ? null : <DomainLineToPut {...add} />}
          </li>
        ))}
        {key !== null && !key.known && added === null ? (
          <li>
            <span className="in-brass">◆</span> <span className="strong">signature</span> put this at the domain, then check: nothing is
            signed before it is seen there:
            <DomainLineToPut {...key.record} />
          </li>
        ) : null}
        {seen === null ? (
          <li className="quiet">
            A check looks there as a reader’s server does: who may send, how mails are signed, what to do with others.
          </li>
        ) : null}
      </ul>
    </>
  );
}

/** A TXT record, to be copied. */
function DomainLineToPut({ name, text }: { readonly name: string; readonly text: string }) {
  return (
    <div css={placed({ display: 'grid', gridTemplateColumns: 'max-content minmax(0, 1fr)', gap: '2px 10px', margin: '4px 0 4px 18px' })}>
      <span className="quiet small">at</span>
      <code css={placed({ overflowWrap: 'anywhere' })}>{name}</code>
      <span className="quiet small">as TXT</span>
      <code css={placed({ overflowWrap: 'anywhere' })}>{text}</code>
    </div>
  );
}
