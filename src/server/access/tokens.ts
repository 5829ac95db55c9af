/** Tokens for programs: made with a name, a scope and an end; shown once; seen when they are used; ended at once. */
import type { Action } from './may';
import { endToken, listTokens, type Scope, type TokenRow } from './store/access';
import { insertAudit } from './store/audit';
import { makeToken } from './access';
import { found, Refusal, type Actor, type World } from '../platform/world';

/** What a scope lets through at most; the role of the token's maker counts besides. */
const WITHIN: Readonly<Record<Scope, (action: Action) => boolean>> = {
  read: (action) => action === 'look' || action === 'open papers',
  records: (action) => ['look', 'open papers', 'change records', 'take in', 'decide'].includes(action),
  flows: (action) => action !== 'keep secrets' && action !== 'erase' && action !== 'read the audit',
  all: () => true,
};
export const withinScope = (scope: Scope, action: Action): boolean => WITHIN[scope](action);
/** The narrowest scope that lets an action through. */
export const scopeFor = (action: Action): Scope =>
  (['read', 'records', 'flows', 'all'] as const).find((scope) => withinScope(scope, action)) ?? 'all';

export const tokens = async (world: World): Promise<readonly TokenRow[]> => listTokens(world.db);

export async function newToken(
  world: World,
  actor: Actor,
  ask: { readonly name: string; readonly scope: Scope; readonly days: number },
): Promise<{ readonly token: string; readonly items: readonly TokenRow[] }> {
  if (actor.userId === null) throw new Refusal('not allowed', 'only people make tokens');
  const token = await makeToken(world, actor.userId, ask.name.trim(), ask.days, ask.scope);
  return { token, items: await tokens(world) };
}

export async function withdrawToken(world: World, actor: Actor, id: string): Promise<readonly TokenRow[]> {
  const { name } = found(await endToken(world.db, id), 'this token');
  await insertAudit(world.db, { at: await world.clock.now(), userId: actor.userId, what: 'ended a token', detail: { name } });
  return tokens(world);
}
