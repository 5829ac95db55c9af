/** What was spent this month and may be: by everybody, at each provider, by each flow. */
import type { BudgetsView } from '../../api';
import { dayKey } from '../../core/calendar';
import { insertAudit } from '../access/store/audit';
import { loadLibrary } from '../flows/library';
import { listFlows } from '../flows/store/flows';
import { found, workspace, type Actor, type World } from '../platform/world';
import {
  monthBudgetName,
  monthBudgets,
  monthOf,
  putMonthBudgets,
  type BudgetKind,
  type MonthBudgets,
} from '../trips/requests/month-budgets';
import { handLimits, keepHandLimit } from '../messages/hand-limits';
import { HAND_CHANNELS } from '../../core/writer';
import { searchServices } from './providers';
import { sourceSettings } from '../trips/requests/sources';
import { spending } from '../trips/store/control';

interface Named {
  readonly kind: BudgetKind;
  readonly id: string;
  readonly label: string;
}

/** Whatever can cost money here: chains' providers, places of research and search services that ask a price, flows. */
async function spenders(world: World): Promise<readonly Named[]> {
  const [{ chains }, sources, services, flows] = await Promise.all([
    loadLibrary(world.db),
    sourceSettings(world),
    searchServices(world),
    listFlows(world.db),
  ]);
  const paid = [
    ...chains.flatMap(({ providers }) => providers.filter(({ priceMicro }) => priceMicro > 0).map(({ name }) => ({ name, label: name }))),
    ...sources.filter(({ priceMicro }) => priceMicro > 0),
    ...services.filter(({ priceMicro }) => priceMicro > 0).map(({ name }) => ({ name, label: name })),
  ];
  const providers = new Map(paid.map(({ name, label }) => [name, label]));
  return [
    { kind: 'all', id: '', label: 'everything together' },
    ...[...providers].map(([id, label]): Named => ({ kind: 'provider', id, label })),
    ...flows.map(({ id, name }): Named => ({ kind: 'flow', id, label: name })),
  ];
}

const limitOf = (budgets: MonthBudgets, { kind, id }: Named): number | null => (kind === 'all' ? budgets.all : (budgets[kind][id] ?? null));

export async function budgetsView(world: World): Promise<BudgetsView> {
  const { zone } = await workspace(world.db);
  const month = monthOf(dayKey(await world.clock.now(), zone));
  const [named, budgets, rows, hands] = await Promise.all([
    spenders(world),
    monthBudgets(world.db),
    spending(world.db, month),
    handLimits(world.db),
  ]);
  const gone = new Map(rows.map((row) => [row.budget, row]));
  return {
    month,
    hands: HAND_CHANNELS.map((channel) => ({ channel, aDay: hands[channel] })),
    items: named.map((entry) => {
      const row = gone.get(monthBudgetName(entry.kind, entry.id));
      return {
        ...entry,
        spentMicro: row?.spentMicro ?? 0,
        reservedMicro: row?.reservedMicro ?? 0,
        limitMicro: limitOf(budgets, entry),
      };
    }),
  };
}

/** Sets or takes away what may be spent in a month. What waits for the old one looks again when it was to. */
export async function keepBudget(
  world: World,
  actor: Actor,
  ask: { readonly kind: BudgetKind; readonly id: string; readonly limitMicro: number | null },
): Promise<BudgetsView> {
  const { label } = found(
    (await spenders(world)).find(({ kind, id }) => kind === ask.kind && id === ask.id),
    'what this budget is for',
  );
  await world.db.begin(async (tx) => {
    const before = await monthBudgets(tx);
    const { [ask.id]: _, ...others } = ask.kind === 'all' ? {} : before[ask.kind];
    const limited = { ...others, ...(ask.limitMicro !== null && { [ask.id]: ask.limitMicro }) };
    await putMonthBudgets(tx, ask.kind === 'all' ? { ...before, all: ask.limitMicro } : { ...before, [ask.kind]: limited });
    await insertAudit(tx, {
      at: await world.clock.now(),
      userId: actor.userId,
      what: 'changed a budget',
      detail: { for: label, month: ask.limitMicro === null ? 'no limit' : ask.limitMicro / 1_000_000 },
    });
  });
  return budgetsView(world);
}

/** Sets what one person is given to do in a day; the view then. */
export async function keepHands(world: World, actor: Actor, ask: Parameters<typeof keepHandLimit>[2]): Promise<BudgetsView> {
  await keepHandLimit(world, actor, ask);
  return budgetsView(world);
}
