import { z } from 'zod';
import type { DeepReadonly } from '../../base';
import { ownFieldSchema } from '../../fields';
import { chainSchema } from '../../lookup';
import { scorecardSchema } from '../../score';
import { planSchema, templateSchema } from '../../writer';

/** The way of a deal: its stages in their order. */
export const pipelineSchema = z.object({ name: z.string(), stages: z.array(z.string().max(60)).max(30) });
export type Pipeline = DeepReadonly<z.infer<typeof pipelineSchema>>;

/** The named things a flow may speak of. A released version keeps its own copy, so that trips under way finish on it. */
export const librarySchema = z.object({
  scorecards: z.array(scorecardSchema),
  templates: z.array(templateSchema),
  plans: z.array(planSchema),
  chains: z.array(chainSchema),
  teams: z.array(z.string()),
  pipelines: z.array(pipelineSchema),
  intakes: z.array(
    z.object({
      kind: z.string(),
      name: z.string(),
      // What comes with each record: lines see it as `entry`.
      answers: z
        .array(z.object({ id: z.string(), type: z.enum(['text', 'number', 'yes/no', 'date']), unit: z.string().optional() }))
        .optional(),
    }),
  ),
  connections: z.array(z.string()),
  // Versions released before these existed have none.
  people: z.array(z.string()).default([]),
  webhooks: z.array(z.string()).default([]),
  openings: z.array(z.object({ name: z.string(), stages: z.array(z.string()) })).default([]),
  // The workspace's own fields, retired ones too.
  fields: z.array(ownFieldSchema).default([]),
});
export type Library = DeepReadonly<z.infer<typeof librarySchema>>;

const { shape } = librarySchema;
const item = <K extends string, S extends z.ZodType>(kind: K, body: S) =>
  z.object({ kind: z.literal(kind), name: z.string().min(1), body });
/** One named thing by itself, as it is kept and as it travels with a flow. */
export const libraryItemSchema = z.discriminatedUnion('kind', [
  item('scorecard', shape.scorecards.element),
  item('template', shape.templates.element),
  item('plan', shape.plans.element),
  item('chain', shape.chains.element),
  item('pipeline', shape.pipelines.element),
  item('intake', shape.intakes.element),
  // Named by its path: `company.vans`.
  item('field', ownFieldSchema),
]);
export type LibraryItem = DeepReadonly<z.infer<typeof libraryItemSchema>>;

/** Things one by one as the parts of a library they belong to. Items that do not fit their schema are refused loudly. */
export function libraryParts(items: readonly { readonly kind: string; readonly body: unknown }[]) {
  const of = (kind: LibraryItem['kind']): unknown[] => items.filter((item) => item.kind === kind).map((item) => item.body);
  return partsSchema.parse({
    scorecards: of('scorecard'),
    templates: of('template'),
    plans: of('plan'),
    chains: of('chain'),
    pipelines: of('pipeline'),
    intakes: of('intake'),
    fields: of('field'),
  });
}
const partsSchema = librarySchema.pick({
  scorecards: true,
  templates: true,
  plans: true,
  chains: true,
  pipelines: true,
  intakes: true,
  fields: true,
});
