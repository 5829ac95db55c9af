/** @jsxImportSource @emotion/react */
'use client';
import { Bar, ComposedChart, Line, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import type { PlanTrial } from '../../../api';
import { dayText } from '../../kit/format';
import { placed } from '../../kit/placed';

/** The mailbox's working days to come: what is planned of this plan and of all else, below what it may send. */
export function PlanMonth({ month, name }: { readonly month: PlanTrial['month']; readonly name: string }) {
  if (month === null) return null;
  const { days } = month;
  const planned = days.reduce((sum, { own, others }) => sum + own + others, 0);
  const fullest = days.reduce(
    (most, day) => (day.own + day.others > most.own + most.others ? day : most),
    days[0] ?? { day: '', own: 0, others: 0, limit: 0 },
  );
  const data = days.map(({ day, ...rest }) => ({ ...rest, label: String(Number(day.slice(8))) }));
  return (
    <section aria-label="The month to come">
      <div className="head-row">
        <h2>{month.mailbox}, the month to come</h2>
      </div>
      <div css={placed({ height: 150 })} role="img" aria-label={`${planned} mails planned in ${days.length} working days`}>
        <ResponsiveContainer>
          <ComposedChart data={data} margin={{ top: 6, right: 4, bottom: 0, left: 4 }} barCategoryGap={3}>
            <XAxis
              dataKey="label"
              tickLine={false}
              axisLine={{ stroke: 'var(--edge)' }}
              tick={{ fontSize: 12, fill: 'var(--quiet)' }}
              interval="preserveStartEnd"
              minTickGap={6}
              height={22}
            />
            <YAxis hide />
            <Tooltip
              isAnimationActive={false}
              cursor={{ fill: 'var(--chosen)' }}
              contentStyle={{ background: 'var(--paper)', borderColor: 'var(--line)', fontSize: 13 }}
            />
            <Bar dataKey="own" name={name} stackId="a" fill="var(--river)" isAnimationActive={false} />
            <Bar dataKey="others" name="all else" stackId="a" fill="var(--w2)" isAnimationActive={false} />
            <Line
              dataKey="limit"
              name="limit"
              type="step"
              stroke="var(--brass-mark)"
              strokeDasharray="4 3"
              dot={false}
              isAnimationActive={false}
            />
          </ComposedChart>
        </ResponsiveContainer>
      </div>
      <p className="small quiet" css={placed({ margin: '4px 0 0' })}>
        {planned === 0
          ? 'Nothing is planned yet.'
          : `${planned} planned, most on ${dayText(Date.parse(fullest.day), 'UTC')}: ${fullest.own + fullest.others} of ${fullest.limit}. A day that is full passes on to the next.`}{' '}
        Dark: this plan; pale: all else; dashed: the limit.
      </p>
    </section>
  );
}
