import { stableId, type Json } from '../../../core/base';
import type { Answer, RecordView, Request } from '../../../core/engine';
import {
  answerIn,
  lookupValues,
  nextProvider,
  progressSchema,
  usable,
  type Asked,
  type LookupChain,
  type LookupQuestion,
} from '../../../core/lookup';
import { companySite } from '../../../core/match';
import { z } from 'zod';
import { WorldFailure, type ProviderAnswer } from '../../ports';
import { beginLookup, endLookup, setAsking, setReserved, tellLookupCost } from '../../messages/store/effects';
import type { HeldTrip } from '../store/trips';
import type { World } from '../../platform/world';
import { trialOf } from './trial-of';
import { askService } from '../../workspace/ask-service';
import { counted, HeldBack, inPlace, inTurn } from '../../workspace/connections';
import { describedService } from '../../workspace/providers';
import { setAside, settleReservation, type SpendLedger } from './paid';

const keptSchema = z.object({ value: z.string().nullable(), confidence: z.number(), tookMs: z.number() });

/**
 * Asks the providers of a chain in order until one answer is usable. Each question stands in the ledger under a key made
 * of person, field and provider, so that a repeated line or a trial after a trial is not paid twice.
 */
export async function lookUp(
  world: World,
  held: HeldTrip,
  view: RecordView,
  request: Extract<Request, { kind: 'look up' }>,
  when: 'now' | 'ahead' = 'now',
): Promise<Extract<Answer, { kind: 'look up' }>> {
  const asked: Asked[] = [];
  const { afresh } = await trialOf(world, held);
  for (let provider = nextProvider(request.chain, asked); provider !== undefined; provider = nextProvider(request.chain, asked)) {
    asked.push(await askOne(world, held, view, request.field, provider, { afresh, when }));
  }
  return { kind: 'look up', asked };
}

const MOMENTS_MS = 60_000;

/** Asks a service that is described here, else the one of that name that this installation was started with. */
async function askAnywhere(world: World, name: string, key: string, question: LookupQuestion, asking: Json): Promise<ProviderAnswer> {
  const service = await describedService(world, world.db, name);
  if (!service) return world.providers.ask({ provider: name, key, ...question });
  const started = performance.now();
  const took = () => ({ tookMs: Math.round(performance.now() - started) });
  const progress = progressSchema.safeParse(asking).data;
  let best: ReturnType<typeof answerIn> = { value: null, confidence: 0 };
  for await (const came of askService(world, service, { values: lookupValues(question), progress, key })) {
    if (came.kind === 'failed') {
      await setAsking(world.db, key, null, null);
      throw new WorldFailure('refused', `${name}: ${came.says}`, false);
    }
    if (came.kind === 'wait') {
      const again = (await world.clock.now()) + came.ms;
      await setAsking(world.db, key, { ...came.progress }, again);
      throw new HeldBack(`waits for the answer of ${name}`, again, came.ms <= MOMENTS_MS);
    }
    for (const answer of came.entries.map((entry) => answerIn(service.provider, entry))) {
      if (answer.value === null) continue;
      const fits = usable({
        value: answer.value,
        personName: question.personName,
        companyHost: question.host,
        confidence: answer.confidence,
      });
      if (fits.ok) return { ...answer, ...took() };
      if (best.value === null || answer.confidence > best.confidence) best = answer;
    }
  }
  return { ...best, ...took() };
}

async function askOne(
  world: World,
  held: HeldTrip,
  view: RecordView,
  field: string,
  provider: LookupChain['providers'][number],
  { afresh, when }: { readonly afresh: boolean; readonly when: 'now' | 'ahead' },
): Promise<Asked> {
  const host = companySite(typeof view.company?.website === 'string' ? view.company.website : null);
  // A trial that takes nothing from before asks under a name of its own; again after a crash it is the same name.
  const key = `look up ${field} ${view.person.id} ${provider.name}${afresh ? ` ${held.trialId ?? ''}` : ''}`;
  const now = await world.clock.now();
  const ledger = await beginLookup(
    world.db,
    { id: stableId(key), key, tripId: held.trip.trial ? null : held.trip.id, personId: view.person.id },
    now,
  );
  const kept = ledger.state === 'done' ? keptSchema.safeParse(ledger.answer).data : undefined;
  if (kept) {
    // Asked ahead of its line, it is told here what it cost.
    const costMicro = when === 'now' ? await tellLookupCost(world.db, key) : 0;
    return judged(view, host, provider, kept, costMicro, costMicro === 0);
  }
  const spending: SpendLedger = { reserved: ledger.reserved, remember: (tx, reserved) => setReserved(tx, key, reserved) };
  await inTurn(world, provider, key, ledger.dueAt, now);
  const reservation = await setAside(world, held, provider, spending, now);
  try {
    const companyName = typeof view.company?.name === 'string' ? view.company.name : null;
    const question = { field, personName: view.person.name, companyName, host };
    const answer = await inPlace(world, { name: provider.name, atOnce: provider.atOnce }, now, () =>
      counted(world, provider.name, () => askAnywhere(world, provider.name, key, question, ledger.asking)),
    );
    // Paid only for an answer, and only once.
    const costMicro = answer.value === null ? 0 : provider.priceMicro;
    const told: Json = { ...answer };
    await world.db.begin(async (tx) => {
      await endLookup(tx, key, { answer: told, costMicro, costTold: when === 'now' }, now);
      await settleReservation(tx, spending, reservation, costMicro);
    });
    return judged(view, host, provider, answer, costMicro, false);
  } catch (error) {
    if (!(error instanceof WorldFailure) || error.retryable) throw error;
    await settleReservation(world.db, spending, reservation, 0);
    return { provider: provider.name, outcome: 'failed', value: null, why: error.message, costMicro: 0, tookMs: 0 };
  }
}

/** What an answer is worth, just given or kept from before. */
function judged(
  view: RecordView,
  host: string | null,
  { name }: LookupChain['providers'][number],
  answer: z.infer<typeof keptSchema>,
  costMicro: number,
  isKept: boolean,
): Asked {
  const common = { provider: name, value: answer.value, costMicro, tookMs: answer.tookMs, ...(isKept && { kept: true }) };
  if (answer.value === null) return { ...common, outcome: 'nothing', why: 'knows no address' };
  const verdict = usable({ value: answer.value, personName: view.person.name, companyHost: host, confidence: answer.confidence });
  return { ...common, outcome: verdict.ok ? 'usable' : 'not usable', why: isKept ? `${verdict.why} · paid before` : verdict.why };
}
