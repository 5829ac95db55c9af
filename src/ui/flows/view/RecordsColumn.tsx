/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { plural } from '../../../core/base';
import { Empty } from '../../kit/parts';
import { placed } from '../../kit/placed';
import { LiveAtLine } from './LiveAtLine';
import { SpecimenPanel } from './SpecimenPanel';
import type { Bench } from './useWorkbench';

/** The records at the chosen line: those of the trial, or those that went through it. */
export function RecordsColumn({ bench, flowId }: { readonly bench: Bench; readonly flowId: string }) {
  return (
    <aside className="col" css={placed({ flex: '0 1 500px', minWidth: 400 })} aria-label="Records">
      <AtLine bench={bench} flowId={flowId} />
    </aside>
  );
}

function AtLine({ bench, flowId }: { readonly bench: Bench; readonly flowId: string }) {
  const { range, row, figures, trial, trialling, specimen, setSpecimen, isStale, mayTry, tryOut, people } = bench;
  if (range !== 'trial') return <LiveAtLine flowId={flowId} row={row} figures={row ? figures.get(row.mark) : undefined} />;
  if (trial)
    return (
      <SpecimenPanel
        row={row}
        trial={trial}
        before={trialling.trials[1]}
        at={Math.min(specimen, Math.max(0, trial.trips.length - 1))}
        onMove={setSpecimen}
        stale={isStale}
        mayTry={mayTry}
        onAfresh={() => void tryOut(true)}
      />
    );
  return (
    <Empty
      title={`Try it on ${plural(people.length, 'record')}`}
      action={
        <Button variant="contained" disabled={!mayTry || people.length === 0} onClick={() => void tryOut()}>
          {trialling.running ? 'Trying …' : 'Try now'}
        </Button>
      }
    >
      The draft runs on{' '}
      {people
        .slice(0, 3)
        .map((person) => person.name)
        .join(', ')}
      {people.length > 3 ? ' and others' : ''}. Nothing is sent, nothing is written on a record. Then every line shows what went in and what
      came out.
    </Empty>
  );
}
