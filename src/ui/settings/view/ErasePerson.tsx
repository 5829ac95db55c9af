'use client';
import { Button, TextField } from '@mui/material';
import { useState } from 'react';
import type { Answer } from '../../../api';
import { call } from '../../client';
import { useAsk } from '../../client/use-ask';
import { dateText } from '../../kit/format';
import Link from '../../kit/Link';
import { Said } from '../../kit/parts';

type ErasureView = Answer<'erasurePreview'>;
export type AboutPerson = ErasureView & { readonly id: string };

/** A copy for somebody of what is kept of them, or erasing them: what goes and what stays is said before, their name is written, a receipt stays. */
export function ErasePerson({ about, zone }: { readonly about: AboutPerson; readonly zone: string }) {
  const [name, setName] = useState('');
  const [receipt, setReceipt] = useState<ErasureView | null>(null);
  const { busy, said, hush, ask } = useAsk();
  const shown = receipt ?? about;
  return (
    <>
      <Said said={said} onClose={hush} />
      <h3>{shown.name}</h3>
      {receipt === null ? (
        <p>
          <Link href={`/records/people/${about.id}`}>The record</Link> ·{' '}
          <a href={`/api/v1/people/${about.id}/copy`} download>
            A copy of what is kept of them (JSON)
          </a>
        </p>
      ) : (
        <p role="status">
          Erased{receipt.at === null ? '' : ` on ${dateText(receipt.at, zone)}`}. This is the receipt; the audit says who did it, without
          their name.
        </p>
      )}
      <h4>{receipt === null ? 'Erasing takes away' : 'Went'}</h4>
      <ul>
        {shown.goes.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      <h4>{receipt === null ? 'What would stay' : 'Stays'}</h4>
      <ul>
        {shown.stays.map((line) => (
          <li key={line} className="quiet">
            {line}
          </li>
        ))}
      </ul>
      {receipt === null ? (
        <form
          aria-label="Erase them"
          className="erase-form"
          onSubmit={(event) => {
            event.preventDefault();
            ask(call('erasePerson', { params: { id: about.id }, body: { name } }), null, setReceipt);
          }}
        >
          <TextField
            label={`write “${about.name}” to erase them for good`}
            value={name}
            onChange={(event) => {
              setName(event.target.value);
            }}
          />
          <Button type="submit" color="error" variant="outlined" disabled={busy || name.trim() === ''}>
            Erase for good
          </Button>
        </form>
      ) : null}
    </>
  );
}
