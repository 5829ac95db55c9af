'use client';
import { Button } from '@mui/material';
import { useState } from 'react';
import { plural } from '../../../core/base';
import Link from '../../kit/Link';
import { Problem, Tag, TopBar } from '../../kit/parts';
import { countsOf, namesCompanies, type PreviewView } from '../state/preview';
import { TakeInColumns } from './TakeInColumns';
import { TakeInOutcome } from './TakeInOutcome';
import { TakeInProgress } from './TakeInProgress';
import { useTakeIn, type ListStatus } from './useTakeIn';

interface Props {
  readonly status: ListStatus;
  readonly preview: PreviewView | null;
  readonly flows: readonly { readonly id: string; readonly name: string }[];
  readonly mayTakeIn: boolean;
}

const DELIMITER: Readonly<Record<string, string>> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' };

/** What a list's columns mean, and what will happen with every row, before anything is changed. */
export function TakeIn({ status, preview: first, flows, mayTakeIn }: Props) {
  const taking = useTakeIn(status, first);
  const [flowId, setFlowId] = useState(status.flowId ?? flows[0]?.id ?? '');
  const { preview, problem, setProblem, busy, running, change, choosePart, take } = taking;
  if (!preview || running || status.state === 'done') return <TakeInProgress status={status} />;
  const counts = preview.counts ?? countsOf(preview.rows);
  const takes = counts.new + counts.known + counts.perhaps;
  return (
    <>
      <TopBar
        path={<Link href="/sources">Sources</Link>}
        title="Take in a file"
        tags={
          <>
            <Tag>{status.fileName}</Tag>
            <span className="quiet cut">
              {plural(preview.import.total, 'row')} · {DELIMITER[preview.table.delimiter]} · {preview.table.encoding} ·{' '}
              {preview.table.headingRow === 0 ? 'no headings: every row is taken as one' : `heading in row ${preview.table.headingRow}`}
              {preview.import.says.length === 0 ? '' : ` · ${preview.import.says.join(' · ')}`}
              {preview.import.matchingFrom === null ? '' : ` · columns as in “${preview.import.matchingFrom}”, which had the same headings`}
            </span>
          </>
        }
      >
        <Button component={Link} href="/sources">
          Cancel
        </Button>
        <Button
          variant="contained"
          disabled={!mayTakeIn || busy || takes === 0}
          onClick={() => {
            take(flowId === '' || namesCompanies(preview) ? null : flowId);
          }}
        >
          {preview.counts === null ? 'Take in all' : `Take in ${takes.toLocaleString('en-GB')}`}
        </Button>
      </TopBar>
      <Problem
        says={problem}
        onClose={() => {
          setProblem(null);
        }}
      />
      <div className="cols">
        <TakeInColumns preview={preview} busy={busy} change={change} choosePart={choosePart} mayTakeIn={mayTakeIn} />
        <TakeInOutcome
          status={{ ...status, total: preview.import.total }}
          preview={preview}
          busy={busy}
          flows={flows}
          flowId={flowId}
          onFlow={setFlowId}
        />
      </div>
    </>
  );
}
