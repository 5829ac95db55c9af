/** @jsxImportSource @emotion/react */
'use client';
import dynamic from 'next/dynamic';
import { Button, TextField } from '@mui/material';
import Link from '../../kit/Link';
import { useRouter } from 'next/navigation';
import { Suspense, use, useEffect, useMemo, useState } from 'react';
import { plural } from '../../../core/base';
import type { Library } from '../../../core/flow/check';
import type { Forecast } from '../../../core/forecast';
import { call, sayProblem } from '../../client';
import { euro, localText } from '../../kit/format';
import { Notice, TopBar } from '../../kit/parts';
import { differences } from '../state/differences';
import { FIRST_LIMITS, readLimits, stations, type ChangedTrip } from '../state/release';
import { readScript, type ScriptRow } from '../state/script';
import { WasExpected, type WasExpectedView } from './WasExpected';
import './flows.css';
import './release.css';
import { ForecastRibbon } from './ForecastRibbon';
import { Points, type Point } from './Points';
import { ReleaseLimits } from './ReleaseLimits';
import { shortDay } from './days';
import { Versions, type VersionView } from './Versions';
import { WhatWouldChange } from './WhatWouldChange';
import type { Answer } from '../../../api';
import { placed } from '../../kit/placed';

/** The plotting library comes when the rest of the page stands. */
const SendsChart = dynamic(() => import('./SendsChart').then((module) => module.SendsChart), { ssr: false });

type DraftForecast = Forecast & { readonly from: { readonly trials: number; readonly trips: number }; readonly sendsPerDay: number };
interface Props {
  readonly flow: {
    readonly id: string;
    readonly draftText: string;
    readonly liveNo: number | null;
    readonly liveText: string | null;
    readonly underWay: number;
    readonly cameBefore: Answer<'getCameBefore'>['cameBefore'];
  };
  readonly library: Library;
  readonly tried: boolean;
  readonly forecast: DraftForecast;
  /** comes after the rest: hundreds of trips are run again for it */
  readonly changes: Promise<{ readonly trips: readonly ChangedTrip[] } | null>;
  readonly judged: WasExpectedView | null;
  readonly versions: readonly VersionView[];
  readonly now: number;
  readonly zone: string;
  readonly mayRelease: boolean;
}

const AGAIN_AFTER_MS = 400;
const whole = (value: number): string => Math.round(value).toLocaleString('en-GB');
const span = (low: string, high: string): string => (low === high ? 'sure' : `${low} – ${high}`);

function Compared({ changes, rows }: Pick<Props, 'changes'> & { readonly rows: readonly ScriptRow[] }) {
  const known = use(changes);
  return known ? <WhatWouldChange trips={known.trips} rows={rows} /> : null;
}

