/** @jsxImportSource @emotion/react */
'use client';
import { useRef, type PointerEvent } from 'react';
import type { PlanTrial } from '../../../api';
import type { Channel, FollowUpPlan } from '../../../core/writer';
import { placed } from '../../kit/placed';
import { CHANNEL_GLYPHS, CHANNEL_WORDS, keysOf, lanesOf, rowsFor, spanOf, stillWaiting } from '../state/plan';
import './plan.css';

interface Props {
  readonly plan: FollowUpPlan;
  readonly channelAt: (text: string) => Channel;
  readonly measured: PlanTrial['measured'];
  /** which touch is spoken of above */
  readonly chosen: number;
  readonly mayChange: boolean;
  readonly onChoose: (at: number) => void;
  /** puts a touch on another day and says where it stands then */
  readonly onMove: (at: number, day: number) => number;
}

/** The touches of a plan by working day, a lane for each channel: dragged, or moved by the arrow keys; below them who still waits. */
export function PlanAxis(props: Props) {
  const { plan, channelAt, measured } = props;
  const span = spanOf(plan);
  const keys = keysOf(plan);
  const every = span > 60 ? 10 : span > 24 ? 5 : 1;
  return (
    <div className="plan-axis" role="group" aria-label="Touches by working day">
      {lanesOf(plan, channelAt).map((channel) => (
        <div key={channel} className="plan-lane">
          <span className="lane-name">
            <span aria-hidden>{CHANNEL_GLYPHS[channel]}</span> {CHANNEL_WORDS[channel]}
          </span>
          <Lane {...props} channel={channel} span={span} keys={keys} />
        </div>
      ))}
      <div className="plan-lane plan-days">
        <span className="lane-name quiet">working day</span>
        <div className="lane-line">
          {Array.from({ length: Math.floor(span / every) + 1 }, (_, i) => i * every).map((day) => (
            <span
              key={day}
              className={plan.touches.some((touch) => touch.day === day) ? 'day strong' : 'day quiet'}
              css={placed({ left: `${(day / span) * 100}%` })}
            >
              {day}
            </span>
          ))}
        </div>
      </div>
      <Waiting plan={plan} span={span} measured={measured} />
    </div>
  );
}

type LaneProps = Props & { readonly channel: Channel; readonly span: number; readonly keys: readonly string[] };
function Lane({ plan, channelAt, chosen, mayChange, onChoose, onMove, channel, span, keys }: LaneProps) {
  const line = useRef<HTMLDivElement>(null);
  const held = useRef<number | null>(null);
  const own = plan.touches.flatMap((touch, at) => (channelAt(touch.template) === channel ? [{ touch, at }] : []));
  const dayUnder = (event: PointerEvent): number => {
    const box = line.current?.getBoundingClientRect();
    return box ? ((event.clientX - box.left) / box.width) * span : 0;
  };
  return (
    <div className="lane-line" ref={line}>
      {own.map(({ touch, at }, i) => {
        const until = own[i + 1]?.touch.day ?? span;
        return (
          <button
            key={keys[at]}
            className={at === chosen ? 'touch chosen' : 'touch'}
            aria-pressed={at === chosen}
            aria-label={`${touch.template}, ${channel} on working day ${touch.day}`}
            css={placed({ left: `${(touch.day / span) * 100}%`, width: `${(Math.max(1, until - touch.day) / span) * 100}%` })}
            onClick={() => {
              onChoose(at);
            }}
            onPointerDown={(event) => {
              onChoose(at);
              if (!mayChange || at === 0) return;
              held.current = at;
              event.currentTarget.setPointerCapture(event.pointerId);
            }}
            onPointerMove={(event) => {
              if (held.current === null) return;
              const day = Math.round(dayUnder(event));
              if (day !== plan.touches[held.current]?.day) held.current = onMove(held.current, day);
            }}
            onPointerUp={() => {
              held.current = null;
            }}
            onKeyDown={(event) => {
              const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
              if (by === 0 || !mayChange || at === 0) return;
              event.preventDefault();
              onMove(at, touch.day + by);
            }}
          >
            <span className="dot" aria-hidden />
            <span className="touch-name">
              <span className="strong">{touch.template}</span>
              <span className="quiet small">{conditionsOf(touch)}</span>
            </span>
          </button>
        );
      })}
    </div>
  );
}

const conditionsOf = ({ otherwise, when }: FollowUpPlan['touches'][number]): string =>
  [when === undefined || when.trim() === '' ? '' : `only when ${when}`, otherwise === undefined ? '' : `else ${otherwise}`]
    .filter((part) => part !== '')
    .join(' · ');

const HIGH = 56;
/** Where the words of what came of a touch end, in its row, in pixels. */
const CAME_TOP = 82;
const CAME_HIGH = 20;
const percent = (part: number, of: number): string => `${Math.round((part / of) * 100)} %`;

/** To scale: those who still wait before each touch, and what came of it. */
function Waiting({ plan, span, measured }: Pick<Props, 'plan' | 'measured'> & { readonly span: number }) {
  const shares = measured.length === plan.touches.length ? stillWaiting(measured) : undefined;
  const all = measured[0]?.reached ?? 0;
  if (!shares)
    return (
      <p className="quiet small" css={placed({ margin: '6px 0 0 128px' })}>
        Nobody has been reached by it yet: who waits and who answers stands here then.
      </p>
    );
  const x = (day: number): number => (day / span) * 100;
  const rows = rowsFor(plan.touches.map(({ day }, i) => ((measured[i]?.reached ?? 0) === 0 ? null : x(day))));
  const points = plan.touches.flatMap(({ day }, i) => {
    const height = HIGH * (1 - (shares[i] ?? 0));
    const next = plan.touches[i + 1]?.day ?? span;
    return [`${x(day)},${height}`, `${x(next)},${height}`];
  });
  return (
    <div className="plan-lane plan-waiting">
      <span className="lane-name">
        Still waiting
        <span className="quiet small">of {all} reached</span>
      </span>
      <div className="lane-line" css={placed({ height: CAME_TOP + CAME_HIGH * (1 + Math.max(0, ...rows)) })}>
        <svg viewBox={`0 0 100 ${HIGH}`} preserveAspectRatio="none" aria-hidden>
          <polygon points={`0,${HIGH} ${points.join(' ')} 100,${HIGH}`} />
        </svg>
        {plan.touches.map(({ day, template }, i) => {
          const figures = measured[i];
          if (!figures || figures.reached === 0) return null;
          return (
            <div
              key={`${template} ${day}`}
              className="came"
              css={placed({ left: `${x(day)}%`, height: CAME_TOP + (rows[i] ?? 0) * CAME_HIGH })}
            >
              <span className="strong">{percent(shares[i] ?? 0, 1)}</span>
              <span className="small">{cameOf(figures)}</span>
            </div>
          );
        })}
      </div>
    </div>
  );
}

/** “11 of 96 answer, 2 bounce” */
function cameOf({ reached, answered, bounced, unsubscribed }: PlanTrial['measured'][number]): string {
  const also = [bounced > 0 ? `${bounced} bounce` : '', unsubscribed > 0 ? `${unsubscribed} want none` : ''].filter((part) => part !== '');
  return [`${answered} of ${reached} answer`, ...also].join(', ');
}
