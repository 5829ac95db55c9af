/** @jsxImportSource @emotion/react */
'use client';
import { useRouter } from 'next/navigation';
import { call } from '../../client';
import type { Asking } from '../../client/use-ask';
import { placed } from '../../kit/placed';

interface Props {
  readonly messageId: string;
  readonly named: { readonly name: string | null; readonly email: string | null };
  /** undefined: whoever looks may not decide */
  readonly asking: Pick<Asking, 'busy' | 'ask'> | undefined;
}

/** Whom an answer names in its sender's place, taken in by a click: the page of that person comes next, and nothing is sent. */
export function NamedInstead({ messageId, named, asking }: Props) {
  const router = useRouter();
  return (
    <p css={placed({ margin: '6px 0 0' })}>
      <span className="quiet">names instead</span> <span className="strong">{named.name ?? named.email}</span>{' '}
      {named.name !== null && named.email !== null ? <span className="quiet">{named.email}</span> : null}{' '}
      {asking ? (
        <button
          className="linkish"
          disabled={asking.busy}
          onClick={() => {
            asking.ask(call('takeInNamed', { params: { id: messageId } }), 'Taken in at the same firm. Nothing was sent.', (answer) => {
              router.push(`/records/people/${answer.personId}`);
            });
          }}
        >
          take them in
        </button>
      ) : null}
    </p>
  );
}
