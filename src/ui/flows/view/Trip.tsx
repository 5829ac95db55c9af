/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import Link from '../../kit/Link';
import { useRouter } from 'next/navigation';
import { Fragment, useMemo, useState } from 'react';
import { EMPTY_LIBRARY } from '../../../core/flow/check';
import type { Fact } from '../../../core/facts';
import { call, sayProblem } from '../../client';
import { clockText, dayText, dayTimeText, euro, sameDay, tookText } from '../../kit/format';
import { Notice, TopBar } from '../../kit/parts';
import { readScript, type LineRow } from '../state/script';
import { OUTCOME_GLYPH } from '../state/specimen';
import type { Entry, SpecimenTrip } from '../state/types';
import { AtLine } from './AtLine';
import './flows.css';
import { Sentence } from './Sentence';
import { StateTag } from './Trips';
import { placed } from '../../kit/placed';

interface Props {
  readonly trip: {
    readonly id: string;
    readonly flowId: string;
    readonly flowName: string;
    readonly versionNo: number | null;
    readonly personId: string;
    readonly personName: string;
    readonly companyName: string | null;
    readonly state: string;
    readonly why: string;
    readonly costMicro: number;
  };
  readonly text: string;
  readonly journal: readonly (Entry & { readonly at: number })[];
  readonly facts: readonly Fact[];
  readonly zone: string;
  readonly mayDeal: boolean;
}

const CHOICES = ['try again', 'skip the line', 'end'] as const;

/** One trip, line by line: the script of its version with what happened at each line, and why. */
export function Trip({ trip, text, journal, facts, zone, mayDeal }: Props) {
  const script = useMemo(() => readScript(text, EMPTY_LIBRARY), [text]);
  const lines = script.rows.filter((row): row is LineRow => row.kind === 'line');
  const last = journal.at(-1);
  const [chosen, setChosen] = useState<number | undefined>(last?.seq);
  const [problem, setProblem] = useState<string | null>(null);
  const specimen: SpecimenTrip = { ...trip, title: trip.personName, journal, facts };
  const entry = journal.find((item) => item.seq === chosen);
  const lineOf = (mark: string): LineRow | undefined => lines.find((row) => row.mark === mark);
  const row = entry ? lineOf(entry.mark) : undefined;
  return (
    <>
      <TopBar
        path={<Link href={`/flows/${trip.flowId}/trips`}>{trip.flowName}</Link>}
        title={trip.personName}
        tags={
          <>
            <span className="quiet cut">{trip.companyName}</span>
            <StateTag state={trip.state} />
            <span className="quiet">
              on live {trip.versionNo} · {euro(trip.costMicro)}
            </span>
          </>
        }
      >
        {mayDeal ? <TripDeeds trip={trip} last={last} onProblem={setProblem} /> : null}
        <Button component={Link} href={`/records/people/${trip.personId}`}>
          The record
        </Button>
      </TopBar>
      {problem ? <Notice>{problem}</Notice> : null}
      {trip.state === 'stuck' ? <Notice>Stuck: {trip.why}. Nothing was lost; choose what to do.</Notice> : null}
      <div className="cols">
        <section className="col paper" css={placed({ flex: '1 1 auto' })} aria-label="Journal">
          <JournalTable journal={journal} lineOf={lineOf} chosen={chosen} onChoose={setChosen} zone={zone} />
          {journal.length === 0 ? <p className="empty">Nothing has happened yet: the worker takes this trip up in a moment.</p> : null}
        </section>
        <aside className="col" css={placed({ flex: '0 0 410px', padding: '10px 16px' })} aria-label="At this line">
          {entry ? (
            <>
              <h2 css={placed({ paddingBottom: 8 })}>
                {row ? `Line ${row.number}` : ''} <span className="quiet">{entry.verb}</span>
              </h2>
              <AtLine trip={specimen} entry={entry} verb={entry.verb} />
            </>
          ) : null}
        </aside>
      </div>
    </>
  );
}

