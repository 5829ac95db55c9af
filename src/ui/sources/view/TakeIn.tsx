/** @jsxImportSource @emotion/react */
'use client';
import { Button, MenuItem, Select } from '@mui/material';
import { useFields } from '../../client/fields';
import Link from '../../kit/Link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { plural } from '../../../core/base';
import { targetLabel, targetsOf, type Target } from '../../../core/intake';
import { call, sayProblem } from '../../client';
import { Problem, Tag, TopBar } from '../../kit/parts';
import type { ListView } from './Sources';
import { RowCard, type PreviewRow } from './RowCard';
import { placed } from '../../kit/placed';

export interface PreviewView {
  readonly table: { readonly encoding: string; readonly delimiter: string; readonly headingRow: number };
  readonly columns: readonly {
    readonly heading: string;
    readonly target: Target;
    readonly why: string;
    readonly sure: boolean;
    readonly samples: readonly string[];
  }[];
  readonly rows: readonly PreviewRow[];
  /** of all rows; null while they are counted */
  readonly counts: Counts | null;
}
interface Counts {
  readonly new: number;
  readonly known: number;
  readonly perhaps: number;
  readonly refused: number;
  readonly newCompanies: number;
}
interface Props {
  readonly status: ListView & {
    readonly problem: string | null;
    readonly flowId: string | null;
    readonly matchingFrom: string | null;
    readonly says: readonly string[];
  };
  readonly preview: PreviewView | null;
  readonly flows: readonly { readonly id: string; readonly name: string }[];
  readonly mayTakeIn: boolean;
}

const DELIMITER: Readonly<Record<string, string>> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' };
const KINDS = [
  { kind: 'new', label: 'new people', tone: 'var(--w4)' },
  { kind: 'known', label: 'known already', tone: 'var(--river)' },
  { kind: 'perhaps', label: 'perhaps known', tone: 'var(--brass-mark)' },
  { kind: 'refused', label: 'refused', tone: 'var(--brick)' },
] as const;
const REFRESH_MS = 700;
const COUNT_MS = 1_500;

/** What a list's columns mean, and what will happen with every row, before anything is changed. */
export function TakeIn({ status, preview: first, flows, mayTakeIn }: Props) {
  const fields = useFields();
  const router = useRouter();
  const [preview, setPreview] = useState(first);
  const [flowId, setFlowId] = useState(status.flowId ?? flows[0]?.id ?? '');
  const [problem, setProblem] = useState<string | null>(status.problem);
  const [busy, setBusy] = useState(false);
  const [at, setAt] = useState(0);
  const [kind, setKind] = useState<(typeof KINDS)[number]['kind'] | null>(null);
  const running = status.state === 'queued' || status.state === 'running';
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(() => {
      router.refresh();
    }, REFRESH_MS);
    return () => {
      clearInterval(timer);
    };
  }, [running, router]);
  const counting = preview !== null && preview.counts === null && status.state === 'looked at';
  useEffect(() => {
    if (!counting || busy) return;
    const timer = setInterval(() => {
      // A look that fails is looked again at the next beat.
      call('previewImport', { params: { id: status.id }, body: {} }).then(
        (answer) => {
          setPreview(answer as unknown as PreviewView);
        },
        () => undefined,
      );
    }, COUNT_MS);
    return () => {
      clearInterval(timer);
    };
  }, [counting, busy, status.id]);
  const shown = useMemo(() => (preview?.rows ?? []).filter((row) => kind === null || row.plan.kind === kind), [preview, kind]);
  if (!preview || running || status.state === 'done') return <Progress status={status} />;

  const matching = preview.columns.map((column) => column.target);
  const change = (column: number, target: Target): void => {
    const next = matching.map((old, i) =>
      i === column ? target : target !== 'note' && target !== 'leave out' && old === target ? 'leave out' : old,
    );
    setBusy(true);
    call('previewImport', { params: { id: status.id }, body: { matching: next } }).then(
      (answer) => {
        setPreview(answer as unknown as PreviewView);
        setProblem(null);
        setBusy(false);
      },
      (error: unknown) => {
        setProblem(sayProblem(error));
        setBusy(false);
      },
    );
  };
  const take = (): void => {
    setBusy(true);
    call('startImport', { params: { id: status.id }, body: { matching, flowId: flowId === '' ? null : flowId } }).then(
      () => {
        router.refresh();
      },
      (error: unknown) => {
        setProblem(sayProblem(error));
        setBusy(false);
      },
    );
  };
  const counts = preview.counts ?? countsOf(preview.rows);
  const counted = preview.counts === null ? preview.rows.length : status.total;
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
              {plural(status.total, 'row')} · {DELIMITER[preview.table.delimiter]} · {preview.table.encoding} ·{' '}
              {preview.table.headingRow === 0 ? 'no headings: every row is taken as one' : `heading in row ${preview.table.headingRow}`}
              {status.says.length === 0 ? '' : ` · ${status.says.join(' · ')}`}
              {status.matchingFrom === null ? '' : ` · columns as in “${status.matchingFrom}”, which had the same headings`}
            </span>
          </>
        }
      >
        <Button component={Link} href="/sources">
          Cancel
        </Button>
        <Button variant="contained" disabled={!mayTakeIn || busy || takes === 0} onClick={take}>
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
        <section className="col paper grow" aria-label="Columns">
          <div className="bar">
            <h2 className="grow">What the columns mean</h2>
            <span className="quiet">guessed from headings and contents · kept for lists with these headings</span>
          </div>
          <table className="plain">
            <tbody>
              {preview.columns.map((column, i) => (
                <tr key={`${column.heading} ${i}`}>
                  <td css={placed({ width: '36%', padding: '8px 8px 8px 20px', maxWidth: 0 })}>
                    <div className="strong">{column.heading}</div>
                    <div className="quiet small cut">{column.samples.join(' · ') || '–'}</div>
                  </td>
                  <td css={placed({ width: 24 })} className="quiet" aria-hidden>
                    →
                  </td>
                  <td css={placed({ width: 196 })}>
                    <Select
                      value={column.target}
                      disabled={!mayTakeIn || busy}
                      onChange={(event) => {
                        change(i, event.target.value);
                      }}
                      inputProps={{ 'aria-label': `${column.heading} is` }}
                      sx={{ width: 188 }}
                    >
                      {targetsOf(fields).map((target) => (
                        <MenuItem key={target} value={target}>
                          {targetLabel(target, fields)}
                        </MenuItem>
                      ))}
                    </Select>
                  </td>
                  <td className="quiet small">
                    <span
                      css={placed({
                        color: column.target === 'leave out' ? 'var(--edge)' : column.sure ? 'var(--w4)' : 'var(--brass-mark)',
                      })}
                      aria-hidden
                    >
                      ●{' '}
                    </span>
                    {column.why}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
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
            {KINDS.map((entry) => (
              <i
                key={entry.kind}
                css={placed({ width: `${(counts[entry.kind] / Math.max(1, counted)) * 100}%`, background: entry.tone })}
              />
            ))}
          </div>
          {KINDS.map((entry) => (
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
                    setKind(kind === entry.kind ? null : entry.kind);
                    setAt(0);
                  }}
                >
                  {kind === entry.kind ? 'show all' : 'show'}
                </button>
              ) : null}
            </div>
          ))}
          {counts.refused > 0 ? (
            <p className="small" css={placed({ padding: '6px 0 0' })}>
              <a href={`/api/v1/imports/${status.id}/refused.csv`}>The {plural(counts.refused, 'refused row')} as a file</a>{' '}
              <span className="quiet">with the reason, to be mended and brought again</span>
            </p>
          ) : null}
          <RowCard rows={shown} at={Math.min(at, Math.max(0, shown.length - 1))} onMove={setAt} total={status.total} />
          <h2 css={placed({ margin: '16px 0 6px' })}>Then</h2>
          <div css={placed({ display: 'flex', gap: 8, alignItems: 'center' })}>
            start{' '}
            <Select
              value={flowId}
              displayEmpty
              onChange={(event) => {
                setFlowId(event.target.value);
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
                for the <b>{preview.counts === null ? 'all' : takes.toLocaleString('en-GB')}</b> taken in
              </span>
            )}
          </div>
        </aside>
      </div>
    </>
  );
}

