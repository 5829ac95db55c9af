'use client';
import { Bar, BarChart, ReferenceArea, ReferenceDot, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';

interface Props {
  readonly hours: readonly {
    readonly hour: number;
    readonly sent: number;
    readonly planned: number;
    readonly held: number;
    readonly all: number;
  }[];
  /** the hour that it is, of the same day */
  readonly nowHour: number;
}

/** Sends by the hour: sent, planned and held on each other, office hours shaded, a line where it is now. */
export function HoursChart({ hours, nowHour }: Props) {
  return (
    <ResponsiveContainer>
      <BarChart data={[...hours]} margin={{ top: 18, right: 4, bottom: 0, left: 4 }} barCategoryGap={5}>
        <ReferenceArea x1={9} x2={16} fill="var(--w1)" fillOpacity={0.45} />
        <XAxis
          dataKey="hour"
          tickLine={false}
          axisLine={{ stroke: 'var(--edge)' }}
          tick={{ fontSize: 12, fill: 'var(--quiet)' }}
          interval={0}
          height={22}
        />
        <YAxis hide domain={[0, (max: number) => Math.max(6, max)]} />
        <Bar dataKey="sent" stackId="a" fill="var(--river)" isAnimationActive={false} />
        <Bar dataKey="planned" stackId="a" fill="var(--w2)" isAnimationActive={false} />
        <Bar dataKey="held" stackId="a" fill="var(--plum)" isAnimationActive={false} />
        {hours
          .filter((entry) => entry.all > 0)
          .map((entry) => (
            <ReferenceDot
              key={entry.hour}
              x={entry.hour}
              y={entry.all}
              r={0}
              label={{ value: entry.all, position: 'top', fontSize: 12, fill: 'var(--ink)' }}
            />
          ))}
        <ReferenceLine x={nowHour} stroke="var(--brass-mark)" strokeDasharray="2 3" />
      </BarChart>
    </ResponsiveContainer>
  );
}
