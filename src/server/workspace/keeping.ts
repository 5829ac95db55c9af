/** How long things are kept: set by the workspace, done by the worker a little at a time. */
import { KEPT_KINDS, USUAL_KEEPING, type Kept, type Keeping } from '../../core/facts';
import { keptNow, sweepKind } from './store/keeping';
import { getSetting, putSetting } from '../platform/store/settings';
import { insertAudit } from '../access/store/audit';
import type { Tx } from '../db';
import type { Actor, World } from '../platform/world';

const DAY = 86_400_000;
const SETTING = 'keeping';

export async function keeping(tx: Tx): Promise<Keeping> {
  const said = (await getSetting(tx, SETTING)) as Partial<Keeping> | undefined;
  return { ...USUAL_KEEPING, ...said };
}

export interface KeepingView {
  readonly days: Keeping;
  readonly now: Readonly<Record<Kept, number>>;
}
export const keepingView = async (world: World): Promise<KeepingView> => ({ days: await keeping(world.db), now: await keptNow(world.db) });

export async function keepFor(world: World, actor: Actor, ask: { readonly kind: Kept; readonly days: number }): Promise<KeepingView> {
  const before = await keeping(world.db);
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    await putSetting(tx, SETTING, { ...before, [ask.kind]: ask.days });
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: 'changed how long things are kept',
      detail: { [ask.kind]: `${before[ask.kind]} → ${ask.days} days` },
    });
  });
  return keepingView(world);
}

/** Takes away what is older than it is kept; a batch of each kind. Returns how much went. */
export async function sweep(world: World): Promise<number> {
  const days = await keeping(world.db);
  const now = await world.clock.now();
  let gone = 0;
  for (const kind of KEPT_KINDS) if (days[kind] > 0) gone += await sweepKind(world.db, kind, now - days[kind] * DAY);
  return gone;
}
