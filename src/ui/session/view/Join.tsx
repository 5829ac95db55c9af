/** @jsxImportSource @emotion/react */
'use client';
import { Button, TextField } from '@mui/material';
import { useState } from 'react';
import { Notice } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { enterBy } from '../state/enter';

interface Props {
  readonly invited: { readonly email: string; readonly name: string; readonly role: string; readonly by: string | null } | null;
  readonly workspace: string;
  readonly code: string;
}

/** Somebody who was asked in chooses a name and a password, and is in. */
export function Join({ invited, workspace, code }: Props) {
  const [name, setName] = useState(invited?.name ?? '');
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  // The first owner: nobody could say who they are.
  const isFirst = invited?.email === '';
  const enter = async (): Promise<void> => {
    setBusy(true);
    const why = await enterBy(`/join/${encodeURIComponent(code)}/in`, { name, password, ...(isFirst && { email }) });
    if (why === undefined) return;
    setProblem(why.says);
    setBusy(false);
  };
  return (
    <main css={placed({ maxWidth: 420, margin: '9vh auto', padding: '0 16px' })}>
      <h1 css={placed({ fontSize: 26, lineHeight: '32px', color: 'var(--river-deep)' })}>{workspace}</h1>
      {invited === null ? (
        <p className="quiet">This invitation is used up, withdrawn or too old. Ask whoever sent it for another.</p>
      ) : (
        <>
          <p className="quiet" css={placed({ margin: '4px 0 20px' })}>
            {isFirst
              ? 'Nobody works here yet: you are the first, and the owner. Who else comes in, you say under Settings.'
              : `${invited.by ?? 'An owner'} asks you in as ${invited.role}. You sign in with ${invited.email}.`}
          </p>
          {problem ? <Notice>{problem}</Notice> : null}
          <form
            onSubmit={(event) => {
              event.preventDefault();
              void enter();
            }}
            css={placed({
              display: 'flex',
              flexDirection: 'column',
              gap: 14,
              background: 'var(--paper)',
              border: '1px solid var(--line)',
              borderRadius: 4,
              padding: 16,
            })}
          >
            {isFirst ? (
              <TextField
                label="your e-mail"
                type="email"
                helperText="you sign in with it"
                value={email}
                onChange={(event) => {
                  setEmail(event.target.value);
                }}
                autoComplete="username"
              />
            ) : (
              <input type="hidden" autoComplete="username" value={invited.email} />
            )}
            <TextField
              label="your name"
              value={name}
              onChange={(event) => {
                setName(event.target.value);
              }}
              autoComplete="name"
            />
            <TextField
              label="a password"
              type="password"
              helperText="at least ten characters: three or four words do well"
              value={password}
              onChange={(event) => {
                setPassword(event.target.value);
              }}
              autoComplete="new-password"
            />
            <Button
              type="submit"
              variant="contained"
              disabled={busy || name.trim() === '' || password.length < 10 || (isFirst && email.trim() === '')}
              sx={{ alignSelf: 'flex-start' }}
            >
              Come in
            </Button>
          </form>
        </>
      )}
    </main>
  );
}
