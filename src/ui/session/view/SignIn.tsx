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

interface Props {
  readonly demo: Demo | null;
  /** sign-in services that people come in by */
  readonly services: readonly string[];
  /** why one of them let nobody in just now */
  readonly refused: string | null;
}

/** The door. In the demo its people can be signed in as by one click; the password is checked all the same. */
export function SignIn({ demo, services, refused }: Props) {
  const people = demo?.people ?? [];
  const [problem, setProblem] = useState<string | null>(refused);
  const [busy, setBusy] = useState(false);
  /** who is at the door with the right password, and owes a code */
  const [owes, setOwes] = useState<{ readonly email: string; readonly password: string } | null>(null);
  const enter = async (address: string, secret: string, code?: string): Promise<void> => {
    setBusy(true);
    const why = await enterBy('/session', { email: address, password: secret, ...(code !== undefined && { code }) });
    if (why === undefined) return;
    setOwes(why.wantsCode ? { email: address, password: secret } : owes);
    setProblem(why.wantsCode ? null : why.says);
    setBusy(false);
  };
  return (
    <main css={placed({ maxWidth: 420, margin: '9vh auto', padding: '0 16px' })}>
      <h1 css={placed({ fontSize: 26, lineHeight: '32px', color: 'var(--river-deep)' })}>Millrace</h1>
      <p className="quiet" css={placed({ margin: '4px 0 20px' })}>
        Leads in, personal mail out, every value with its source.
      </p>
      {problem ? <Notice>{problem}</Notice> : null}
      {owes ? (
        <CodeForm
          busy={busy}
          onCode={(code) => void enter(owes.email, owes.password, code)}
          onBack={() => {
            setOwes(null);
            setProblem(null);
          }}
        />
      ) : (
        <PasswordForm busy={busy} onEnter={(email, password) => void enter(email, password)} />
      )}
      {services.length > 0 && owes === null ? (
        <p css={placed({ margin: '14px 0 0' })}>
          {services.map((service) => (
            <Button key={service} fullWidth variant="outlined" href={`/session/with/${encodeURIComponent(service)}`}>
              Come in by {service}
            </Button>
          ))}
        </p>
      ) : null}
      {people.length > 0 && owes === null ? (
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

const FORM = placed({
  display: 'flex',
  flexDirection: 'column',
  gap: 10,
  background: 'var(--paper)',
  border: '1px solid var(--line)',
  borderRadius: 4,
  padding: 16,
});

interface PasswordProps {
  readonly busy: boolean;
  readonly onEnter: (email: string, password: string) => void;
}
function PasswordForm({ busy, onEnter }: PasswordProps) {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        onEnter(email, password);
      }}
      css={FORM}
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
  );
}

interface CodeProps {
  readonly busy: boolean;
  readonly onCode: (code: string) => void;
  readonly onBack: () => void;
}
/** The second step, of who has a second factor. */
function CodeForm({ busy, onCode, onBack }: CodeProps) {
  const [code, setCode] = useState('');
  return (
    <form
      css={FORM}
      onSubmit={(event) => {
        event.preventDefault();
        onCode(code);
      }}
    >
      <label>
        The code your phone shows, or a recovery code
        <TextField
          fullWidth
          autoFocus
          autoComplete="one-time-code"
          value={code}
          onChange={(event) => {
            setCode(event.target.value);
          }}
          slotProps={{ htmlInput: { 'aria-label': 'Code', inputMode: 'text', autoCapitalize: 'none' } }}
        />
      </label>
      <div css={placed({ display: 'flex', gap: 10 })}>
        <Button type="submit" variant="contained" disabled={busy || code.trim().length < 6}>
          Go in
        </Button>
        <Button onClick={onBack} disabled={busy}>
          Somebody else
        </Button>
      </div>
    </form>
  );
}
