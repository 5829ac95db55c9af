'use client';
import { Button, TextField } from '@mui/material';
import { useState } from 'react';
import { KEPT, KEPT_KINDS, type Kept } from '../../../core/facts';
import { plural } from '../../../core/base';
import type { ExampleView } from '../../../api';
import { call } from '../../client';
import { Example } from '../../client/Example';
import { useAsk } from '../../client/use-ask';
import { countText } from '../../kit/format';
import { ErasePerson, type AboutPerson } from './ErasePerson';
import { SettingsFrame, type IndexLine } from './SettingsFrame';

interface KeepingShape {
  readonly days: Readonly<Record<Kept, number>>;
  readonly now: Readonly<Record<Kept, number>>;
}
interface Props {
  readonly index: readonly IndexLine[];
  readonly first: KeepingShape;
  /** whose data was asked for */
  readonly about: AboutPerson | null;
  readonly zone: string;
  readonly mayErase: boolean;
  readonly example: ExampleView;
}

/** What is kept, for how long, and how it leaves: everything at once, of one person, or for good. */
export function Data({ index, first, about, zone, mayErase, example }: Props) {
  const [keeping, setKeeping] = useState(first);
  const { busy, said, hush, ask } = useAsk();
  return (
    <SettingsFrame index={index} title="Settings" tags={<span className="quiet">data</span>} said={said} onClose={hush}>
      <section className="col paper grow" tabIndex={0} aria-label="Data">
        <div className="bar ruled">
          <h2>How long things are kept</h2>
        </div>
        <table className="plain">
          <thead>
            <tr>
              <th>what</th>
              <th className="right">there are</th>
              <th>kept for</th>
              <th>and then</th>
            </tr>
          </thead>
          <tbody>
            {KEPT_KINDS.map((kind) => (
              <tr key={kind}>
                <td>{KEPT[kind].label}</td>
                <td className="right">{countText(keeping.now[kind])}</td>
                <td>
                  <Days
                    label={`Days that ${KEPT[kind].label} are kept`}
                    days={keeping.days[kind]}
                    disabled={!mayErase || busy}
                    onDays={(days) => {
                      const how = days === 0 ? 'for ever' : `for ${plural(days, 'day')}`;
                      ask(call('keepFor', { body: { kind, days } }), `Kept ${how}: ${KEPT[kind].label}.`, setKeeping);
                    }}
                  />
                </td>
                <td className="small quiet">{KEPT[kind].says}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <div className="bar ruled">
          <h2>Take everything out</h2>
        </div>
        <div className="settings-words">
          <p className="quiet">
            One ZIP: people, companies, deals, applications and facts as CSV, messages as EML, papers, flows as text, and all that was made
            and named as JSON. Passwords and keys stay here.
          </p>
          {mayErase ? (
            <Button component="a" href="/api/v1/take-out" download variant="contained">
              Take everything out
            </Button>
          ) : (
            <p className="quiet">An owner takes it out.</p>
          )}
        </div>
        <div className="bar ruled">
          <h2>An example beside it</h2>
        </div>
        <div className="settings-words">
          <Example first={example} mayChange={mayErase} />
        </div>
        <div className="bar ruled">
          <h2>Data of one person</h2>
        </div>
        <div className="settings-words">
          {about === null ? (
            <p className="quiet">
              {mayErase
                ? 'Open the person in Records and choose “Their data”: a copy for them, or erasing them for good.'
                : 'An owner makes copies and erases.'}
            </p>
          ) : (
            <ErasePerson about={about} zone={zone} />
          )}
        </div>
      </section>
    </SettingsFrame>
  );
}

/** A number of days that is kept when it is left; empty or 0: for ever. */
function Days({
  label,
  days,
  disabled,
  onDays,
}: {
  readonly label: string;
  readonly days: number;
  readonly disabled: boolean;
  readonly onDays: (days: number) => void;
}) {
  const [text, setText] = useState(days === 0 ? '' : String(days));
  const leave = (): void => {
    const next = Math.max(0, Math.min(3_650, Math.round(Number(text) || 0)));
    setText(next === 0 ? '' : String(next));
    if (next !== days) onDays(next);
  };
  return (
    <TextField
      placeholder="for ever"
      value={text}
      disabled={disabled}
      className="days-kept"
      onChange={(event) => {
        setText(event.target.value);
      }}
      onBlur={leave}
      onKeyDown={(event) => {
        if (event.key === 'Enter') (event.target as HTMLElement).blur();
      }}
      slotProps={{
        htmlInput: { 'aria-label': label, inputMode: 'numeric' },
        input: { endAdornment: text === '' ? null : <span className="quiet">days</span> },
      }}
    />
  );
}
