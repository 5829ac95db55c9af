'use client';
import { Button, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, sayProblem } from '../../client';
import type { MailService } from '../../client/SignsInBy';
import Link from '../../kit/Link';
import { Empty, Said, TopBar, type SaidText } from '../../kit/parts';
import { firstSettings, missingIn, type WatchedKind } from '../state/watched';
import './forms.css';
import { WatchedFields } from './WatchedSettings';
import { WatchedPreview, type Previewed } from './WatchedPreview';

interface Props {
  readonly kind: WatchedKind;
  readonly ourHosts: readonly string[];
  readonly services: readonly MailService[];
  readonly mayPrivate: boolean;
}

/** Connects a mailbox or a calendar: looked into before anything is taken in. */
export function NewWatched({ kind, ourHosts, services, mayPrivate }: Props) {
  const router = useRouter();
  const [name, setName] = useState('');
  const [settings, setSettings] = useState(() => firstSettings(kind, ourHosts));
  const [password, setPassword] = useState('');
  const [found, setFound] = useState<readonly Previewed[] | null>(null);
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<SaidText | null>(null);
  const missing = missingIn(settings) ?? (name.trim() === '' ? 'it has no name yet' : undefined);
  const failed = (error: unknown): void => {
    setBusy(false);
    setSaid({ calm: false, text: sayProblem(error) });
  };
  const look = (): void => {
    setBusy(true);
    setSaid(null);
    call('previewWatched', { body: { id: null, settings, password } }).then(({ items }) => {
      setBusy(false);
      setFound(items);
    }, failed);
  };
  const make = (): void => {
    setBusy(true);
    call('createWatched', { body: { name: name.trim(), settings, password, isOn: true } }).then(({ id }) => {
      router.push(`/sources/watched/${id}`);
    }, failed);
  };
  return (
    <>
      <TopBar path={<Link href="/sources">Sources</Link>} title={kind === 'mailbox' ? 'A mailbox' : 'A calendar'}>
        <Button disabled={busy || missingIn(settings) !== undefined} onClick={look}>
          {busy ? 'Looking …' : 'Look without taking in'}
        </Button>
        <Button variant="contained" disabled={busy || missing !== undefined} onClick={make} title={missing}>
          Switch it on
        </Button>
      </TopBar>
      <Said
        said={said}
        onClose={() => {
          setSaid(null);
        }}
      />
      <div className="cols">
        <section className="col paper watched-fields" aria-label="Settings">
          <TextField
            autoFocus
            label="What flows call it"
            value={name}
            helperText={`take in from ${kind} "${name.trim() || '…'}"`}
            onChange={(event) => {
              setName(event.target.value);
            }}
          />
          <WatchedFields
            settings={settings}
            password={password}
            hasPassword={false}
            mayChange
            services={services}
            kept={null}
            mayPrivate={mayPrivate}
            onSettings={setSettings}
            onPassword={setPassword}
          />
        </section>
        <section className="col grow" aria-label="What lies there">
          {found === null ? (
            <Empty title="Look before it is switched on">
              {kind === 'mailbox'
                ? 'The newest mails of the folder are shown with what would become of each. Nothing is taken in, and nothing in the mailbox is changed.'
                : 'The meetings ahead are shown with whom of each would be taken in, and when.'}
            </Empty>
          ) : (
            <WatchedPreview found={found} />
          )}
        </section>
      </div>
    </>
  );
}
