import { putWebhook } from '../store/outbox';
import { seal } from './seal';
import type { World } from './world';

/** Names a webhook, with its secret sealed. */
export async function connectWebhook(
  world: World,
  hook: { readonly name: string; readonly url: string; readonly secret: string },
): Promise<void> {
  await putWebhook(world.db, { ...hook, secret: seal(world.secret, hook.secret) }, await world.clock.now());
}
