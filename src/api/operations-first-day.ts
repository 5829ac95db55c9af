import { z } from 'zod';
import { GAPS } from '../core/first-day';
import { op, uuid, type View } from './op';

const gap = z.enum(GAPS);
const note = z.object({ stands: z.boolean(), says: z.string() });

const firstDay = z.object({
  name: z.string(),
  country: z.string(),
  zone: z.string(),
  zones: z.array(z.string()).describe('the zones of the country'),
  sells: z.object({ what: z.string(), whom: z.string() }),
  mailbox: z.object({ name: z.string(), address: z.string(), sends: z.boolean() }).nullable(),
  people: z.array(z.object({ name: z.string(), isHere: z.boolean() })),
  pipeline: z.object({ id: uuid, name: z.string(), stages: z.array(z.string()) }).nullable(),
  asked: z.array(z.object({ id: z.string(), label: z.string(), type: z.string() })),
  good: z.array(z.string()),
  offers: z.array(z.string()),
  beside: z.object({ calendars: z.int(), services: z.int(), daysOff: z.int() }),
  notes: z.record(gap, note).describe('what stands beside each gap'),
  possible: z.array(
    z.object({
      id: z.string(),
      title: z.string(),
      says: z.string(),
      gap,
      needs: z.string().describe('what its gap would add; empty: nothing is needed'),
      href: z.string(),
      isPossible: z.boolean(),
    }),
  ),
});
export type FirstDayShape = View<typeof firstDay>;
export type FirstDayGap = (typeof GAPS)[number];

const text = z.string().trim().max(400);
const fill = z.discriminatedUnion('gap', [
  z.object({ gap: z.enum(['name', 'where', 'zone', 'stages', 'asked', 'good']), text: z.string().trim().min(1).max(400) }),
  z.object({ gap: z.literal('sells'), what: text, whom: text }),
]);
export type FirstDayFill = View<typeof fill>;

/** The first day's letter. */
export const FIRST_DAY_OPERATIONS = {
  getFirstDay: op({
    method: 'GET',
    path: '/first-day',
    summary: 'What the workspace has said of itself, what is possible with that, and what each gap would add.',
    needs: 'look',
    answer: firstDay,
  }),
  readFirstDay: op({
    method: 'POST',
    path: '/first-day/read',
    changes: [],
    summary: 'What a gap’s words would be understood as. Nothing is kept.',
    needs: 'look',
    body: fill,
    answer: z.object({ ok: z.boolean(), says: z.array(z.string()) }),
  }),
  fillFirstDay: op({
    method: 'POST',
    path: '/first-day',
    changes: ['everything'],
    summary: 'Fill a gap: it is kept where it belongs, as a field, a question, stages, a scorecard or a setting.',
    needs: 'edit flows',
    body: fill,
    answer: firstDay,
  }),
};
