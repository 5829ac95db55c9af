/** @jsxImportSource @emotion/react */
'use client';
import { MenuItem, TextField } from '@mui/material';
import type { ReactNode } from 'react';
import { plural } from '../../../core/base';
import type { Limits, ReadLimits } from '../state/release';
import { dayTimeText } from '../../kit/format';
import type { Answer } from '../../../api';
import { placed } from '../../kit/placed';

interface Props {
  readonly limits: Limits;
  readonly problems: ReadLimits['problems'];
  /** what the typed start is read as, local; null: at once */
  readonly startsAt: string | null;
  readonly zone: string;
  readonly underWay: number;
  readonly liveNo: number | null;
  /** who came by the flow's intake and is not in it */
  readonly cameBefore: Answer<'getCameBefore'>['cameBefore'];
  readonly onChange: (limits: Limits) => void;
}

const Row = ({ label, children }: { readonly label: string; readonly children: ReactNode }) => (
  <div className="limit">
    <span className="quiet">{label}</span>
    <span className="what">{children}</span>
  </div>
);

/** A local moment as it is read back: “Tue 1 Dec 08:30, London”. */
const startText = (local: string, zone: string): string =>
  `${dayTimeText(Date.parse(`${local}Z`), 'UTC')}, ${(zone.split('/').at(-1) ?? zone).replaceAll('_', ' ')}`;

/** How the release begins and what it may not exceed. */
export function ReleaseLimits({ limits, problems, startsAt, zone, underWay, liveNo, cameBefore, onChange }: Props) {
  const field = (key: 'firstN' | 'dailyLimit' | 'budget' | 'startAt', label: string, width: number, placeholder?: string) => (
    <TextField
      value={limits[key]}
      onChange={(event) => {
        onChange({ ...limits, [key]: event.target.value });
      }}
      error={problems[key] !== undefined}
      {...(problems[key] !== undefined && { helperText: problems[key] })}
      css={placed({ width })}
      {...(placeholder !== undefined && { placeholder })}
      slotProps={{ htmlInput: { 'aria-label': label, inputMode: placeholder === undefined ? 'decimal' : undefined } }}
    />
  );
  return (
    <div>
      <Row label="begin with">
        {field('firstN', 'Records to begin with', 64)} {limits.firstN.trim() === '' ? 'all records' : 'records, then ask me'}
      </Row>
      <Row label="at most">
        {field('dailyLimit', 'Records a day', 64)} {limits.dailyLimit.trim() === '' ? 'no limit a day' : 'records a day'}
      </Row>
      <Row label="spend at most">
        {field('budget', 'Budget a day in euros', 64)} {limits.budget.trim() === '' ? 'no budget' : '€ a day, then wait'}
      </Row>
      <Row label="start">
        {field('startAt', 'Start', 160, 'tomorrow 8:30')}{' '}
        {limits.startAt.trim() === '' ? 'now' : startsAt === null ? '' : startText(startsAt, zone)}
      </Row>
      {liveNo !== null && underWay > 0 ? (
        <Row label={`${plural(underWay, 'trip')} under way`}>
          <TextField
            select
            value={limits.underWay}
            onChange={(event) => {
              onChange({ ...limits, underWay: event.target.value === 'move' ? 'move' : 'finish' });
            }}
            css={placed({ width: 232 })}
            slotProps={{ htmlInput: { 'aria-label': 'Trips under way' } }}
          >
            <MenuItem value="finish">
              {underWay === 1 ? 'finishes' : 'finish'} on live {liveNo}
            </MenuItem>
            <MenuItem value="move">{underWay === 1 ? 'moves' : 'move'} where its lines match</MenuItem>
          </TextField>
        </Row>
      ) : null}
      {cameBefore !== null && cameBefore.people > 0 ? (
        <Row label={`${plural(cameBefore.people, 'person', 'people')} came before`}>
          <TextField
            select
            value={limits.cameBefore}
            onChange={(event) => {
              onChange({ ...limits, cameBefore: event.target.value === 'take in' ? 'take in' : 'leave' });
            }}
            css={placed({ width: 232 })}
            slotProps={{ htmlInput: { 'aria-label': 'People who came before' } }}
          >
            <MenuItem value="leave">left as they are: from now on</MenuItem>
            <MenuItem value="take in">taken in too, oldest first</MenuItem>
          </TextField>
          <span className="quiet small">by {cameBefore.by}, not in this flow</span>
        </Row>
      ) : null}
    </div>
  );
}
