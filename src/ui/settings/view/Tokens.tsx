'use client';
import { Button, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { TokenShape } from '../../../api';
import { call } from '../../client';
import { useAsk } from '../../client/use-ask';
import { agoText, dateText } from '../../kit/format';
import { Empty } from '../../kit/parts';
import { SettingsFrame, type IndexLine } from './SettingsFrame';

type Scope = TokenShape['scope'];
const SAYS: Readonly<Record<Scope, string>> = {
  read: 'reads',
  records: 'reads and changes records, takes in, decides',
  flows: 'also changes and releases flows',
  all: 'all its maker may',
};

interface Props {
  readonly index: readonly IndexLine[];
  readonly first: readonly TokenShape[];
  readonly now: number;
  readonly zone: string;
}

/** For those who make none. */
export function TokensClosed({ index }: { readonly index: readonly IndexLine[] }) {
  return (
    <SettingsFrame index={index} title="Settings" tags={<span className="quiet">tokens</span>} said={null} onClose={() => undefined}>
      <section className="col paper grow" aria-label="Tokens">
        <Empty title="Tokens are an owner’s">A program signs in with a token; an owner makes and ends them.</Empty>
      </section>
    </SettingsFrame>
  );
}

/** Keys for programs: each with what it may do at most, and when it ends. */
export function Tokens({ index, first, now, zone }: Props) {
  const router = useRouter();
  const [items, setItems] = useState(first);
  const [name, setName] = useState('');
  const [scope, setScope] = useState<Scope>('read');
  const [days, setDays] = useState(90);
  const [made, setMade] = useState<string | null>(null);
  const { busy, said, hush, ask } = useAsk();
  return (
    <SettingsFrame index={index} title="Settings" tags={<span className="quiet">tokens</span>} said={said} onClose={hush}>
      <section className="col paper grow" tabIndex={0} aria-label="Tokens">
        <table className="plain">
          <thead>
            <tr>
              <th>name</th>
              <th>may, at most</th>
              <th>made by</th>
              <th>last used</th>
              <th>ends</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {items.map((token) => (
              <tr key={token.id}>
                <td className="strong">{token.name}</td>
                <td>{SAYS[token.scope]}</td>
                <td className="quiet">{token.userName}</td>
                <td className="quiet">{token.usedAt === null ? 'never' : agoText(token.usedAt, now)}</td>
                <td className={token.endsSoon ? 'in-brass' : 'quiet'}>{dateText(token.expiresAt, zone)}</td>
                <td className="right">
                  <Button
                    disabled={busy}
                    aria-label={`End ${token.name}`}
                    onClick={() => {
                      ask(call('endToken', { params: { id: token.id } }), `${token.name} opens nothing any more.`, (next) => {
                        setItems(next.items);
                        router.refresh();
                      });
                    }}
                  >
                    End
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {made ? (
          <div className="settings-line" role="status">
            <span className="grow">
              Keep it now, it is never shown again: <code className="strong">{made}</code>
            </span>
            <Button onClick={() => void navigator.clipboard.writeText(made)}>Copy</Button>
          </div>
        ) : null}
        <form
          className="settings-line"
          aria-label="Make a token"
          onSubmit={(event) => {
            event.preventDefault();
            ask(call('makeToken', { body: { name: name.trim(), scope, days } }), null, (next) => {
              setItems(next.items);
              setMade(next.token);
              setName('');
              router.refresh();
            });
          }}
        >
          <TextField
            placeholder="what it is for"
            value={name}
            onChange={(event) => {
              setName(event.target.value);
            }}
            slotProps={{ htmlInput: { 'aria-label': 'What the token is for', maxLength: 80 } }}
          />
          <TextField
            select
            value={scope}
            onChange={(event) => {
              setScope(event.target.value as Scope);
            }}
            slotProps={{ htmlInput: { 'aria-label': 'What it may do' } }}
          >
            {(Object.keys(SAYS) as Scope[]).map((entry) => (
              <MenuItem key={entry} value={entry}>
                {SAYS[entry]}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            value={days}
            onChange={(event) => {
              setDays(Number(event.target.value));
            }}
            slotProps={{ htmlInput: { 'aria-label': 'How long it lives' } }}
          >
            {[7, 30, 90, 365].map((entry) => (
              <MenuItem key={entry} value={entry}>
                {entry === 365 ? 'a year' : `${entry} days`}
              </MenuItem>
            ))}
          </TextField>
          <Button type="submit" variant="contained" disabled={busy || name.trim() === ''}>
            Make token
          </Button>
        </form>
      </section>
    </SettingsFrame>
  );
}
