/** @jsxImportSource @emotion/react */
import { useMemo } from 'react';
import { EMPTY_LIBRARY } from '../../../core/flow/check';
import { plural } from '../../../core/base';
import type { Judged } from '../../../core/forecast';
import { sentenceOf } from '../../../core/flow/say';
import { countText } from '../../kit/format';
import { readScript, type ScriptRow } from '../state/script';
import { placed } from '../../kit/placed';

export interface WasExpectedView {
  readonly no: number;
  readonly records: number;
  readonly lines: readonly Judged[];
}
interface Props {
  readonly judged: WasExpectedView;
  readonly liveText: string;
}

const WIDTH = 150;
const nameOf = (row: ScriptRow): string => `${row.kind === 'line' ? `${row.number} ` : ''}${sentenceOf(row.parts)}`;
const count = (value: number): string => countText(Math.round(value));

/** What was expected of the live version, line by line, and what has come about: the range as a bar, the real as a stroke. */
export function WasExpected({ judged, liveText }: Props) {
  const names = useMemo(() => new Map(readScript(liveText, EMPTY_LIBRARY).rows.map((row) => [row.mark, nameOf(row)])), [liveText]);
  const held = judged.lines.filter((line) => line.held).length;
  const most = Math.max(1, ...judged.lines.flatMap((line) => [line.high, line.real]));
  const x = (value: number): number => (value / most) * WIDTH;
  return (
    <details css={placed({ paddingTop: 10 })}>
      <summary className="small">
        Live {judged.no} so far: {plural(judged.records, 'record')} came, and {held} of {plural(judged.lines.length, 'line')}{' '}
        {judged.lines.length === 1 ? 'lies' : 'lie'} inside what was expected
      </summary>
      <table className="plain" css={placed({ marginTop: 6 })}>
        <thead>
          <tr>
            <th>line</th>
            <th className="right">expected</th>
            <th aria-label="expected and real" css={placed({ width: WIDTH + 16 })} />
            <th className="right">came</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {judged.lines.map((line) => (
            <tr key={line.mark}>
              <td className="cut" css={placed({ maxWidth: 220 })}>
                {names.get(line.mark) ?? 'a line that is gone'}
              </td>
              <td className="right quiet">
                {count(line.low) === count(line.high) ? count(line.mid) : `${count(line.low)}–${count(line.high)}`}
              </td>
              <td>
                <svg width={WIDTH} height={14} aria-hidden css={placed({ display: 'block' })}>
                  <rect x={x(line.low)} y={3} width={Math.max(2, x(line.high) - x(line.low))} height={8} fill="var(--w2)" />
                  <rect
                    x={Math.max(0, x(line.real) - 1)}
                    y={0}
                    width={2}
                    height={14}
                    fill={line.held ? 'var(--river-deep)' : 'var(--brick)'}
                  />
                </svg>
              </td>
              <td className="right strong">{count(line.real)}</td>
              <td className={`small ${line.held ? 'in-moss' : 'in-brick'}`}>
                {line.held ? '✓ as expected' : line.real > line.high ? '▲ more' : '▼ fewer'}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
