/** @jsxImportSource @emotion/react */
'use client';
import { Button, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import type { ThingView } from '../../../api';
import { plural } from '../../../core/base';
import type { Channel, FollowUpPlan } from '../../../core/writer';
import { placed } from '../../kit/placed';
import { movedTo } from '../state/plan';
import { problemsAt } from '../state/thing';
import { useThing } from './useThing';
import { BenchFrame } from './BenchFrame';
import { PlanAxis } from './PlanAxis';
import { PlanMonth } from './PlanMonth';
import { PlanReaders } from './PlanReaders';
import { At } from './ThingSide';
import { TouchSentence } from './TouchSentence';

interface Props {
  readonly first: ThingView;
  /** the texts there are, and what each is written for */
  readonly texts: readonly { readonly name: string; readonly channel: Channel }[];
  readonly mailboxes: readonly string[];
  readonly zone: string;
  readonly mayChange: boolean;
}

const HALF_HOURS = Array.from({ length: 48 }, (_, i) => `${String(Math.floor(i / 2)).padStart(2, '0')}:${i % 2 === 0 ? '00' : '30'}`);
const NEXT_AFTER = 4;

/** A follow-up plan: its touches by working day and channel, the days it would be for readers who differ, and the month to come. */
export function PlanBench({ first, texts, mailboxes, zone, mayChange }: Props) {
  const state = useThing<FollowUpPlan>(first);
  const { body: plan, trial, set } = state;
  const [picked, setPicked] = useState(0);
  // Another version may have fewer touches.
  const chosen = Math.min(picked, plan.touches.length - 1);
  const channelAt = (name: string): Channel => texts.find((text) => text.name === name)?.channel ?? 'e-mail';
  const problems = trial?.problems ?? [];
  const touch = plan.touches[chosen];
  const move = (at: number, day: number): number => {
    const moved = movedTo(plan, at, day);
    set(moved.plan);
    setPicked(moved.at);
    return moved.at;
  };
  return (
    <BenchFrame state={state} zone={zone} mayChange={mayChange} label="Plan" sideLabel="Use and versions">
      <div className="head-row">
        <h2>{plural(plan.touches.length, 'touch', 'touches')}</h2>
        <span className="quiet small grow">an answer stops what is left · drag a touch, or move it with ← →</span>
        {mayChange ? (
          <Button
            onClick={() => {
              const last = plan.touches.at(-1);
              const next = texts.find((text) => !plan.touches.some((other) => other.template === text.name))?.name ?? last?.template ?? '';
              set({ ...plan, touches: [...plan.touches, { day: (last?.day ?? 0) + NEXT_AFTER, template: next }] });
              setPicked(plan.touches.length);
            }}
          >
            Add a touch
          </Button>
        ) : null}
      </div>
      {touch ? (
        <TouchSentence
          key={chosen}
          at={chosen}
          touch={touch}
          texts={texts}
          problems={problems}
          mayChange={mayChange}
          onChange={(change) => {
            if (change.day !== undefined) move(chosen, change.day);
            else set({ ...plan, touches: plan.touches.map((other, i) => (i === chosen ? withChange(other, change) : other)) });
          }}
          onDrop={
            chosen > 0
              ? () => {
                  set({ ...plan, touches: plan.touches.filter((_, i) => i !== chosen) });
                  setPicked(chosen - 1);
                }
              : undefined
          }
        />
      ) : null}
      <PlanAxis
        plan={plan}
        channelAt={channelAt}
        measured={trial?.plan?.measured ?? []}
        chosen={chosen}
        mayChange={mayChange}
        onChoose={setPicked}
        onMove={move}
      />
      <div className="head-row">
        <h2>From where, and when</h2>
      </div>
      <FromWhere plan={plan} mailboxes={mailboxes} mayChange={mayChange} onChange={set} />
      <At problems={[...problemsAt(problems, 'mailbox'), ...problemsAt(problems, 'hours')]} />
      <div className="plan-below">
        <PlanReaders readers={trial?.plan?.readers ?? []} />
        <PlanMonth month={trial?.plan?.month ?? null} name={plan.name} />
      </div>
    </BenchFrame>
  );
}

type Touch = FollowUpPlan['touches'][number];
/** What is emptied is not kept as empty. */
function withChange(touch: Touch, change: Partial<Touch>): Touch {
  const { otherwise, when, ...rest } = { ...touch, ...change };
  return { ...rest, ...(otherwise !== undefined && otherwise !== '' && { otherwise }), ...(when !== undefined && when !== '' && { when }) };
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
