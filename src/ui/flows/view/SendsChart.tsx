'use client';
import { Bar, BarChart, ErrorBar, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { shortDay, type SendDay } from './days';

/** More bars than this cannot be told apart. */
const MOST_BARS = 60;

/** Messages a day: the middle as a bar, the range as a line, the mailboxes’ limit above. */
export function SendsChart({ days, limit }: { readonly days: readonly SendDay[]; readonly limit: number }) {
  const shown = days.slice(0, MOST_BARS).map((entry) => ({
    day: shortDay(entry.day),
    mid: entry.sends.mid,
    range: [entry.sends.mid - entry.sends.low, entry.sends.high - entry.sends.mid] as [number, number],
  }));
  const top = Math.max(1, ...days.map((entry) => entry.sends.high));
  const nearLimit = top >= limit * 0.7;
  return (
    <div role="img" aria-label={`Messages a day from ${shown[0]?.day ?? ''} to ${shown.at(-1)?.day ?? ''}, at most ${top} a day`}>
      <ResponsiveContainer width="100%" height={112}>
        <BarChart data={shown} margin={{ top: 14, right: 4, bottom: 0, left: 0 }} barCategoryGap={2}>
          <XAxis
            dataKey="day"
            tickLine={false}
            axisLine={{ stroke: 'var(--edge)' }}
            tick={{ fill: 'var(--quiet)', fontSize: 12 }}
            interval="preserveStartEnd"
            minTickGap={40}
          />
          <YAxis hide domain={[0, nearLimit ? limit * 1.05 : top * 1.1]} />
          {nearLimit ? (
            <ReferenceLine
              y={limit}
              stroke="var(--brass-mark)"
              strokeDasharray="4 3"
              label={{ value: `limit ${limit} a day`, position: 'insideBottomRight', fill: 'var(--brass)', fontSize: 12 }}
            />
          ) : null}
          <Bar dataKey="mid" fill="var(--w3)" isAnimationActive={false} maxBarSize={22}>
            <ErrorBar dataKey="range" width={0} stroke="var(--river-deep)" />
          </Bar>
        </BarChart>
      </ResponsiveContainer>
      {days.length > MOST_BARS ? <p className="quiet small">{days.length - MOST_BARS} more days follow.</p> : null}
    </div>
  );
}
