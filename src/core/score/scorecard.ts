import { z } from 'zod';
import type { DeepReadonly } from '../base';

/** A criterion earns the points of its first level that holds. `whenUnknown`: points when a value it needs is missing. */
const criterionSchema = z.object({
  id: z.string().min(1),
  text: z.string().min(1),
  levels: z.array(z.object({ when: z.string().min(1), points: z.number().nonnegative() })).min(1),
  whenUnknown: z.number().nonnegative().default(0),
});

/** Shape of a scorecard as it is stored and exchanged. Points are any positive numbers; bands are lower bounds, best first. */
export const scorecardSchema = z.object({
  name: z.string().min(1),
  target: z.enum(['person', 'company']),
  criteria: z.array(criterionSchema).min(1),
  disqualifiers: z.array(z.object({ text: z.string().min(1), when: z.string().min(1) })).default([]),
  bands: z.array(z.object({ name: z.string().min(1), from: z.number() })).min(1),
});

export type Scorecard = DeepReadonly<z.infer<typeof scorecardSchema>>;
export type Criterion = Scorecard['criteria'][number];
export type Disqualifier = Scorecard['disqualifiers'][number];
export type Band = Scorecard['bands'][number];
