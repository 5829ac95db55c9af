/** @jsxImportSource @emotion/react */
'use client';
import { Button, MenuItem, TextField } from '@mui/material';
import type { ThingTrial, ThingView } from '../../../api';
import { plural } from '../../../core/base';
import type { FollowUpPlan } from '../../../core/writer';
import { dayTimeText } from '../../kit/format';
import { placed } from '../../kit/placed';
import { problemsAt } from '../state/thing';
import { useThing } from './useThing';
import { BenchFrame } from './BenchFrame';
import { At } from './ThingSide';

interface Props {
  readonly first: ThingView;
  readonly texts: readonly string[];
  readonly mailboxes: readonly string[];
  readonly zone: string;
  readonly mayChange: boolean;
}

const HALF_HOURS = Array.from({ length: 48 }, (_, i) => `${String(Math.floor(i / 2)).padStart(2, '0')}:${i % 2 === 0 ? '00' : '30'}`);

/** A follow-up plan: which text on which working day, from which mailbox, at what hours; with the days it would be if it began now. */
export function PlanBench({ first, texts, mailboxes, zone, mayChange }: Props) {
  const state = useThing<FollowUpPlan>(first);
  const { body: plan, trial, set } = state;
  const problems = trial?.problems ?? [];
  const put = (i: number, change: Partial<FollowUpPlan['touches'][number]>): void => {
    set({ ...plan, touches: plan.touches.map((touch, k) => (k === i ? { ...touch, ...change } : touch)) });
  };
  return (
    <BenchFrame state={state} zone={zone} mayChange={mayChange} label="Plan" sideLabel="Use and versions">
      <div className="head-row">
        <h2>{plural(plan.touches.length, 'touch', 'touches')}</h2>
        <span className="quiet small">working days are counted from the first; an answer stops what is left</span>
      </div>
      <table className="plain criteria">
        <thead>
          <tr>
            <th>on working day</th>
            <th>text</th>
            <th>begun now it would leave</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {plan.touches.map((touch, i) => (
            <Touch
              key={i}
              no={i}
              touch={touch}
              texts={texts}
              problems={problems}
              says={leavesAt(trial?.plan?.touches[i]?.at, zone)}
              mayChange={mayChange}
              onChange={(change) => {
                put(i, change);
              }}
              onDrop={
                plan.touches.length > 1 && i > 0
                  ? () => {
                      set({ ...plan, touches: plan.touches.filter((_, k) => k !== i) });
                    }
                  : undefined
              }
            />
          ))}
        </tbody>
      </table>
      {mayChange ? (
        <Button
          css={placed({ marginTop: 8 })}
          onClick={() => {
            const last = plan.touches.at(-1);
            const next = texts.find((text) => !plan.touches.some((touch) => touch.template === text)) ?? last?.template ?? '';
            set({ ...plan, touches: [...plan.touches, { day: (last?.day ?? 0) + 4, template: next }] });
          }}
        >
          Add a touch
        </Button>
      ) : null}
      <div className="head-row">
        <h2>From where, and when</h2>
      </div>
      <FromWhere plan={plan} mailboxes={mailboxes} mayChange={mayChange} onChange={set} />
      <At problems={[...problemsAt(problems, 'mailbox'), ...problemsAt(problems, 'hours')]} />
    </BenchFrame>
  );
}

const leavesAt = (at: number | undefined, zone: string): string => (at === undefined ? '' : `from ${dayTimeText(at, zone)}`);

interface TouchProps extends Pick<Props, 'texts' | 'mayChange'> {
  readonly no: number;
  readonly touch: FollowUpPlan['touches'][number];
  readonly problems: ThingTrial['problems'];
  readonly says: string;
  readonly onChange: (change: Partial<FollowUpPlan['touches'][number]>) => void;
  /** undefined: it cannot go */
  readonly onDrop: (() => void) | undefined;
}
function Touch({ no: i, touch, texts, problems, says, mayChange, onChange, onDrop }: TouchProps) {
  return (
    <tr>
      <td>
        <TextField
          type="number"
          value={touch.day}
          disabled={!mayChange || i === 0}
          onChange={(event) => {
            onChange({ day: Math.max(0, Math.round(Number(event.target.value))) });
          }}
          slotProps={{ htmlInput: { 'aria-label': `Working day of touch ${i + 1}`, min: 0, max: 400 } }}
          css={placed({ width: 90 })}
        />
        <At problems={problemsAt(problems, `touches.${i}.day`)} />
      </td>
      <td>
        <TextField
          select
          value={touch.template}
          disabled={!mayChange}
          onChange={(event) => {
            onChange({ template: event.target.value });
          }}
          slotProps={{ htmlInput: { 'aria-label': `Text of touch ${i + 1}` } }}
          css={placed({ minWidth: 220 })}
        >
          {[...new Set([...texts, touch.template])].map((text) => (
            <MenuItem key={text} value={text}>
              {text}
            </MenuItem>
          ))}
        </TextField>
        <At problems={problemsAt(problems, `touches.${i}.template`)} />
      </td>
      <td className="quiet">{says}</td>
      <td className="right">
        {mayChange && onDrop ? (
          <button className="linkish small" aria-label={`Take out touch ${i + 1}`} onClick={onDrop}>
            take out
          </button>
        ) : null}
      </td>
    </tr>
  );
}

interface FromProps extends Pick<Props, 'mailboxes' | 'mayChange'> {
  readonly plan: FollowUpPlan;
  readonly onChange: (plan: FollowUpPlan) => void;
}
function FromWhere({ plan, mailboxes, mayChange, onChange }: FromProps) {
  return (
    <div css={placed({ display: 'flex', gap: 12 })}>
      <TextField
        select
        label="mailbox"
        value={plan.mailbox}
        disabled={!mayChange}
        onChange={(event) => {
          onChange({ ...plan, mailbox: event.target.value });
        }}
        css={placed({ minWidth: 160 })}
      >
        {[...new Set([...mailboxes, plan.mailbox])].map((box) => (
          <MenuItem key={box} value={box}>
            {box}
          </MenuItem>
        ))}
      </TextField>
      {(['from', 'to'] as const).map((end) => (
        <TextField
          key={end}
          select
          label={end === 'from' ? 'not before' : 'not after'}
          value={plan.hours[end]}
          disabled={!mayChange}
          onChange={(event) => {
            onChange({ ...plan, hours: { ...plan.hours, [end]: event.target.value } });
          }}
          css={placed({ minWidth: 110 })}
        >
          {[...new Set([...HALF_HOURS, plan.hours[end]])].sort().map((hour) => (
            <MenuItem key={hour} value={hour}>
              {hour}
            </MenuItem>
          ))}
        </TextField>
      ))}
      <span className="quiet small" css={placed({ alignSelf: 'center' })}>
        in the reader’s own time
      </span>
    </div>
  );
}
