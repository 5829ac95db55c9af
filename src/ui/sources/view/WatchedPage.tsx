'use client';
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { plural } from '../../../core/base';
import type { WatchedSettings } from '../../../core/intake';
import { call, sayProblem } from '../../client';
import type { MailService } from '../../client/SignsInBy';
import { agoText } from '../../kit/format';
import { Notice, type SaidText } from '../../kit/parts';
import { DoorHead, type DoorView } from './DoorHead';
import { missingIn } from '../state/watched';
import { Entries, type AnswerName, type EntryView } from './Entries';
import './forms.css';
import { WatchedFields } from './WatchedSettings';
import { WatchedPreview, type Previewed } from './WatchedPreview';

interface Props {
  readonly view: DoorView & {
    readonly lookedAt: number | null;
    readonly problem: string | null;
    readonly settings: WatchedSettings;
    readonly entries: readonly EntryView[];
  };
  readonly now: number;
  readonly zone: string;
  readonly mayChange: boolean;
  readonly mayTakeIn: boolean;
  readonly services: readonly MailService[];
  readonly mayPrivate: boolean;
  readonly mayOpen: boolean;
}

const ANSWERS: Readonly<Record<WatchedSettings['kind'], readonly AnswerName[]>> = {
  mailbox: [
    { id: 'subject', label: 'about', mendable: false },
    { id: 'from', label: 'from', mendable: true },
    { id: 'name', label: 'name', mendable: true },
    { id: 'text', label: 'says', mendable: false },
  ],
  calendar: [
    { id: 'when', label: 'when', mendable: false },
    { id: 'title', label: 'what', mendable: false },
    { id: 'from', label: 'who', mendable: true },
    { id: 'name', label: 'name', mendable: true },
    { id: 'place', label: 'where', mendable: false },
    { id: 'ours', label: 'of us', mendable: false },
    { id: 'others', label: 'with', mendable: false },
  ],
};

/** A mailbox or calendar: what opens it, what is taken in, what came. */
export function WatchedPage({ view, now, zone, services, mayChange, mayPrivate, mayTakeIn, mayOpen }: Props) {
  const router = useRouter();
  const [settings, setSettings] = useState(view.settings);
  const [password, setPassword] = useState('');
  const [found, setFound] = useState<readonly Previewed[] | null>(null);
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<SaidText | null>(null);
  const { kind } = settings;
  const given = password === '' ? null : password;
  const failed = (error: unknown): void => {
    setBusy(false);
    setSaid({ calm: false, text: sayProblem(error) });
  };
  const save = (isOn: boolean): void => {
    call('saveWatched', { params: { id: view.id }, body: { settings, password: given, isOn } }).then(() => {
      setPassword('');
      setSaid({ calm: true, text: isOn ? 'Kept. It is looked at now.' : 'Switched off: nothing is taken in.' });
      router.refresh();
    }, failed);
  };
  const look = (): void => {
    setBusy(true);
    call('previewWatched', { body: { id: view.id, settings, password: given } }).then(({ items }) => {
      setBusy(false);
      setFound(items);
    }, failed);
  };
  const lookNow = (): void => {
    call('lookAtWatched', { params: { id: view.id }, body: {} }).then(() => {
      setSaid({ calm: true, text: 'A worker looks there now; what is new stands here in a moment.' });
    }, failed);
  };
  return (
    <>
      <DoorHead
        door={view}
        told={`${view.lookedAt === null ? 'not looked at yet' : `looked at ${agoText(view.lookedAt, now)}`} · ${plural(view.taken, kind === 'mailbox' ? 'mail' : 'visitor')} taken in`}
        said={said}
        onSaid={setSaid}
        onSwitch={mayChange ? save : undefined}
        first={mayTakeIn && view.isOn ? <Button onClick={lookNow}>Look now</Button> : null}
      >
        <Button
          variant="contained"
          disabled={missingIn(settings) !== undefined}
          title={missingIn(settings)}
          onClick={() => {
            save(view.isOn);
          }}
        >
          Keep
        </Button>
      </DoorHead>
      {view.problem !== null && view.isOn ? (
        <Notice>At the last look: {view.problem}. It is tried again by itself, ever more rarely; what lies there is not lost.</Notice>
      ) : null}
      <div className="cols">
        <section className="col paper watched-fields" aria-label="Settings">
          <WatchedFields
            settings={settings}
            password={password}
            hasPassword
            mayChange={mayChange}
            services={services}
            kept={view.settings.kind === 'mailbox' ? view.settings : null}
            mayPrivate={mayPrivate}
            onSettings={(next) => {
              setSettings(next);
              setFound(null);
            }}
            onPassword={setPassword}
          />
          {mayChange ? (
            <Button disabled={busy || missingIn(settings) !== undefined} onClick={look}>
              {busy ? 'Looking …' : 'Look without taking in'}
            </Button>
          ) : null}
        </section>
        <section className="col grow" aria-label={found === null ? 'What came in' : 'What lies there'}>
          {found === null ? (
            <Entries
              mayOpen={mayOpen}
              entries={view.entries}
              questions={ANSWERS[kind]}
              zone={zone}
              mend={mayTakeIn ? (id, raw) => call('mendArrival', { params: { id }, body: { raw: { ...raw } } }) : undefined}
              empty={
                kind === 'mailbox'
                  ? 'Mails that fit come in by themselves. “Look without taking in” shows what lies there.'
                  : 'The people of a meeting come in before it begins. “Look without taking in” shows the meetings ahead.'
              }
              onSaid={setSaid}
            />
          ) : (
            <>
              <div className="bar ruled">
                <h2 className="grow">What lies there</h2>
                <button
                  className="linkish"
                  onClick={() => {
                    setFound(null);
                  }}
                >
                  back to what came in
                </button>
              </div>
              <WatchedPreview found={found} />
            </>
          )}
        </section>
      </div>
    </>
  );
}