interface DeedsProps extends Pick<Props, 'trip'> {
  readonly last: Entry | undefined;
  readonly onProblem: (says: string) => void;
}
/** What a person can do with a trip that stopped or is stuck. */
function TripDeeds({ trip, last, onProblem }: DeedsProps) {
  const router = useRouter();
  const choose = (choice: (typeof CHOICES)[number]): void => {
    call('chooseTrips', { body: { tripIds: [trip.id], choice } }).then(
      () => {
        router.refresh();
      },
      (error: unknown) => {
        onProblem(sayProblem(error));
      },
    );
  };
  const letThrough = (): void => {
    call('letThrough', { params: { id: trip.id }, body: {} }).then(
      () => {
        router.push(`/flows/${trip.flowId}/trips`);
      },
      (error: unknown) => {
        onProblem(sayProblem(error));
      },
    );
  };
  return (
    <>
      {trip.state === 'stopped' && last && Array.isArray(last.detail.verdicts) && last.detail.verdicts.length > 0 ? (
        <Button
          variant="contained"
          title="Begins the flow again with what it came with; what spoke against it speaks against nobody any more"
          onClick={() => {
            letThrough();
          }}
        >
          Let through
        </Button>
      ) : null}
      {trip.state === 'stuck'
        ? CHOICES.map((choice) => (
            <Button
              key={choice}
              variant={choice === 'try again' ? 'contained' : 'outlined'}
              onClick={() => {
                choose(choice);
              }}
            >
              {choice[0]?.toUpperCase()}
              {choice.slice(1)}
            </Button>
          ))
        : null}
    </>
  );
}

interface JournalProps extends Pick<Props, 'journal' | 'zone'> {
  readonly lineOf: (mark: string) => LineRow | undefined;
  readonly chosen: number | undefined;
  readonly onChoose: (seq: number) => void;
}
/** What happened, line by line, a day over those of it. */
function JournalTable({ journal, lineOf, chosen, onChoose, zone }: JournalProps) {
  return (
    <table className="plain" css={placed({ tableLayout: 'fixed' })}>
      <colgroup>
        <col css={placed({ width: 46 })} />
        <col css={placed({ width: '33%' })} />
        <col />
        <col css={placed({ width: 60 })} />
        <col css={placed({ width: 60 })} />
        <col css={placed({ width: 66 })} />
      </colgroup>
      <thead>
        <tr>
          <th className="right">line</th>
          <th>what it says</th>
          <th>what happened</th>
          <th className="right">cost</th>
          <th className="right">took</th>
          <th className="right">when</th>
        </tr>
      </thead>
      <tbody>
        {journal.map((item, i) => {
          const line = lineOf(item.mark);
          const { glyph, tone } = OUTCOME_GLYPH[item.outcome];
          const before = journal[i - 1];
          return (
            <Fragment key={item.seq}>
              {before === undefined || !sameDay(before.at, item.at, zone) ? (
                <tr>
                  <td />
                  <td colSpan={5} className="quiet small">
                    {dayText(item.at, zone)}
                  </td>
                </tr>
              ) : null}
              <tr
                className={`go ${item.seq === chosen ? 'on' : ''}`}
                onClick={() => {
                  onChoose(item.seq);
                }}
              >
                <td className="right quiet">{line?.number ?? ''}</td>
                <td className="cut">{line ? <Sentence parts={line.parts} /> : item.verb}</td>
                <td className="cut" title={item.says}>
                  <button
                    className="linkish cut"
                    css={placed({ textDecoration: 'none', color: 'inherit', maxWidth: '100%', verticalAlign: 'bottom' })}
                    onClick={() => {
                      onChoose(item.seq);
                    }}
                  >
                    <span className={tone}>{glyph}</span> {item.says}
                  </button>
                </td>
                <td className="right quiet">{item.costMicro > 0 ? euro(item.costMicro) : ''}</td>
                <td className="right quiet">{item.tookMs > 0 ? tookText(item.tookMs) : ''}</td>
                <td className="right quiet" css={placed({ whiteSpace: 'nowrap' })}>
                  <time title={dayTimeText(item.at, zone)}>{clockText(item.at, zone)}</time>
                </td>
              </tr>
            </Fragment>
          );
        })}
      </tbody>
    </table>
  );
}