function countsOf(rows: PreviewView['rows']): Counts {
  const count = (kind: Row): number => rows.filter((row) => row.plan.kind === kind).length;
  return {
    new: count('new'),
    known: count('known'),
    perhaps: count('perhaps'),
    refused: count('refused'),
    newCompanies: rows.filter((row) => row.plan.newCompany).length,
  };
}
type Row = (typeof KINDS)[number]['kind'];

function explain(kind: Row, preview: PreviewView, counts: Counts): string {
  const reasons = new Map<string, number>();
  for (const row of preview.rows)
    if (row.plan.kind === kind) {
      const why = row.plan.why.replace(/ \d+$/, '').replace(/^perhaps .+ \(.+\)$/, '');
      reasons.set(why, (reasons.get(why) ?? 0) + 1);
    }
  if (kind === 'new') return `with ${plural(counts.newCompanies, 'new company', 'new companies')}`;
  if (kind === 'perhaps') return 'the flow’s match line asks on the desk';
  const listed = [...reasons]
    .sort((a, b) => b[1] - a[1])
    .map(([why, count]) => `${why} ${count}`)
    .join(' · ');
  return listed || 'none';
}

function Progress({ status }: { readonly status: Props['status'] }) {
  const share = status.total === 0 ? 0 : status.doneRows / status.total;
  const done = status.state === 'done';
  return (
    <>
      <TopBar path={<Link href="/sources">Sources</Link>} title={status.label} tags={<Tag>{status.fileName}</Tag>}>
        {status.flowId ? (
          <Button component={Link} href={`/flows/${status.flowId}`} variant="contained">
            Open the flow
          </Button>
        ) : null}
      </TopBar>
      <div className="cols">
        <section className="col paper grow" css={placed({ padding: 24 })}>
          <h2 role="status">
            {done
              ? `Taken in: ${plural(status.total, 'row')}`
              : `Taking in ${status.doneRows.toLocaleString('en-GB')} of ${plural(status.total, 'row')} …`}
          </h2>
          <div css={placed({ height: 10, background: 'var(--line2)', margin: '10px 0 16px', maxWidth: 520 })}>
            <div css={placed({ height: 10, width: `${(done ? 1 : share) * 100}%`, background: 'var(--w4)' })} />
          </div>
          {done ? (
            <table className="plain" css={placed({ maxWidth: 520 })}>
              <tbody>
                {KINDS.map((entry) => (
                  <tr key={entry.kind}>
                    <td>{entry.label}</td>
                    <td className="right strong">{status.counts[entry.kind] ?? 0}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          ) : (
            <p className="quiet">You can leave this page: the worker goes on by itself.</p>
          )}
          {done && (status.counts.refused ?? 0) > 0 ? (
            <p css={placed({ marginTop: 14 })}>
              <a href={`/api/v1/imports/${status.id}/refused.csv`}>Refused rows as a file</a>{' '}
              <span className="quiet">with the reason, to be mended and brought again</span>
            </p>
          ) : null}
          {done ? (
            <p css={placed({ marginTop: 14 })}>
              <Link href="/records">See the people</Link> · <Link href="/">Go to the desk</Link>
            </p>
          ) : null}
        </section>
      </div>
    </>
  );
}
