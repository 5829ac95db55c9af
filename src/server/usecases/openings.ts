/** Openings, and who has applied for them. */
import type { OpeningBody } from '../../core/hiring';
import {
  applicationsOf,
  findApplication,
  findOpening,
  insertOpening,
  listOpenings,
  moveApplication,
  updateOpening,
  type ApplicationRow,
  type OpeningRow,
} from '../store/openings';
import { insertAudit, insertHappenings } from '../store/timeline';
import { found, Refusal, type Actor, type World } from './world';

const SHOWN = 500;

export const openings = (world: World): Promise<readonly OpeningRow[]> => listOpenings(world.db);

export async function opening(
  world: World,
  id: string,
): Promise<{ readonly opening: OpeningRow; readonly applications: readonly ApplicationRow[] }> {
  return {
    opening: found(await findOpening(world.db, id), 'this opening'),
    applications: await applicationsOf(world.db, { openingId: id }, SHOWN),
  };
}

/** Makes an opening; flows can open applications for it by its name. */
export async function createOpening(
  world: World,
  actor: Actor,
  ask: OpeningBody & { readonly name: string },
): Promise<{ readonly id: string }> {
  const id = world.newId();
  const made = await insertOpening(world.db, { ...ask, id, name: ask.name, userId: actor.userId }, await world.clock.now());
  if (!made) throw new Refusal('conflict', `there is an opening called “${ask.name}” already`);
  return { id };
}

/** Changes an opening. A stage that somebody is at cannot be taken away. */
export async function saveOpening(world: World, actor: Actor, id: string, body: OpeningBody): Promise<OpeningRow> {
  const { opening: before, applications } = await opening(world, id);
  const lost = applications.find((application) => !body.stages.includes(application.stage));
  if (lost) throw new Refusal('conflict', `${lost.personName} is at “${lost.stage}”: move them before that stage goes`);
  await world.db.begin(async (tx) => {
    await updateOpening(tx, id, body);
    await insertAudit(tx, {
      at: await world.clock.now(),
      userId: actor.userId,
      what: body.isOpen ? 'changed an opening' : 'closed an opening',
      detail: { opening: before.name },
    });
  });
  return (await opening(world, id)).opening;
}

/** Moves an application to another stage of its opening, by hand. */
export async function changeApplication(world: World, actor: Actor, id: string, ask: { readonly stage: string }): Promise<ApplicationRow> {
  const before = found(await findApplication(world.db, id), 'this application');
  if (!before.stages.includes(ask.stage))
    throw new Refusal('not valid', `${before.openingName} has no stage “${ask.stage}”: it has ${before.stages.join(', ')}`);
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    await moveApplication(tx, id, ask.stage, now);
    await insertHappenings(tx, [
      {
        recordKind: 'person',
        recordId: before.personId,
        at: now,
        kind: 'application',
        says: `Application for ${before.openingName} moved to ${ask.stage} by ${actor.name}`,
        detail: { applicationId: id },
      },
    ]);
  });
  return found(await findApplication(world.db, id), 'this application');
}
