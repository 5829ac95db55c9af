/** @jsxImportSource @emotion/react */
'use client';
import { Button, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, sayProblem } from '../../client';
import { placed } from '../../kit/placed';

interface Props {
  readonly kind: 'person' | 'company';
  readonly onClose: () => void;
}
const FIELDS = {
  person: [
    ['name', 'Name'],
    ['email', 'E-mail'],
    ['phone', 'Phone'],
    ['role', 'Role'],
  ],
  company: [
    ['name', 'Name'],
    ['website', 'Site'],
    ['city', 'Place'],
    ['country', 'Country'],
  ],
} as const;

/** A person or a company put on record by hand: the few values one knows at once; the rest is written on its page. */
export function AddRecord({ kind, onClose }: Props) {
  const router = useRouter();
  const [values, setValues] = useState<Readonly<Record<string, string>>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const add = (): void => {
    setBusy(true);
    const known = Object.fromEntries(Object.entries(values).flatMap(([key, value]) => (value.trim() === '' ? [] : [[key, value.trim()]])));
    const made =
      kind === 'person'
        ? call('createPerson', { body: { values: known } }).then(({ id }) => `/records/people/${id}`)
        : call('createCompany', { body: { values: known } }).then(({ id }) => `/records/companies/${id}`);
    made.then(
      (href) => {
        router.push(href);
      },
      (error: unknown) => {
        setBusy(false);
        setProblem(sayProblem(error));
      },
    );
  };
  return (
    <form
      aria-label={`A new ${kind}`}
      css={placed({ display: 'flex', gap: 8, alignItems: 'flex-start', padding: '14px 16px 10px', background: 'var(--chosen)' })}
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onClose();
      }}
    >
      {FIELDS[kind].map(([key, label], i) => (
        <TextField
          key={key}
          label={label}
          autoFocus={i === 0}
          value={values[key] ?? ''}
          error={i === 0 && problem !== null}
          helperText={i === 0 ? problem : null}
          onChange={(event) => {
            setValues({ ...values, [key]: event.target.value });
          }}
          sx={{ width: key === 'country' ? 110 : 190 }}
        />
      ))}
      <Button type="submit" variant="contained" disabled={busy || (values.name ?? '').trim() === ''}>
        Add
      </Button>
      <Button onClick={onClose}>Leave it</Button>
    </form>
  );
}
