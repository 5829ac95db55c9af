import { putWebhook } from '../trips/store/outbox';
import { insertAudit } from '../access/store/audit';
import { seal } from '../platform/seal';
import type { Actor, World } from '../platform/world';

/** Names a webhook, with its secret sealed. The secret comes with the address each time: it is good for no other. */
export async function connectWebhook(
  world: World,
  actor: Actor,
  hook: { readonly name: string; readonly url: string; readonly secret: string },
): Promise<void> {
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    await putWebhook(tx, { ...hook, secret: seal(world.secret, hook.secret) }, now);
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'connected a webhook', detail: { name: hook.name, url: hook.url } });
  });
}
