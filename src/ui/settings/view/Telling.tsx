/** @jsxImportSource @emotion/react */
'use client';
import { Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { useEffect, useState } from 'react';
import type { Answer } from '../../../api';
import { call, sayProblem } from '../../client';
import { mayTellHere, tellHere, wantsTelling } from '../../client/tell-here';
import { zoneText } from '../../kit/format';
import { Notice } from '../../kit/parts';
import { placed } from '../../kit/placed';

type Told = Answer<'getTelling'>;
const HOURS = Array.from({ length: 24 }, (_, hour) => `${String(hour).padStart(2, '0')}:00`);

/** Where one is told that something waits: kept as soon as it is changed. */
export function Telling({ first, email }: { readonly first: Told; readonly email: string }) {
  const [told, setTold] = useState(first);
  const [problem, setProblem] = useState<string | null>(null);
  const put = (change: Partial<Told>): void => {
    const next = { ...told, ...change };
    setTold(next);
    const { byMail, webhook, from, to } = next;
    call('setTelling', { body: { byMail, webhook, from, to } }).then(
      (kept) => {
        setTold(kept);
        setProblem(null);
      },
      (error: unknown) => {
        setTold(told);
        setProblem(sayProblem(error));
      },
    );
  };
  return (
    <section aria-label="Where you are told">
      <div className="bar ruled">
        <h2 className="grow">Told where you are</h2>
        <span className="quiet">what comes within a quarter of an hour goes together</span>
      </div>
      {problem === null ? null : (
        <Notice
          onClose={() => {
            setProblem(null);
          }}
        >
          {problem}
        </Notice>
      )}
      <div css={placed({ padding: '8px 16px', display: 'flex', flexDirection: 'column', gap: 8 })}>
        <FormControlLabel
          control={
            <Checkbox
              checked={told.byMail}
              onChange={(event) => {
                put({ byMail: event.target.checked });
              }}
            />
          }
          label={`by mail to ${email}`}
        />
        <Here />
        <div css={placed({ display: 'flex', gap: 12, alignItems: 'center', flexWrap: 'wrap' })}>
          <TextField
            select
            label="by webhook"
            value={told.webhook ?? ''}
            onChange={(event) => {
              put({ webhook: event.target.value === '' ? null : event.target.value });
            }}
            slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
            css={placed({ minWidth: 160 })}
          >
            <MenuItem value="">none</MenuItem>
            {told.webhooks.map((name) => (
              <MenuItem key={name} value={name}>
                {name}
              </MenuItem>
            ))}
          </TextField>
          {(['from', 'to'] as const).map((end) => (
            <TextField
              key={end}
              select
              label={end === 'from' ? 'not before' : 'not after'}
              value={told[end]}
              onChange={(event) => {
                put({ [end]: event.target.value });
              }}
              css={placed({ minWidth: 100 })}
            >
              {[...new Set([...HOURS, told[end]])].sort().map((hour) => (
                <MenuItem key={hour} value={hour}>
                  {hour}
                </MenuItem>
              ))}
            </TextField>
          ))}
          <span className="quiet small">on working days, {zoneText(told.zone)} time, by mail and webhook</span>
        </div>
      </div>
    </section>
  );
}

/** In this browser, while Millrace is open in it and another window is in front. */
function Here() {
  const [on, setOn] = useState(false);
  const [refused, setRefused] = useState(false);
  useEffect(() => {
    setOn(wantsTelling());
  }, []);
  return (
    <div>
      <FormControlLabel
        control={
          <Checkbox
            checked={on}
            onChange={(event) => {
              const wanted = event.target.checked;
              void tellHere(wanted).then((granted) => {
                setOn(wanted && granted);
                setRefused(wanted && !granted);
              });
            }}
          />
        }
        label="by this browser, while Millrace is open behind other windows"
      />
      {refused ? (
        <div className="in-brick small" role="status">
          {mayTellHere()
            ? 'This browser has not been allowed to show notifications: allow it beside the address.'
            : 'This browser cannot show notifications.'}
        </div>
      ) : null}
    </div>
  );
}
