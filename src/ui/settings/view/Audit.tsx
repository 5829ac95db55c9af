/** @jsxImportSource @emotion/react */
'use client';
import { Button, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { dayTimeText } from '../../kit/format';
import Link from '../../kit/Link';
import { TopBar } from '../../kit/parts';
import { placed } from '../../kit/placed';

interface Props {
  readonly items: readonly {
    readonly id: number;
    readonly at: number;
    readonly who: string;
    readonly what: string;
    readonly detail: Readonly<Record<string, unknown>>;
  }[];
  readonly next: string | null;
  readonly search: string;
  readonly isFirst: boolean;
  readonly zone: string;
  readonly mayRead: boolean;
}

/** What a line is about stands first. */
const LEADS = new Set(['flow', 'name', 'file', 'fileName', 'to']);
const WORDS: Readonly<Record<string, string>> = { no: 'version', at: 'where', from: 'from', fileName: 'file' };

/** A detail as words: what it is called, and what it is. Ids say nothing to anybody and are left out. */
function detailText(detail: Props['items'][number]['detail']): string {
  return Object.entries(detail)
    .filter(([key, value]) => value !== null && !/Id$|^id$/.test(key))
    .sort(([a], [b]) => Number(LEADS.has(b)) - Number(LEADS.has(a)))
    .map(
      ([key, value]) =>
        `${(WORDS[key] ?? key).replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase()}: ${typeof value === 'string' ? value : JSON.stringify(value)}`,
    )
    .join(' · ');
}

/** Who did what, newest first. */
export function Audit({ items, next, search, isFirst, zone, mayRead }: Props) {
  const router = useRouter();
  const [typed, setTyped] = useState(search);
  const find = search === '' ? '' : `search=${encodeURIComponent(search)}&`;
  return (
    <>
      <TopBar path={<Link href="/settings">Settings</Link>} title="Audit" tags={<span className="quiet">who did what, newest first</span>}>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            router.push(typed.trim() === '' ? '/audit' : `/audit?search=${encodeURIComponent(typed.trim())}`);
          }}
        >
          <TextField
            value={typed}
            placeholder="a name, a word, an address"
            onChange={(event) => {
              setTyped(event.target.value);
            }}
            slotProps={{ htmlInput: { 'aria-label': 'Find in the audit' } }}
            sx={{ width: 260 }}
          />
        </form>
        {mayRead && items.length > 0 ? (
          <Button component="a" href={`/api/v1/audit/file${search === '' ? '' : `?search=${encodeURIComponent(search)}`}`}>
            {search === '' ? 'All as CSV' : 'These as CSV'}
          </Button>
        ) : null}
      </TopBar>
      <div className="cols">
        <section className="col paper grow" tabIndex={0} aria-label="Audit">
          {!mayRead ? <p className="empty">The audit is read by the owner and the builder.</p> : null}
          {mayRead && items.length === 0 ? (
            <p className="empty">
              {search === ''
                ? 'Nothing yet: sign-ins, releases, changed connections and papers opened come to stand here.'
                : `Nothing with “${search}” in it.`}
            </p>
          ) : null}
          {items.length > 0 ? (
            <table className="plain">
              <thead>
                <tr>
                  <th css={placed({ width: 150 })}>when</th>
                  <th css={placed({ width: 190 })}>who</th>
                  <th css={placed({ width: 240 })}>what</th>
                  <th>about</th>
                </tr>
              </thead>
              <tbody>
                {items.map((line) => (
                  <tr key={line.id}>
                    <td className="quiet">{dayTimeText(line.at, zone)}</td>
                    <td className="strong">{line.who}</td>
                    <td>{line.what}</td>
                    <td className="quiet" css={placed({ overflowWrap: 'anywhere' })}>
                      {detailText(line.detail)}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          ) : null}
          {next !== null || !isFirst ? (
            <p css={placed({ padding: '10px 16px', display: 'flex', gap: 8 })}>
              {isFirst ? null : (
                <Button component={Link} href={find === '' ? '/audit' : `/audit?${find}`}>
                  Newest
                </Button>
              )}
              {next === null ? null : (
                <Button component={Link} href={`/audit?${find}cursor=${next}`}>
                  Older
                </Button>
              )}
            </p>
          ) : null}
        </section>
      </div>
    </>
  );
}
