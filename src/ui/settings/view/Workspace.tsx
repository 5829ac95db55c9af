'use client';
import { Button, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { WorkspaceShape } from '../../../api';
import { call } from '../../client';
import { useAsk } from '../../client/use-ask';
import { longDay } from '../state/days';
import { SettingsFrame, type IndexLine } from './SettingsFrame';

interface Props {
  readonly index: readonly IndexLine[];
  readonly first: WorkspaceShape;
  readonly zones: readonly string[];
  readonly countries: readonly string[];
  readonly mayChange: boolean;
}

/** Who we are and where: what every date, number and greeting is read by. Each gap is kept when it is left. */
export function Workspace({ index, first, zones, countries, mayChange }: Props) {
  const router = useRouter();
  const [kept, setKept] = useState(first);
  const [name, setName] = useState(first.name);
  const { busy, said, hush, ask } = useAsk();
  const keep = (next: Partial<WorkspaceShape>, says: string): void => {
    ask(call('keepWorkspace', { body: { ...kept, ...next } }), says, (now) => {
      setKept(now);
      setName(now.name);
      router.refresh();
    });
  };
  const named = new Intl.DisplayNames('en', { type: 'region' });
  return (
    <SettingsFrame index={index} title="Settings" tags={<span className="quiet">the workspace</span>} said={said} onClose={hush}>
      <section className="col paper grow" tabIndex={0} aria-label="The workspace">
        <div className="bar ruled">
          <h2>The workspace</h2>
        </div>
        <div className="settings-form">
          <TextField
            label="name"
            value={name}
            disabled={!mayChange}
            onChange={(event) => {
              setName(event.target.value);
            }}
            onBlur={() => {
              if (name.trim() !== '' && name.trim() !== kept.name) keep({ name: name.trim() }, `It is called ${name.trim()} now.`);
            }}
            slotProps={{ htmlInput: { maxLength: 80 } }}
          />
          <TextField
            select
            label="time zone"
            value={kept.zone}
            disabled={!mayChange || busy}
            onChange={(event) => {
              keep(
                { zone: event.target.value },
                `Days and hours are those of ${event.target.value} now; what is planned keeps its moment.`,
              );
            }}
          >
            {zones.map((zone) => (
              <MenuItem key={zone} value={zone}>
                {zone}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            label="country, where nothing says one"
            value={kept.defaultCountry}
            disabled={!mayChange || busy}
            onChange={(event) => {
              keep(
                { defaultCountry: event.target.value },
                `Numbers without a prefix are read as in ${named.of(event.target.value) ?? ''}.`,
              );
            }}
          >
            {countries.map((code) => (
              <MenuItem key={code} value={code}>
                {named.of(code)}
              </MenuItem>
            ))}
          </TextField>
        </div>
        <DaysOff
          daysOff={kept.daysOff}
          busy={busy}
          mayChange={mayChange}
          onKeep={(daysOff, says) => {
            keep({ daysOff }, says);
          }}
        />
      </section>
    </SettingsFrame>
  );
}

interface DaysProps {
  readonly daysOff: readonly string[];
  readonly busy: boolean;
  readonly mayChange: boolean;
  readonly onKeep: (daysOff: string[], says: string) => void;
}
function DaysOff({ daysOff, busy, mayChange, onKeep }: DaysProps) {
  const [day, setDay] = useState('');
  return (
    <>
      <div className="bar">
        <h2 className="grow">Days off</h2>
        <span className="quiet small">nothing is sent and no working day is counted on them</span>
      </div>
      <div className="days-off">
        {daysOff.map((off) => (
          <span key={off}>
            {longDay(off)}{' '}
            {mayChange ? (
              <button
                className="linkish"
                disabled={busy}
                aria-label={`${longDay(off)} is a working day`}
                onClick={() => {
                  onKeep(
                    daysOff.filter((entry) => entry !== off),
                    `${longDay(off)} is a working day again.`,
                  );
                }}
              >
                ×
              </button>
            ) : null}
          </span>
        ))}
        {daysOff.length === 0 ? <p className="quiet">None: Monday to Friday are all working days.</p> : null}
      </div>
      {mayChange ? (
        <form
          className="settings-line"
          onSubmit={(event) => {
            event.preventDefault();
            onKeep([...daysOff, day], `${longDay(day)} is off.`);
            setDay('');
          }}
        >
          <TextField
            placeholder="2026-12-25"
            value={day}
            onChange={(event) => {
              setDay(event.target.value.trim());
            }}
            slotProps={{ htmlInput: { 'aria-label': 'A day off, as year-month-day', pattern: '\\d{4}-\\d{2}-\\d{2}', size: 12 } }}
          />
          <Button type="submit" disabled={busy || longDay(day) === ''}>
            Add a day off
          </Button>
          <span className="quiet small">{longDay(day)}</span>
        </form>
      ) : null}
    </>
  );
}
