/** @jsxImportSource @emotion/react */
'use client';
import { MenuItem, Select } from '@mui/material';
import { useMemo, useState } from 'react';
import { plural } from '../../../core/base';
import { placed } from '../../kit/placed';
import { alsoMade, countsOf, explain, kindsOf, namesCompanies, type Becomes, type Counts, type PreviewView } from '../state/preview';
import { RowCard } from './RowCard';
import type { ListStatus } from './useTakeIn';

interface Props {
  readonly status: ListStatus;
  readonly preview: PreviewView;
  readonly busy: boolean;
  readonly flows: readonly { readonly id: string; readonly name: string }[];
  readonly flowId: string;
  readonly onFlow: (id: string) => void;
}

/** What will happen with every row, and where those taken in go then. */
export function TakeInOutcome({ status, preview, busy, flows, flowId, onFlow }: Props) {
  const [at, setAt] = useState(0);
  const [kind, setKind] = useState<Becomes | null>(null);
  const shown = useMemo(() => preview.rows.filter((row) => kind === null || row.plan.kind === kind), [preview, kind]);
  const counts = preview.counts ?? countsOf(preview.rows);
  const counted = preview.counts === null ? preview.rows.length : status.total;
  const takes = counts.new + counts.known + counts.perhaps;
  const ofCompanies = namesCompanies(preview);
  const also = alsoMade(counts);
  return (
    <aside className="col" css={placed({ width: 464, flex: 'none', padding: '0 18px 18px' })} aria-label="What will happen">
      <div className="bar" css={placed({ padding: '8px 0' })}>
        <h2 className="grow">What will happen</h2>
        <span className="quiet">{busy ? 'looking …' : 'nothing has been changed yet'}</span>
      </div>
      {preview.counts === null ? (
        <p className="small" role="status" css={placed({ margin: '0 0 8px' })}>
          Of the first {plural(counted, 'row')}. All {status.total.toLocaleString('en-GB')} are being counted; you need not wait for it.
        </p>
      ) : null}
      <div css={placed({ display: 'flex', height: 16, marginBottom: 6 })} aria-hidden>
        {kindsOf(ofCompanies).map((entry) => (
          <i key={entry.kind} css={placed({ width: `${(counts[entry.kind] / Math.max(1, counted)) * 100}%`, background: entry.tone })} />
        ))}
      </div>
      <ByKind
        preview={preview}
        counts={counts}
        kind={kind}
        onKind={(next) => {
          setKind(next);
          setAt(0);
        }}
      />
      {also ? (
        <p css={placed({ padding: '8px 0 0 50px' })}>
          and <span className="strong">{also}</span> <span className="quiet small">nothing that stands somewhere is moved</span>
        </p>
      ) : null}
      {counts.refused > 0 ? (
        <p className="small" css={placed({ padding: '6px 0 0' })}>
          <a href={`/api/v1/imports/${status.id}/refused.csv`}>The {plural(counts.refused, 'refused row')} as a file</a>{' '}
          <span className="quiet">with the reason, to be mended and brought again</span>
        </p>
      ) : null}
      <RowCard rows={shown} at={Math.min(at, Math.max(0, shown.length - 1))} onMove={setAt} total={status.total} />
      <h2 css={placed({ margin: '16px 0 6px' })}>Then</h2>
      {ofCompanies ? (
        <p className="quiet">They stand in the records. Flows are about people: whoever is found there starts one.</p>
      ) : (
        <Then flows={flows} flowId={flowId} onFlow={onFlow} takes={preview.counts === null ? 'all' : takes.toLocaleString('en-GB')} />
      )}
    </aside>
  );
}

interface ByKindProps {
  readonly preview: PreviewView;
  readonly counts: Counts;
  readonly kind: Becomes | null;
  readonly onKind: (kind: Becomes | null) => void;
}

/** How many rows become what, and why; the rows of one kind can be looked at alone. */
function ByKind({ preview, counts, kind, onKind }: ByKindProps) {
  return (
    <>
      {kindsOf(namesCompanies(preview)).map((entry) => (
        <div key={entry.kind} css={placed({ display: 'flex', gap: 14, padding: '7px 0', borderBottom: '1px solid var(--line)' })}>
          <span
            css={placed({
              width: 36,
              fontSize: 16,
              fontWeight: 620,
              color: entry.kind === 'new' ? 'var(--river)' : entry.kind === 'perhaps' ? 'var(--brass)' : entry.tone,
            })}
          >
            {counts[entry.kind].toLocaleString('en-GB')}
          </span>
          <span className="grow">
            <span className="strong">{entry.label}</span>
            <span className="quiet small" css={placed({ display: 'block' })}>
              {explain(entry.kind, preview, counts)}
            </span>
          </span>
          {counts[entry.kind] > 0 ? (
            <button
              className="linkish"
              aria-pressed={kind === entry.kind}
              onClick={() => {
                onKind(kind === entry.kind ? null : entry.kind);
              }}
            >
              {kind === entry.kind ? 'show all' : 'show'}
            </button>
          ) : null}
        </div>
      ))}
    </>
  );
}

interface ThenProps extends Pick<Props, 'flows' | 'flowId' | 'onFlow'> {
  readonly takes: string;
}

function Then({ flows, flowId, onFlow, takes }: ThenProps) {
  return (
    <div css={placed({ display: 'flex', gap: 8, alignItems: 'center' })}>
      start{' '}
      <Select
        value={flowId}
        displayEmpty
        onChange={(event) => {
          onFlow(event.target.value);
        }}
        inputProps={{ 'aria-label': 'Flow to start' }}
      >
        <MenuItem value="">nothing yet</MenuItem>
        {flows.map((flow) => (
          <MenuItem key={flow.id} value={flow.id}>
            {flow.name}
          </MenuItem>
        ))}
      </Select>{' '}
      {flowId === '' ? (
        ''
      ) : (
        <span>
          for the <b>{takes}</b> taken in
        </span>
      )}
    </div>
  );
}
