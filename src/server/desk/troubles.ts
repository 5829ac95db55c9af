/** What around us does not answer just now, told on every page: what it is, that nothing is lost, and what to do. */
import type { Instant } from '../../core/base';
import { listIntakes } from '../intake/store/intakes';
import { getSetting, putSetting } from '../platform/store/settings';
import { restingMailboxes } from '../messages/store/mailboxes';
import { keyState } from '../workspace/keys';
import type { World } from '../platform/world';

export interface Trouble {
  readonly says: string;
  readonly todo: string;
  /** where more of it stands; null: not here */
  readonly href: string | null;
}

const RELAY = 'relay away';
interface Away {
  readonly since: Instant;
  readonly says: string;
}
const isAwayRow = (value: unknown): value is Away => typeof value === 'object' && value !== null && 'since' in value && 'says' in value;

/** The mail relay took a mail, or could not be reached. Written only where that has changed. */
export async function noteRelay(world: World, away: string | null, now: Instant): Promise<void> {
  const before = await getSetting(world.db, RELAY);
  if (away === null) {
    if (before !== undefined) await putSetting(world.db, RELAY, null);
  } else if (before === undefined) await putSetting(world.db, RELAY, { since: now, says: away } satisfies Away);
}

/** How long a key is believed to fit before it is looked at again. */
const KEY_MS = 60_000;
const keys = new WeakMap<World['db'], { readonly at: number; readonly state: Promise<Awaited<ReturnType<typeof keyState>>> }>();
function keyOf(world: World): Promise<Awaited<ReturnType<typeof keyState>>> {
  const known = keys.get(world.db);
  if (known && performance.now() - known.at < KEY_MS) return known.state;
  const state = keyState(world);
  keys.set(world.db, { at: performance.now(), state });
  return state;
}

export async function troubles(world: World): Promise<readonly Trouble[]> {
  const [key, relay, doors, resting] = await Promise.all([
    keyOf(world),
    getSetting(world.db, RELAY),
    listIntakes(world.db),
    restingMailboxes(world.db),
  ]);
  const out: Trouble[] = [];
  if (key === 'wrong')
    out.push({
      says: 'The key does not fit this workspace: passwords kept here cannot be opened.',
      todo: 'Put the old key back (its file, or MILLRACE_SECRET) and start again. Nothing was written over.',
      href: null,
    });
  if (isAwayRow(relay))
    out.push({
      says: `The mail relay cannot be reached (${relay.says}). Mail waits and keeps its order.`,
      todo: 'It goes out by itself when the relay is back; look whether it runs, and at MILLRACE_SMTP.',
      href: null,
    });
  for (const { name, restsWhy } of resting)
    out.push({
      says: `“${name}” rests: ${restsWhy}.`,
      todo: 'Nothing of it leaves, and all keeps its order. Look where the addresses come from, then let it send again.',
      href: '/settings/mailboxes',
    });
  for (const door of doors)
    if (door.isOn && door.problem !== null)
      out.push({
        says: `${door.name} cannot be looked at: ${door.problem}.`,
        todo: 'It is tried again by itself, ever more rarely.',
        href: `/sources/watched/${door.id}`,
      });
  return out;
}
