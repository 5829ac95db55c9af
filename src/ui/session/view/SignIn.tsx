/** @jsxImportSource @emotion/react */
'use client';
import { Button, TextField } from '@mui/material';
import { useState } from 'react';
import { Notice } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { enterBy } from '../state/enter';

export interface DemoPerson {
  readonly email: string;
  readonly name: string;
  readonly role: string;
  readonly title: string;
}
/** A demo world: its people, and the password they all have. */
export interface Demo {
  readonly name: string;
  readonly password: string;
  readonly people: readonly DemoPerson[];
}

/** The door. In the demo its people can be signed in as by one click; the password is checked all the same. */
export function SignIn({ demo }: { readonly demo: Demo | null }) {
  const people = demo?.people ?? [];
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const enter = async (address: string, secret: string): Promise<void> => {
    setBusy(true);
    const why = await enterBy('/session', { email: address, password: secret });
    if (why === undefined) return;
    setProblem(why);
    setBusy(false);
  };
  return (
    <main css={placed({ maxWidth: 420, margin: '9vh auto', padding: '0 16px' })}>
      <h1 css={placed({ fontSize: 26, lineHeight: '32px', color: 'var(--river-deep)' })}>Millrace</h1>
      <p className="quiet" css={placed({ margin: '4px 0 20px' })}>
        Leads in, personal mail out, every value with its source.
      </p>
      {problem ? <Notice>{problem}</Notice> : null}
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void enter(email, password);
        }}
        css={placed({
          display: 'flex',
          flexDirection: 'column',
          gap: 10,
          background: 'var(--paper)',
          border: '1px solid var(--line)',
          borderRadius: 4,
          padding: 16,
        })}
      >
        <label>
          E-mail
          <TextField
            fullWidth
            type="email"
            autoComplete="username"
            value={email}
            onChange={(event) => {
              setEmail(event.target.value);
            }}
            slotProps={{ htmlInput: { 'aria-label': 'E-mail' } }}
          />
        </label>
        <label>
          Password
          <TextField
            fullWidth
            type="password"
            autoComplete="current-password"
            value={password}
            onChange={(event) => {
              setPassword(event.target.value);
            }}
            slotProps={{ htmlInput: { 'aria-label': 'Password' } }}
          />
        </label>
        <Button type="submit" variant="contained" disabled={busy} sx={{ alignSelf: 'flex-start' }}>
          Sign in
        </Button>
      </form>
      {people.length > 0 ? (
        <section css={placed({ marginTop: 20 })}>
          <h2>People of the demo</h2>
          <p className="quiet small" css={placed({ margin: '2px 0 8px' })}>
            {demo?.name}, all made up. The password of each is “{demo?.password}”.
          </p>
          {people.map((person) => (
            <button
              key={person.email}
              disabled={busy}
              onClick={() => {
                void enter(person.email, demo?.password ?? '');
              }}
              css={placed({
                display: 'flex',
                width: '100%',
                gap: 12,
                padding: '7px 10px',
                background: 'var(--paper)',
                border: '1px solid var(--line)',
                borderTopWidth: 0,
                cursor: 'pointer',
                textAlign: 'left',
                ...(person === people[0] ? { borderTopWidth: 1 } : {}),
              })}
            >
              <span className="strong grow">{person.name}</span>
              <span className="quiet">{person.title}</span>
              <span className="tag river">{person.role}</span>
            </button>
          ))}
        </section>
      ) : null}
    </main>
  );
}
