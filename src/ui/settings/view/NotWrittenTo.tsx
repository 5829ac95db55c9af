/** @jsxImportSource @emotion/react */
'use client';
import { Button, TextField } from '@mui/material';
import { useRef, useState } from 'react';
import type { Answer } from '../../../api';
import { call } from '../../client';
import { useAsk } from '../../client/use-ask';
import { dayTimeText } from '../../kit/format';
import { placed } from '../../kit/placed';
import { SettingsFrame, type IndexLine } from './SettingsFrame';

type BarredView = Answer<'listDoNotContact'>['items'][number];
interface Props {
  readonly index: readonly IndexLine[];
  readonly first: readonly BarredView[];
  readonly zone: string;
  readonly mayChange: boolean;
}

/** Who is not written to any more: put there by themselves, by their server, or by hand. */
export function NotWrittenTo({ index, first, zone, mayChange }: Props) {
  const [items, setItems] = useState(first);
  const [email, setEmail] = useState('');
  const [why, setWhy] = useState('');
  const { busy, said, hush, ask, tell } = useAsk();
  const done = (asked: Promise<{ readonly items: readonly BarredView[] }>, text: string, then?: () => void): void => {
    ask(asked, text, (next) => {
      setItems(next.items);
      then?.();
    });
  };
  const bring = (file: File): void => {
    ask(call('barList', { query: { name: file.name }, file }), null, (answer) => {
      setItems(answer.items);
      tell(sayList(answer));
    });
  };
  return (
    <SettingsFrame index={index} title="Settings" tags={<span className="quiet">do not contact</span>} said={said} onClose={hush}>
      <section className="col paper grow" tabIndex={0} aria-label="Not written to any more">
        <div className="bar ruled">
          <h2 className="grow">Not written to any more</h2>
          <span className="quiet">{items.length}</span>
          <a href="/api/v1/do-not-contact/file" download>
            as CSV
          </a>
          {mayChange ? <ListPicker busy={busy} onFile={bring} /> : null}
        </div>
        {mayChange ? (
          <form
            aria-label="Put an address there"
            css={placed({ display: 'flex', gap: 8, padding: '10px 16px' })}
            onSubmit={(event) => {
              event.preventDefault();
              done(call('barAddress', { body: { email: email.trim(), why } }), `Nothing leaves for ${email.trim()} from now on.`, () => {
                setEmail('');
                setWhy('');
              });
            }}
          >
            <TextField
              placeholder="an address, or a whole domain: @firm.example"
              value={email}
              onChange={(event) => {
                setEmail(event.target.value);
              }}
              sx={{ minWidth: 300 }}
              slotProps={{ htmlInput: { 'aria-label': 'Address or domain', inputMode: 'email' } }}
            />
            <TextField
              placeholder="why"
              value={why}
              onChange={(event) => {
                setWhy(event.target.value);
              }}
              slotProps={{ htmlInput: { 'aria-label': 'Why', maxLength: 200 } }}
            />
            <Button type="submit" disabled={busy || email.trim() === ''}>
              Put here
            </Button>
          </form>
        ) : null}
        {items.map((entry) => (
          <div key={entry.email} css={placed({ padding: '6px 16px', borderBottom: '1px solid var(--line2)' })}>
            <span className="strong">{entry.email}</span>
            <div className="quiet small">
              {entry.why} · {dayTimeText(entry.at, zone)}
              {mayChange && entry.why !== 'unsubscribed' ? (
                <>
                  {' · '}
                  <button
                    className="linkish"
                    disabled={busy}
                    aria-label={`Take ${entry.email} off`}
                    onClick={() => {
                      done(call('liftAddress', { body: { email: entry.email } }), `${entry.email} may be written to again.`);
                    }}
                  >
                    take off
                  </button>
                </>
              ) : null}
            </div>
          </div>
        ))}
        {items.length === 0 ? (
          <p className="quiet" css={placed({ padding: '10px 16px' })}>
            Nobody yet. Who unsubscribes, or whose mail comes back for good, is put here at once; no flow can switch that off.
          </p>
        ) : null}
      </section>
    </SettingsFrame>
  );
}

/** “12 put there, 3 were there already; row 7: no address, domain or number” */
function sayList({
  put,
  known,
  passedBy,
}: {
  readonly put: number;
  readonly known: number;
  readonly passedBy: readonly { readonly row: number; readonly says: string }[];
}): string {
  const rows = passedBy.slice(0, 3).map(({ row, says }) => `row ${row}: ${says}`);
  return [
    `${put} put there${known > 0 ? `, ${known} ${known === 1 ? 'was' : 'were'} there already` : ''}`,
    ...rows,
    ...(passedBy.length > 3 ? ['and more'] : []),
  ].join('; ');
}

/** A list of addresses or domains from a file. */
function ListPicker({ busy, onFile }: { readonly busy: boolean; readonly onFile: (file: File) => void }) {
  const picker = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button disabled={busy} onClick={() => picker.current?.click()}>
        From a list …
      </Button>
      <input
        ref={picker}
        type="file"
        accept=".csv,.txt,text/csv"
        hidden
        aria-label="List of addresses or domains"
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) onFile(file);
        }}
      />
    </>
  );
}