/** What releasing means before it is done: the forecast, what would change, what is still open, and how it begins. */
export function Release({ flow, library, tried, forecast: first, changes, judged, versions, now, zone, mayRelease }: Props) {
  const draft = useRelease(flow, library, first, localText(now, zone));
  const { records, setRecords, wanted, expected, busy, problem, problems, ask, script, errors, release } = draft;
  return (
    <>
      <TopBar
        path={
          <>
            <Link href="/flows">Flows</Link> <span aria-hidden>&nbsp;/</span> <Link href={`/flows/${flow.id}`}>{script.name}</Link>
          </>
        }
        title={flow.liveNo === null ? 'First release' : `Release as live ${flow.liveNo + 1}`}
      >
        <Button component={Link} href={`/flows/${flow.id}`}>
          Back to the script
        </Button>
        <Button variant="contained" disabled={!mayRelease || busy || errors > 0 || Object.keys(problems).length > 0} onClick={release}>
          {errors > 0 ? 'Mend the errors first' : ask.firstN !== undefined ? `Make it live for ${ask.firstN}, then ask me` : 'Make it live'}
        </Button>
      </TopBar>
      {problem ? <Notice>{problem}</Notice> : null}
      <div className="cols">
        <section className="col paper grow release" aria-label="What it will bring">
          <div className="head">
            <h2>
              If it ran on{' '}
              <TextField
                value={records}
                onChange={(event) => {
                  setRecords(event.target.value);
                }}
                error={wanted === null}
                css={placed({ width: 84 })}
                slotProps={{ htmlInput: { 'aria-label': 'Records the forecast is for', inputMode: 'numeric' } }}
              />{' '}
              records
            </h2>
            <span className="quiet small">
              from {plural(expected.from.trials, 'specimen')} and {plural(expected.from.trips, 'earlier trip')} · pale: nine in ten runs
            </span>
          </div>
          <ForecastRibbon stations={stations(script.rows, expected)} />
          <Figures expected={expected} />
          <h2>
            What would change{' '}
            <span className="quiet small">{flow.liveNo === null ? 'nothing is live yet' : `this draft against live ${flow.liveNo}`}</span>
          </h2>
          <Suspense
            fallback={
              <p className="quiet" role="status">
                The last trips are being run again by this draft …
              </p>
            }
          >
            <Compared changes={changes} rows={script.rows} />
          </Suspense>
          <TextsDiffer flow={flow} />
          {judged && judged.records > 0 ? <WasExpected judged={judged} liveText={flow.liveText ?? ''} /> : null}
        </section>
        <HowItBegins flow={flow} draft={draft} tried={tried} versions={versions} zone={zone} mayRelease={mayRelease} />
      </div>
    </>
  );
}

function useRelease(flow: Props['flow'], library: Library, first: DraftForecast, now: string) {
  const router = useRouter();
  const [limits, setLimits] = useState(FIRST_LIMITS);
  const [records, setRecords] = useState(String(first.records));
  const [expected, setExpected] = useState(first);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const script = useMemo(() => readScript(flow.draftText, library), [flow.draftText, library]);
  const { problems, ask } = readLimits(limits, now);
  const wanted = /^[1-9]\d{0,5}$/.test(records.trim()) ? Number(records) : null;
  const { dailyLimit } = ask;
  useEffect(() => {
    if (wanted === null) return;
    const timer = setTimeout(() => {
      call('forecastDraft', {
        params: { id: flow.id },
        query: { records: wanted, ...(dailyLimit !== undefined && { beginPerDay: dailyLimit }) },
      }).then(setExpected, (error: unknown) => {
        setProblem(sayProblem(error));
      });
    }, AGAIN_AFTER_MS);
    return () => {
      clearTimeout(timer);
    };
  }, [flow.id, wanted, dailyLimit]);

  const errors = script.findings.filter((finding) => finding.severity === 'error').length;
  const act = (work: Promise<unknown>): void => {
    setBusy(true);
    setProblem(null);
    work.then(
      () => {
        router.push(`/flows/${flow.id}`);
        router.refresh();
      },
      (error: unknown) => {
        setProblem(sayProblem(error));
        setBusy(false);
      },
    );
  };
  const release = (): void => {
    act(call('releaseFlow', { params: { id: flow.id }, body: { ...ask, forecastFor: wanted ?? expected.records } }));
  };
  return { limits, setLimits, records, setRecords, wanted, expected, busy, problem, problems, ask, script, errors, act, release };
}

