/** What trials keep for each other: what was read outside is not read again while the question is the same. */
import { z } from 'zod';
import { stableId } from '../../../core/base';
import type { Answer, Request } from '../../../core/engine';
import { SOURCE_KINDS } from '../../../core/facts';
import { putTrialReading, trialReading } from '../../flows/store/flows';
import type { HeldTrip } from '../store/trips';
import type { World } from '../../platform/world';
import { gather, read } from './read';
import { trialOf } from './trial-of';

type ReadAnswer = Extract<Answer, { kind: 'read' }>;

/** As long as pages are kept. */
const KEPT_MS = 7 * 86_400_000;

const scalar = z.union([z.string(), z.number(), z.boolean(), z.null()]);
const stated = {
  value: scalar,
  quote: z.string().nullable(),
  url: z.string().nullable(),
  source: z.enum(SOURCE_KINDS),
  confidence: z.number(),
  date: z.number().nullable(),
};
const findingSchema = z.object({ ...stated, id: z.string(), found: z.boolean(), says: z.string(), others: z.array(z.object(stated)) });
const keptSchema = z.object({
  kind: z.literal('read'),
  findings: z.array(findingSchema),
  pages: z.number(),
  tookMs: z.number(),
  costMicro: z.number(),
  says: z.string(),
  fresh: z.array(z.object({ source: z.enum(SOURCE_KINDS), title: z.string(), url: z.string(), date: z.number().nullable() })).optional(),
});

const keyOf = (request: Extract<Request, { kind: 'read' }>): string =>
  stableId(
    'trial reading',
    JSON.stringify([
      request.target.id,
      request.website,
      request.places,
      request.maxPages,
      request.maxCostMicro,
      request.noOlderMs ?? null,
      request.questions.map(({ id, type, wording }) => [id.text, type, wording.text]),
    ]),
  );

/** Reads a site for a trial, or answers with what an earlier trial of this flow read when it asked the same. */
export async function readForTrial(world: World, held: HeldTrip, request: Extract<Request, { kind: 'read' }>): Promise<ReadAnswer> {
  const { afresh } = await trialOf(world, held);
  const now = await world.clock.now();
  const key = keyOf(request);
  const before = afresh ? undefined : await trialReading(world.db, { flowId: held.flowId, key, since: now - KEPT_MS });
  const kept = keptSchema.safeParse(before?.answer);
  if (before && kept.success) return { ...kept.data, costMicro: 0, reusedFrom: before.readAt };
  const answer = await read(world, request, { held, afresh: afresh ? held.trialId : null });
  await putTrialReading(world.db, { flowId: held.flowId, key, answer }, now);
  return answer;
}

/** Fetches what a reading will want, unless a trial reads all afresh or has it from an earlier one. */
export async function beginReading(world: World, held: HeldTrip, request: Extract<Request, { kind: 'read' }>): Promise<void> {
  const now = await world.clock.now();
  if (held.trialId !== null) {
    const { afresh } = await trialOf(world, held);
    if (afresh || (await trialReading(world.db, { flowId: held.flowId, key: keyOf(request), since: now - KEPT_MS }))) return;
  }
  await gather(world, request, { held, afresh: null }, now);
}
