/** Who we are and where: the workspace's name, zone, country and days off. */
import { COUNTRIES } from '../../core/fields';
import { putSetting } from '../platform/store/settings';
import { insertAudit } from '../access/store/audit';
import { Refusal, workspace, type Actor, type Workspace, type World } from '../platform/world';

const isZone = (zone: string): boolean => {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
};

/** Keeps it; days off are sorted, each once. What is planned already keeps its slot. */
export async function keepWorkspace(world: World, actor: Actor, ask: Workspace): Promise<Workspace> {
  if (!isZone(ask.zone)) throw new Refusal('not valid', `“${ask.zone}” is no time zone: for example Europe/London`);
  if (!COUNTRIES.includes(ask.defaultCountry))
    throw new Refusal('not valid', `“${ask.defaultCountry}” is no country: two letters, for example GB`);
  const next = { ...ask, name: ask.name.trim(), daysOff: [...new Set(ask.daysOff)].sort() };
  const before = await workspace(world.db);
  const changed = (['name', 'zone', 'defaultCountry'] as const).filter((key) => before[key] !== next[key]);
  await world.db.begin(async (tx) => {
    await putSetting(tx, 'workspace', next);
    await insertAudit(tx, {
      at: await world.clock.now(),
      userId: actor.userId,
      what: 'changed the workspace',
      detail: { ...Object.fromEntries(changed.map((key) => [key, `${before[key]} → ${next[key]}`])), daysOff: next.daysOff.length },
    });
  });
  return workspace(world.db);
}
