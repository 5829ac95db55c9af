/** @jsxImportSource @emotion/react */
'use client';
import { Button, Checkbox, FormControlLabel, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Answer } from '../../../api';
import { plural } from '../../../core/base';
import { call } from '../../client';
import { useAsk } from '../../client/use-ask';
import { dateText } from '../../kit/format';
import { Notice, Said, Tag } from '../../kit/parts';
import { placed } from '../../kit/placed';

type Factor = Answer<'getSecondFactor'>;
type Begun = Answer<'beginSecondFactor'>;

interface Props {
  readonly first: Factor;
  readonly zone: string;
  /** an owner says whether everybody needs one */
  readonly mayRequire: boolean;
}

/** One's own second factor: set up with a phone, codes for the day it is lost, switched off. */
export function SecondFactor({ first, zone, mayRequire }: Props) {
  const router = useRouter();
  const [view, setView] = useState(first);
  const [begun, setBegun] = useState<Begun | null>(null);
  const [codes, setCodes] = useState<readonly string[] | null>(null);
  const { busy, said, hush, ask } = useAsk();
  const renewed = ({ codes: fresh, view: next }: Answer<'confirmSecondFactor'>): void => {
    setBegun(null);
    setCodes(fresh);
    setView(next);
    router.refresh();
  };
  return (
    <section aria-label="Second factor" css={placed({ padding: '0 16px 16px' })}>
      <div className="bar" css={placed({ paddingLeft: 0 })}>
        <h2 className="grow">Second factor</h2>
        {view.since === null ? <Tag>none</Tag> : <Tag tone="moss">✓ since {dateText(view.since, zone)}</Tag>}
      </div>
      <Said said={said} onClose={hush} />
      {view.required && view.since === null ? <Notice>Everybody here needs one: set yours up, then go on.</Notice> : null}
      {codes ? (
        <Codes
          codes={codes}
          onDone={() => {
            setCodes(null);
          }}
        />
      ) : begun ? (
        <SetUp
          begun={begun}
          busy={busy}
          onCode={(code) => {
            ask(call('confirmSecondFactor', { body: { code } }), 'From now on the door asks for a code of your phone.', renewed);
          }}
          onCancel={() => {
            setBegun(null);
          }}
        />
      ) : view.since === null ? (
        <p>
          Besides the password the door asks for six figures that your phone makes anew every half-minute.{' '}
          <Button
            disabled={busy}
            onClick={() => {
              ask(call('beginSecondFactor'), null, setBegun);
            }}
          >
            Set it up
          </Button>
        </p>
      ) : (
        <InUse
          left={view.recoveryLeft}
          busy={busy}
          onRenew={(code) => {
            ask(call('renewRecoveryCodes', { body: { code } }), 'The codes of before open nothing any more.', renewed);
          }}
          onEnd={(code) => {
            ask(call('endSecondFactor', { body: { code } }), 'The password alone opens the door again.', (next) => {
              setView(next);
              router.refresh();
            });
          }}
        />
      )}
      {mayRequire ? (
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={view.required}
              disabled={busy || (view.since === null && !view.required)}
              onChange={(event) => {
                ask(
                  call('requireSecondFactor', { body: { required: event.target.checked } }),
                  event.target.checked ? 'Who has none sets one up before anything else.' : 'Everybody may have one, nobody must.',
                  setView,
                );
              }}
            />
          }
          label="everybody here needs one"
        />
      ) : null}
    </section>
  );
}

interface SetUpProps {
  readonly begun: Begun;
  readonly busy: boolean;
  readonly onCode: (code: string) => void;
  readonly onCancel: () => void;
}
/** The picture to photograph, the key in letters, and the first code. */
function SetUp({ begun, busy, onCode, onCancel }: SetUpProps) {
  return (
    <div css={placed({ display: 'flex', gap: 18, alignItems: 'flex-start' })}>
      <img
        alt="Code to photograph with the phone"
        width={168}
        height={168}
        src={`data:image/svg+xml;utf8,${encodeURIComponent(begun.picture)}`}
      />
      <div>
        <p>
          Photograph it with the program on your phone that makes codes, or type the key: <code>{begun.key}</code>
        </p>
        <CodeField
          label="The code it shows"
          busy={busy}
          deeds={[{ label: 'Take it into use', main: true, run: onCode }]}
          onCancel={onCancel}
        />
      </div>
    </div>
  );
}

interface InUseProps {
  readonly left: number;
  readonly busy: boolean;
  readonly onRenew: (code: string) => void;
  readonly onEnd: (code: string) => void;
}
function InUse({ left, busy, onRenew, onEnd }: InUseProps) {
  return (
    <>
      <p className={left < 3 ? 'in-brass' : 'quiet'}>
        {plural(left, 'recovery code')} left, for the day the phone is lost. New ones, or switching it off, take a code.
      </p>
      <CodeField
        label="A code"
        busy={busy}
        deeds={[
          { label: 'New recovery codes', main: false, run: onRenew },
          { label: 'Switch it off', main: false, run: onEnd },
        ]}
      />
    </>
  );
}

interface CodeFieldProps {
  readonly label: string;
  readonly busy: boolean;
  readonly deeds: readonly { readonly label: string; readonly main: boolean; readonly run: (code: string) => void }[];
  readonly onCancel?: () => void;
}
function CodeField({ label, busy, deeds, onCancel }: CodeFieldProps) {
  const [code, setCode] = useState('');
  const ready = code.replace(/\s/g, '').length >= 6 && !busy;
  return (
    <form
      css={placed({ display: 'flex', gap: 8, alignItems: 'center', flexWrap: 'wrap', marginTop: 12 })}
      onSubmit={(event) => {
        event.preventDefault();
        // Enter does what it is for; voiding the codes or switching off is chosen.
        if (ready) deeds.find((deed) => deed.main)?.run(code);
      }}
    >
      <TextField
        label={label}
        value={code}
        autoComplete="one-time-code"
        onChange={(event) => {
          setCode(event.target.value);
        }}
        css={placed({ width: 170 })}
      />
      {deeds.map((deed) => (
        <Button
          key={deed.label}
          variant={deed.main ? 'contained' : 'outlined'}
          disabled={!ready}
          onClick={() => {
            deed.run(code);
            setCode('');
          }}
        >
          {deed.label}
        </Button>
      ))}
      {onCancel ? (
        <Button disabled={busy} onClick={onCancel}>
          Not now
        </Button>
      ) : null}
    </form>
  );
}

/** Recovery codes, this once. */
function Codes({ codes, onDone }: { readonly codes: readonly string[]; readonly onDone: () => void }) {
  const text = codes.join('\n');
  return (
    <>
      <p className="strong">Keep these where the phone is not. Each opens the door once; they are shown this once.</p>
      <ol css={placed({ columns: 2, maxWidth: 440, margin: '6px 0 10px', paddingLeft: 22 })} aria-label="Recovery codes">
        {codes.map((code) => (
          <li key={code}>
            <code>{code}</code>
          </li>
        ))}
      </ol>
      <p css={placed({ display: 'flex', gap: 8 })}>
        <Button component="a" href={`data:text/plain;charset=utf-8,${encodeURIComponent(`${text}\n`)}`} download="recovery-codes.txt">
          As a file
        </Button>
        <Button variant="contained" onClick={onDone}>
          I have kept them
        </Button>
      </p>
    </>
  );
}