interface BeginsProps extends Pick<Props, 'flow' | 'tried' | 'versions' | 'zone' | 'mayRelease'> {
  readonly draft: ReturnType<typeof useRelease>;
}
/** The messages of each day, the limits it begins with, what is still open, and earlier versions. */
function HowItBegins({ flow, draft, tried, versions, zone, mayRelease }: BeginsProps) {
  const { expected, script } = draft;
  const points = openPoints(script.findings, tried, expected);
  return (
    <aside className="col release" css={placed({ width: 444, flex: 'none' })} aria-label="How it begins">
      {expected.days.length > 0 ? (
        <>
          <div className="head">
            <h2>Messages a day</h2>
            <span className="quiet small">readers’ office hours</span>
          </div>
          <SendsChart days={expected.days} limit={expected.sendsPerDay} />
        </>
      ) : null}
      <h2>How</h2>
      <ReleaseLimits
        limits={draft.limits}
        problems={draft.problems}
        startsAt={draft.ask.startAt ?? null}
        zone={zone}
        underWay={flow.underWay}
        liveNo={flow.liveNo}
        cameBefore={flow.cameBefore}
        onChange={draft.setLimits}
      />
      <div className="head">
        <h2>Before it can go</h2>
        <span className="quiet small">{plural(points.filter((point) => point.mark !== 'good').length, 'point')} open</span>
      </div>
      <Points points={points} />
      <h2>Versions</h2>
      <Versions
        versions={versions}
        liveNo={flow.liveNo}
        zone={zone}
        mayRelease={mayRelease && !draft.busy}
        onReturn={(version) => {
          draft.act(call('returnToVersion', { params: { id: flow.id }, body: { versionId: version.id } }));
        }}
      />
    </aside>
  );
}

function TextsDiffer({ flow }: Pick<Props, 'flow'>) {
  const texts = flow.liveText === null ? [] : differences(flow.liveText, flow.draftText).filter((line) => line.kind !== 'same');
  return (
    <>
      {texts.length > 0 ? (
        <details>
          <summary>{plural(texts.length, 'line')} of text differ</summary>
          <div className="diff" role="region" aria-label="Differences" tabIndex={0}>
            {texts.map((line, i) => (
              <div key={i} className={line.kind}>
                {line.kind === 'new' ? '+ ' : '− '}
                {line.text}
              </div>
            ))}
          </div>
        </details>
      ) : null}
    </>
  );
}

function Figures({ expected }: { readonly expected: DraftForecast }) {
  return (
    <div className="figures">
      <Figure head={euro(expected.costMicro.mid)} range={span(euro(expected.costMicro.low), euro(expected.costMicro.high))}>
        paid to providers
      </Figure>
      <Figure
        head={plural(Math.round(expected.through.mid), 'record')}
        range={span(whole(expected.through.low), whole(expected.through.high))}
      >
        come to the end without being stopped
      </Figure>
      <Figure head={plural(Math.round(expected.sends.mid), 'message')} range={span(whole(expected.sends.low), whole(expected.sends.high))}>
        {expected.sends.mid === 0 ? 'nothing leaves' : 'follow-ups stop at an answer'}
      </Figure>
      <Figure
        head={expected.lastDay ? shortDay(expected.lastDay) : '–'}
        range={expected.firstDay ? `from ${shortDay(expected.firstDay)}` : 'no messages'}
      >
        last message, on working days
      </Figure>
    </div>
  );
}

function Figure({ head, range, children }: { readonly head: string; readonly range: string; readonly children: React.ReactNode }) {
  return (
    <div>
      <div className="figure num">{head}</div>
      <div className="num">{range}</div>
      <div className="quiet small">{children}</div>
    </div>
  );
}

function openPoints(
  findings: readonly { readonly severity: 'error' | 'warning'; readonly message: string }[],
  tried: boolean,
  expected: DraftForecast,
): readonly Point[] {
  const guessed = expected.lines.filter((line) => line.guessed).length;
  return [
    ...findings.map((finding): Point => ({ mark: finding.severity, says: finding.message })),
    ...(findings.length === 0 ? [{ mark: 'good' as const, says: 'the checker finds nothing wrong' }] : []),
    tried
      ? { mark: 'good', says: 'tried on specimens as it stands now' }
      : { mark: 'warning', says: 'not tried since the last change: you may release, but need not' },
    ...(guessed > 0
      ? [{ mark: 'warning' as const, says: `nothing has been seen yet at ${plural(guessed, 'line')}: the forecast guesses there` }]
      : []),
    // The checker refuses a flow in which something leaves without an approval above it.
    { mark: 'good', says: 'every message is asked for before it goes · unsubscribe, do-not-contact and the limit per person always apply' },
  ];
}
