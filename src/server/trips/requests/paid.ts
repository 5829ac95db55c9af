import { z } from 'zod';
import { stableId, type Instant, type Json } from '../../../core/base';
import { dayKey, startOfLocalDay, startOfLocalMonth } from '../../../core/calendar';
import { isMonthly, monthBudgetName, monthBudgets, monthOf } from './month-budgets';
import { NEARLY_SPENT, type LookupChain } from '../../../core/lookup';
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
  /** of what day, or of what month's first day */
  readonly day: string;
  readonly says: string;
  /** null: counted, and without a limit */
  readonly limitMicro: number | null;
}

/** A month's budgets are kept under its first day. */
const dayOf = (budget: string, day: string): string => (isMonthly(budget) ? monthOf(day) : day);

async function budgetsOf(world: World, held: HeldTrip | null, provider: Provider, day: string): Promise<readonly Budget[]> {
  const of = (name: string, says: string, limitMicro: number | null): Budget => ({ name, day: dayOf(name, day), says, limitMicro });
  const months = await monthBudgets(world.db);
  const flow = held?.trialId === null ? held.flowId : null;
  const monthly = [
    of(monthBudgetName('all', ''), 'this month’s budget', months.all),
    of(monthBudgetName('provider', provider.name), `this month’s budget for ${provider.name}`, months.provider[provider.name] ?? null),
    ...(flow === null ? [] : [of(monthBudgetName('flow', flow), 'the flow’s budget for this month', months.flow[flow] ?? null)]),
  ];
  if (held === null) return monthly;
  if (held.trialId !== null)
    return [...monthly, of(`trial ${held.trialId}`, 'what a trial may spend', (await trialOf(world, held)).limitMicro)];
  const [version] = held.versionId === null ? [] : await versionsOf(world.db, [held.versionId]);
  const daily = [
    of(`flow ${held.flowId}`, 'the flow’s budget for today', version?.dayBudgetMicro ?? null),
    of(`provider ${provider.name}`, `today’s budget for ${provider.name}`, provider.dayBudgetMicro ?? null),
  ];
  return [...monthly, ...daily.filter(({ limitMicro }) => limitMicro !== null)];
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
  held: HeldTrip | null,
  provider: Provider,
  ledger: SpendLedger,
  now: Instant,
): Promise<Reservation | undefined> {
  const before = reservationSchema.safeParse(ledger.reserved);
  if (before.success) return before.data;
  if (provider.priceMicro === 0) return undefined;
  const { zone } = await workspace(world.db);
  const day = dayKey(now, zone);
  const budgets = await budgetsOf(world, held, provider, day);
  const reservation: Reservation = { day, budgets: budgets.map((budget) => budget.name), micro: provider.priceMicro };
  const nearly: Budget[] = [];
  const full = await world.db
    .begin(async (tx) => {
      for (const budget of budgets) {
        const gone = await reserve(tx, budget.name, budget.day, provider.priceMicro, budget.limitMicro);
        if (gone === undefined) throw new Full(budget);
        if (budget.limitMicro !== null && gone >= NEARLY_SPENT * budget.limitMicro) nearly.push(budget);
      }
      await ledger.remember(tx, reservation);
      return undefined;
    })
    .catch((error: unknown) => {
      if (error instanceof Full) return error.budget;
      throw error;
    });
  if (full) await tellOwner(world, held, full, 'used up', now);
  for (const budget of full ? [] : nearly) await tellOwner(world, held, budget, 'nearly', now);
  if (!full) return reservation;
  throw new UsedUp(`${full.says} is used up`, isMonthly(full.name) ? startOfLocalMonth(now, zone, 1) : startOfLocalDay(now, zone, 1));
}

/** A budget is used up: the call waits until there is another. */
export class UsedUp extends HeldBack {}

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
  for (const budget of reservation.budgets) await settleSpend(tx, budget, dayOf(budget, reservation.day), reservation.micro, spentMicro);
  await ledger.remember(tx, null);
}

/** Once for each budget and its day or month. What is looked up by hand tells nobody: the next trip does. */
async function tellOwner(world: World, held: HeldTrip | null, budget: Budget, how: 'nearly' | 'used up', now: Instant): Promise<void> {
  if (held === null || budget.name.startsWith('trial ')) return;
  const wait = isMonthly(budget.name) ? 'until next month' : 'until tomorrow';
  const text =
    how === 'nearly' ? `four fifths of ${budget.says} are gone` : `${budget.says} is used up: trips wait ${wait} and nothing is lost`;
  const owners = await usersNamed(world.db, 'owner');
  await insertNotices(
    world.db,
    owners.map((owner) => ({
      id:
        how === 'nearly'
          ? stableId('budget', how, budget.name, budget.day, owner.id)
          : stableId('budget', budget.name, budget.day, owner.id),
      userId: owner.id,
      text,
      tripId: held.trip.id,
      personId: held.trip.record.id,
    })),
    now,
  );
}
