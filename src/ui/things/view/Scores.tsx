/** @jsxImportSource @emotion/react */
'use client';
import { useRef } from 'react';
import type { CardTrial } from '../../../api';
import { plural } from '../../../core/base';
import type { Scorecard } from '../../../core/score';
import { placed } from '../../kit/placed';

interface Props {
  readonly card: Scorecard;
  readonly trial: CardTrial;
  readonly most: number;
  readonly mayChange: boolean;
  readonly onBands: (bands: Scorecard['bands']) => void;
}
const HEIGHT = 140;

/** How all records score, with the bars of the bands on it: a bar is dragged, or moved by the arrow keys. */
export function Scores({ card, trial, most, mayChange, onBands }: Props) {
  const field = useRef<HTMLDivElement>(null);
  const top = Math.max(1, ...trial.bins);
  const bands = [...card.bands].sort((a, b) => b.from - a.from);
  const toneOf = (points: number): string => {
    const at = bands.findIndex((band) => band.from <= points);
    return at === 0 ? 'var(--w4)' : at === bands.length - 1 || at < 0 ? 'var(--line)' : 'var(--w3)';
  };
  const move = (name: string, to: number): void => {
    const from = Math.max(0, Math.min(most, Math.round(to)));
    onBands(card.bands.map((band) => (band.name === name ? { ...band, from } : band)));
  };
  const pointsAt = (x: number): number => {
    const box = field.current?.getBoundingClientRect();
    return box ? ((x - box.left) / box.width) * most : 0;
  };
  return (
    <div className="scores" ref={field}>
      <svg viewBox={`0 0 ${trial.bins.length} ${HEIGHT}`} preserveAspectRatio="none" role="img" aria-label="Records by points">
        {trial.bins.map((n, i) => {
          const height = (n / top) * (HEIGHT - 6);
          return (
            <rect
              key={i}
              x={i + 0.06}
              width={0.88}
              y={HEIGHT - height}
              height={height}
              fill={toneOf(((i + 0.5) / trial.bins.length) * most)}
            >
              <title>{`${Math.round((i / trial.bins.length) * most)} to ${Math.round(((i + 1) / trial.bins.length) * most)}: ${plural(n, 'record')}`}</title>
            </rect>
          );
        })}
      </svg>
      {bands
        .filter((band) => band.from > 0)
        .map((band) => (
          <button
            key={band.name}
            className="bar-handle"
            disabled={!mayChange}
            role="slider"
            aria-label={`${band.name} from`}
            aria-valuenow={band.from}
            aria-valuemin={0}
            aria-valuemax={most}
            css={placed({ left: `${(Math.min(band.from, most) / Math.max(1, most)) * 100}%` })}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
            }}
            onPointerMove={(event) => {
              if (event.currentTarget.hasPointerCapture(event.pointerId)) move(band.name, pointsAt(event.clientX));
            }}
            onKeyDown={(event) => {
              const step = { ArrowLeft: -1, ArrowRight: 1, PageDown: -10, PageUp: 10 }[event.key];
              if (step === undefined) return;
              event.preventDefault();
              move(band.name, band.from + step);
            }}
          >
            <span className="says">{band.name} →</span>
            <span className="at">{band.from}</span>
          </button>
        ))}
    </div>
  );
}
