import { z } from 'zod';
import { isTopic, type Topic } from './topics';

/** What open pages are told while they are looked at; each says only that something is new, the page then asks for it. */
export const liveEventSchema = z.discriminatedUnion('kind', [
  /** what these topics are about has changed */
  z.object({ kind: z.literal('new'), topics: z.array(z.custom<Topic>(isTopic)) }),
  /** a draft was saved */
  z.object({ kind: z.literal('draft'), flowId: z.uuid(), no: z.number().int(), userId: z.uuid().nullable(), name: z.string() }),
  /** somebody has a flow open; said again while it is. Who has just come is answered by those who are there */
  z.object({ kind: z.literal('here'), flowId: z.uuid(), userId: z.uuid(), name: z.string(), arrived: z.boolean() }),
]);
export type LiveEvent = z.infer<typeof liveEventSchema>;
