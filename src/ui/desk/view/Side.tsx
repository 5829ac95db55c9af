/** @jsxImportSource @emotion/react */
'use client';
import dynamic from 'next/dynamic';
import Link from '../../kit/Link';
import { plural } from '../../../core/base';
import { countText, euro } from '../../kit/format';
import { placed } from '../../kit/placed';

export interface SendsView {
  readonly hours: readonly { readonly hour: number; readonly sent: number; readonly planned: number; readonly held: number }[];
  readonly from: number;
  readonly zone: string;
  readonly limit: number;
}
export interface LiveFlow {
  readonly id: string;
  readonly name: string;
  readonly live: boolean;
  readonly counts: { readonly underWay: number; readonly asking: number; readonly stuck: number; readonly costMicro: number } | null;
  /** how many of the last day got to each line or beyond */
  readonly widths: readonly number[];
}

export interface LatelyView {
  readonly answers: readonly { readonly kind: string; readonly count: number }[];
  readonly people: number;
  readonly companies: number;
  readonly deals: number;
}

/** The plotting library comes when the rest of the page stands. */
const HoursChart = dynamic(() => import('./HoursChart').then((module) => module.HoursChart), { ssr: false });

const HOUR = 3_600_000;
const FIRST = 7;
const LAST = 18;

interface Props {
  readonly sends: SendsView;
  readonly flows: readonly LiveFlow[];
  readonly lately: LatelyView;
  readonly now: number;
}

/** Today's sends by the hour, every flow in one line, and the last day in words. */
export function Side({ sends, flows, lately, now }: Props) {
  const hours = Array.from({ length: LAST - FIRST + 1 }, (_, i) => {
    const at = sends.from + (FIRST + i) * HOUR;
    const found = sends.hours.find((entry) => entry.hour === at);
    return {
      hour: FIRST + i,
      sent: found?.sent ?? 0,
      planned: found?.planned ?? 0,
      held: found?.held ?? 0,
      all: (found?.sent ?? 0) + (found?.planned ?? 0) + (found?.held ?? 0),
    };
  });
  const sum = (key: 'sent' | 'planned' | 'held'): number => hours.reduce((total, entry) => total + entry[key], 0);
  return (
    <div css={placed({ padding: '10px 16px', display: 'flex', flexDirection: 'column', gap: 10 })}>
      <div css={placed({ display: 'flex' })}>
        <h2 className="grow">Today’s sends</h2>
        <span className="quiet">
          {sum('sent')} sent · {sum('planned')} planned{sum('held') > 0 ? ` · ${sum('held')} held` : ''}
        </span>
      </div>
      <div
        css={placed({ height: 112 })}
        role="img"
        aria-label={`Sends by the hour: ${
          hours
            .filter((entry) => entry.all > 0)
            .map((entry) => `${entry.hour} h ${entry.all}`)
            .join(', ') || 'none today'
        }`}
      >
        <HoursChart hours={hours} nowHour={Math.floor((now - sends.from) / HOUR)} />
      </div>
      <p className="quiet small">shaded: office hours · at least 2 min apart · limit {sends.limit} a day</p>
      <div css={placed({ display: 'flex', marginTop: 6 })}>
        <h2 className="grow">Flows</h2>
        <span className="quiet">last 24 h</span>
      </div>
      {flows.map((flow) => (
        <FlowLine key={flow.id} flow={flow} />
      ))}
      {flows.length === 0 ? <p className="quiet">No flow yet.</p> : null}
      <h2 css={placed({ marginTop: 6 })}>In the last day</h2>
      <p className="quiet">{sayLately(lately)}</p>
    </div>
  );
}

/** "5 answers: 2 interested, 1 out of office" and what was taken in. */
function sayLately({ answers, people, companies, deals }: LatelyView): string {
  const total = answers.reduce((sum, entry) => sum + entry.count, 0);
  const parts = [
    total === 0 ? 'no answers' : `${plural(total, 'answer')}: ${answers.map((entry) => `${entry.count} ${entry.kind}`).join(', ')}`,
    people + companies === 0
      ? 'nobody taken in'
      : `${plural(people, 'new person', 'new people')} and ${plural(companies, 'new company', 'new companies')}`,
    deals === 0 ? 'no deal opened' : `${plural(deals, 'deal')} opened`,
  ];
  return parts.join(' · ');
}

function FlowLine({ flow }: { readonly flow: LiveFlow }) {
  const { widths, counts } = flow;
  const most = Math.max(1, ...widths);
  const step = 104 / Math.max(1, widths.length - 1);
  const half = (n: number): number => (n === 0 ? 0 : 1 + (n / most) * 8);
  const outline = [
    ...widths.map((n, i) => `${(i * step).toFixed(1)},${(10 - half(n)).toFixed(1)}`),
    ...[...widths]
      .map((n, i) => [n, i] as const)
      .reverse()
      .map(([n, i]) => `${(i * step).toFixed(1)},${(10 + half(n)).toFixed(1)}`),
  ].join(' ');
  return (
    <Link
      href={`/flows/${flow.id}`}
      css={placed({
        display: 'flex',
        gap: 12,
        alignItems: 'center',
        padding: '6px 0',
        borderBottom: '1px solid var(--line)',
        textDecoration: 'none',
      })}
    >
      <span className="grow">
        <span className="strong cut" css={placed({ display: 'block' })}>
          {flow.name}
        </span>
        <span className="quiet small" css={placed({ whiteSpace: 'nowrap' })}>
          {flow.live ? `${countText(counts?.underWay ?? 0)} under way` : 'not released'}
          {counts && counts.asking > 0 ? <span className="in-brass"> · {countText(counts.asking)} ask</span> : null}
          {counts && counts.stuck > 0 ? <span className="in-brick"> · {countText(counts.stuck)} stuck</span> : null}
        </span>
      </span>
      <svg width="104" height="20" aria-hidden>
        <polygon points={outline} fill="var(--w3)" />
      </svg>
      <span className="right" css={placed({ width: 84 })}>
        <span className="strong">{euro(counts?.costMicro ?? 0)}</span>
        <span className="quiet small" css={placed({ display: 'block' })}>
          cost today
        </span>
      </span>
    </Link>
  );
}
