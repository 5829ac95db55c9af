/** @jsxImportSource @emotion/react */
'use client';
import { Button, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import type { ThingTrial, ThingView } from '../../../api';
import { plural } from '../../../core/base';
import type { Pipeline } from '../../../core/flow/check';
import { placed } from '../../kit/placed';
import { draftsOf, goneStages, movesOf, type StageDraft } from '../state/stages';
import { problemsAt } from '../state/thing';
import { BenchFrame } from './BenchFrame';
import { At } from './ThingSide';
import { useThing } from './useThing';

interface Props {
  readonly first: ThingView;
  readonly zone: string;
  readonly mayChange: boolean;
}

/** The stages of a pipeline in their order, with the deals that stand at each; those of a stage that goes are told where to go. */
export function PipelineBench({ first, zone, mayChange }: Props) {
  const state = useThing<Pipeline>(first);
  const { body, trial, set, view } = state;
  const kept = (view.body as Pipeline).stages;
  const [drafts, setDrafts] = useState<{ readonly no: number; readonly list: readonly StageDraft[] }>({ no: view.no, list: [] });
  const [targets, setTargets] = useState<Readonly<Record<string, string>>>({});
  // Undone, had back from a version, or kept: then the drafts are those that stand in the editor.
  const isTyped = drafts.no === view.no && JSON.stringify(drafts.list.map((draft) => draft.name)) === JSON.stringify(body.stages);
  const stages = isTyped ? drafts.list : draftsOf(body.stages, kept);
  const deals = trial?.pipeline?.deals ?? {};
  const gone = goneStages(stages, kept, deals);
  const put = (next: readonly StageDraft[]): void => {
    setDrafts({ no: view.no, list: next });
    set({ ...body, stages: next.map((draft) => draft.name) });
  };
  const move = (at: number, by: number): void => {
    const next = [...stages];
    const [taken] = next.splice(at, 1);
    if (taken) next.splice(at + by, 0, taken);
    put(next);
  };
  return (
    <BenchFrame
      state={state}
      zone={zone}
      mayChange={mayChange}
      label="Stages"
      sideLabel="Use and versions"
      moves={movesOf(stages, targets)}
    >
      <div className="head-row">
        <h2>{plural(stages.length, 'stage')}</h2>
        <span className="quiet small">flows speak of them by name: a new name is followed by every draft</span>
      </div>
      <table className="plain criteria">
        <thead>
          <tr>
            <th>stage</th>
            <th className="right">deals there</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {stages.map((stage, i) => (
            <StageRow
              key={i}
              no={i}
              stage={stage}
              isLast={i === stages.length - 1}
              deals={stage.was === null ? null : (deals[stage.was] ?? 0)}
              problems={trial?.problems ?? []}
              mayChange={mayChange}
              onName={(name) => {
                put(stages.map((entry, k) => (k === i ? { ...entry, name } : entry)));
              }}
              onMove={(by) => {
                move(i, by);
              }}
              onDrop={() => {
                put(stages.filter((_, k) => k !== i));
              }}
            />
          ))}
        </tbody>
      </table>
      <At problems={(trial?.problems ?? []).filter((problem) => problem.at === 'stages')} />
      {mayChange ? (
        <Button
          css={placed({ marginTop: 8 })}
          onClick={() => {
            put([...stages, { was: null, name: `Stage ${stages.length + 1}` }]);
          }}
        >
          Add a stage
        </Button>
      ) : null}
      {gone.map(({ stage, deals: n }) => (
        <div key={stage} css={placed({ display: 'flex', gap: 12, alignItems: 'center', marginTop: 14 })}>
          <span className="in-brass">
            ● {plural(n, 'deal stands', 'deals stand')} at {stage}, which goes:
          </span>
          <TextField
            select
            label="they go to"
            value={targets[stage] ?? ''}
            onChange={(event) => {
              setTargets({ ...targets, [stage]: event.target.value });
            }}
            css={placed({ minWidth: 180 })}
          >
            {stages.map(({ name }) => (
              <MenuItem key={name} value={name}>
                {name}
              </MenuItem>
            ))}
          </TextField>
        </div>
      ))}
    </BenchFrame>
  );
}

interface StageProps {
  readonly no: number;
  readonly stage: StageDraft;
  readonly isLast: boolean;
  /** null: the stage is new */
  readonly deals: number | null;
  readonly problems: ThingTrial['problems'];
  readonly mayChange: boolean;
  readonly onName: (name: string) => void;
  readonly onMove: (by: number) => void;
  readonly onDrop: () => void;
}
function StageRow({ no: i, stage, isLast, deals, problems, mayChange, onName, onMove, onDrop }: StageProps) {
  return (
    <tr>
      <td>
        <TextField
          value={stage.name}
          disabled={!mayChange}
          onChange={(event) => {
            onName(event.target.value);
          }}
          slotProps={{ htmlInput: { 'aria-label': `Stage ${i + 1}`, maxLength: 60 } }}
          css={placed({ minWidth: 240 })}
        />
        {stage.was !== null && stage.was !== stage.name ? <span className="quiet small"> was {stage.was}</span> : null}
        <At problems={problemsAt(problems, `stages.${i}`)} />
      </td>
      <td className="right">{deals ?? <span className="quiet">new</span>}</td>
      <td className="right">
        {mayChange ? (
          <>
            <Button
              aria-label={`Stage ${i + 1} earlier`}
              disabled={i === 0}
              onClick={() => {
                onMove(-1);
              }}
            >
              ↑
            </Button>{' '}
            <Button
              aria-label={`Stage ${i + 1} later`}
              disabled={isLast}
              onClick={() => {
                onMove(1);
              }}
            >
              ↓
            </Button>{' '}
            <button className="linkish small" aria-label={`Take out ${stage.name}`} disabled={i === 0 && isLast} onClick={onDrop}>
              take out
            </button>
          </>
        ) : null}
      </td>
    </tr>
  );
}
