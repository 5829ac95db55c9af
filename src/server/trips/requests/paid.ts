import { z } from 'zod';
import { stableId, type Instant, type Json } from '../../../core/base';
import { dayKey, startOfLocalDay } from '../../../core/calendar';
import type { LookupChain } from '../../../core/lookup';
import type { Tx } from '../../db';
import { reserve, settleSpend } from '../store/control';
import { versionsOf } from '../../flows/store/flows';
import { insertNotices, usersNamed } from '../store/outbox';
import type { HeldTrip } from '../store/trips';
import { HeldBack } from '../../workspace/connections';
import { workspace, type World } from '../../platform/world';
import { trialOf } from './trial-of';

/** Who is paid: a lookup provider or a source. */
type Provider = Pick<LookupChain['providers'][number], 'name' | 'priceMicro' | 'dayBudgetMicro'>;
/** Where it is written down that money is set aside for a call, so that a crash sets it aside once. */
export interface SpendLedger {
  readonly reserved: Json;
  readonly remember: (tx: Tx, reservation: Json) => Promise<void>;
}
interface Budget {
  readonly name: string;
  readonly says: string;
  readonly limitMicro: number;
}
async function budgetsOf(world: World, held: HeldTrip, provider: Provider): Promise<readonly Budget[]> {
  const of = (name: string, says: string, limitMicro: number | null | undefined): readonly Budget[] =>
    limitMicro === null || limitMicro === undefined ? [] : [{ name, says, limitMicro }];
  if (held.trialId !== null) return of(`trial ${held.trialId}`, 'what a trial may spend', (await trialOf(world, held)).limitMicro);
  const [version] = held.versionId === null ? [] : await versionsOf(world.db, [held.versionId]);
  return [
    ...of(`flow ${held.flowId}`, 'the flow’s budget for today', version?.dayBudgetMicro),
    ...of(`provider ${provider.name}`, `today’s budget for ${provider.name}`, provider.dayBudgetMicro),
  ];
}

const reservationSchema = z.object({ day: z.string(), budgets: z.array(z.string()), micro: z.number() });
/** Money set aside before a paid call: in which budgets, and on which local day. It stands with the call in the ledger. */
export type Reservation = z.infer<typeof reservationSchema>;

/**
 * Sets the price aside in every budget that the call counts against, all or none. When one is used up the owner is told,
 * once a day, and `HeldBack` until tomorrow is thrown. What was set aside before a crash is not set aside again.
 */
export async function setAside(
  world: World,
  held: HeldTrip,
  provider: Provider,
  ledger: SpendLedger,
  now: Instant,
): Promise<Reservation | undefined> {
  const before = reservationSchema.safeParse(ledger.reserved);
  if (before.success) return before.data;
  const { zone } = await workspace(world.db);
  const day = dayKey(now, zone);
  const budgets = await budgetsOf(world, held, provider);
  if (provider.priceMicro === 0 || budgets.length === 0) return undefined;
  const reservation: Reservation = { day, budgets: budgets.map((budget) => budget.name), micro: provider.priceMicro };
  const full = await world.db
    .begin(async (tx) => {
      for (const budget of budgets)
        if (!(await reserve(tx, budget.name, day, provider.priceMicro, budget.limitMicro))) throw new Full(budget);
      await ledger.remember(tx, reservation);
      return undefined;
    })
    .catch((error: unknown) => {
      if (error instanceof Full) return error.budget;
      throw error;
    });
  if (!full) return reservation;
  await tellOwner(world, held, full, day, now);
  throw new HeldBack(`${full.says} is used up`, startOfLocalDay(now, zone, 1));
}

class Full extends Error {
  constructor(readonly budget: Budget) {
    super(budget.name);
  }
}

/** Counts what was spent and gives back the rest. */
export async function settleReservation(
  tx: Tx,
  ledger: SpendLedger,
  reservation: Reservation | undefined,
  spentMicro: number,
): Promise<void> {
  if (!reservation) return;
  for (const budget of reservation.budgets) await settleSpend(tx, budget, reservation.day, reservation.micro, spentMicro);
  await ledger.remember(tx, null);
}

async function tellOwner(world: World, held: HeldTrip, budget: Budget, day: string, now: Instant): Promise<void> {
  if (held.trialId !== null) return;
  const owners = await usersNamed(world.db, 'owner');
  await insertNotices(
    world.db,
    owners.map((owner) => ({
      id: stableId('budget', budget.name, day, owner.id),
      userId: owner.id,
      text: `${budget.says} is used up: trips wait until tomorrow and nothing is lost`,
      tripId: held.trip.id,
      personId: held.trip.record.id,
    })),
    now,
  );
}
