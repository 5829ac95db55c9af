import { z } from 'zod';
import { op, type View } from './op';
import * as s from './schemas';

const view = z.object({
  offers: z.array(
    z.object({ name: z.string(), title: z.string(), about: z.string(), companies: z.number().int(), people: z.number().int() }),
  ),
  here: z
    .object({
      title: z.string(),
      since: s.instant,
      flows: z.array(z.object({ id: z.string(), name: z.string() })),
      goes: z.array(z.string()).describe('what would be taken away'),
      stays: z.array(z.string()).describe('what would stay, since something else uses it'),
    })
    .nullable()
    .describe('the example that is in this workspace'),
});
export type ExampleView = View<typeof view>;

/** A made-up business to look round in, within one's own workspace. */
export const EXAMPLE_OPERATIONS = {
  examples: op({
    method: 'GET',
    path: '/examples',
    summary: 'Examples that can be begun with, and the one that is here.',
    needs: 'look',
    answer: view,
  }),
  beginExample: op({
    method: 'POST',
    path: '/examples/begin',
    changes: ['records', 'flows', 'things', 'settings', 'counts'],
    summary: 'Take an example in: its records, its flow as a draft, and what that names. Nothing of one’s own is changed.',
    needs: 'erase',
    body: z.object({ name: z.string().max(60) }),
    answer: view,
  }),
  removeExample: op({
    method: 'POST',
    path: '/examples/remove',
    changes: ['records', 'flows', 'things', 'settings', 'counts'],
    summary: 'Take the example away, with all that became of it.',
    needs: 'erase',
    body: z.object({}),
    answer: view,
  }),
} as const;
