/** @jsxImportSource @emotion/react */
'use client';
import { Button, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import type { PeopleHere } from '../../../api';
import { plural } from '../../../core/base';
import { dateText } from '../../kit/format';
import { placed } from '../../kit/placed';
import { readSpans, writeSpans } from '../state/days';
import type { Role } from './InviteForm';

type Person = PeopleHere['people'][number];
interface Props {
  readonly person: Person;
  readonly others: readonly Person[];
  readonly roles: readonly { readonly role: Role; readonly may: readonly string[] }[];
  readonly zone: string;
  readonly isOwn: boolean;
  readonly busy: boolean;
  readonly mayChange: boolean;
  readonly onChange: (
    change: { readonly role?: Role; readonly title?: string; readonly away?: { readonly from: string; readonly to: string }[] },
    says: string,
  ) => void;
  readonly onLetGo: (handTo: string | null) => void;
  readonly onLetBack: () => void;
  readonly onFactorEnd: () => void;
}

/** One person: role and what it lets them do, days away, and how they go. */
export function PersonPanel({ person, others, roles, zone, isOwn, busy, mayChange, onChange, onLetGo, onLetBack, onFactorEnd }: Props) {
  const [title, setTitle] = useState(person.title);
  const [away, setAway] = useState(writeSpans(person.away));
  const [handTo, setHandTo] = useState('');
  const spans = readSpans(away);
  return (
    <aside className="col" css={placed({ width: 300, flex: 'none', padding: '0 16px 16px' })} tabIndex={0} aria-label={person.name}>
      <div className="bar" css={placed({ paddingLeft: 0 })}>
        <h2>{person.name}</h2>
      </div>
      {person.endedAt !== null ? (
        <>
          <p className="quiet">Cannot come in since {dateText(person.endedAt, zone)}. What was theirs is somebody else’s.</p>
          {mayChange ? (
            <Button disabled={busy} onClick={onLetBack}>
              Let in again
            </Button>
          ) : null}
        </>
      ) : (
        <div css={placed({ display: 'flex', flexDirection: 'column', gap: 12 })}>
          <TextField
            select
            label="role"
            value={person.role}
            disabled={!mayChange || busy}
            onChange={(event) => {
              onChange({ role: event.target.value as Role }, `${person.name} is ${event.target.value} now.`);
            }}
          >
            {roles.map(({ role }) => (
              <MenuItem key={role} value={role}>
                {role}
              </MenuItem>
            ))}
          </TextField>
          <p className="quiet small">may {roles.find(({ role }) => role === person.role)?.may.join(', ')}</p>
          <TextField
            label="what they do"
            value={title}
            disabled={!mayChange}
            onChange={(event) => {
              setTitle(event.target.value);
            }}
            onBlur={() => {
              if (title.trim() !== person.title) onChange({ title: title.trim() }, 'Kept.');
            }}
            slotProps={{ htmlInput: { maxLength: 80 } }}
          />
          <TextField
            label="away"
            value={away}
            placeholder="2026-12-21 to 2026-12-31"
            disabled={!mayChange}
            error={spans === undefined}
            helperText={
              spans === undefined ? 'days as 2026-12-21, or 2026-12-21 to 2026-12-31' : 'turns of teams pass them by on these days'
            }
            onChange={(event) => {
              setAway(event.target.value);
            }}
            onBlur={() => {
              if (spans && writeSpans(spans) !== writeSpans(person.away))
                onChange({ away: [...spans] }, 'Turns pass them by on these days.');
            }}
          />
          {mayChange && !isOwn ? (
            <>
              {person.hasFactor ? (
                <p className="small quiet">
                  Has a second factor; if phone and codes are lost,{' '}
                  <button className="linkish small" disabled={busy} onClick={onFactorEnd}>
                    take it away
                  </button>
                </p>
              ) : null}
              {person.owns > 0 ? (
                <TextField
                  select
                  label={`who takes over ${plural(person.owns, 'record')}`}
                  value={handTo}
                  onChange={(event) => {
                    setHandTo(event.target.value);
                  }}
                >
                  {others.map((other) => (
                    <MenuItem key={other.id} value={other.id}>
                      {other.name}
                    </MenuItem>
                  ))}
                </TextField>
              ) : null}
              <Button
                disabled={busy || (person.owns > 0 && handTo === '')}
                sx={{ alignSelf: 'flex-start' }}
                onClick={() => {
                  onLetGo(handTo === '' ? null : handTo);
                }}
              >
                Let go
              </Button>
            </>
          ) : null}
        </div>
      )}
    </aside>
  );
}
