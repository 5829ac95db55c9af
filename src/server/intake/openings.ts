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
} from './store/openings';
import { factsOf } from '../records/store/facts';
import { insertAudit } from '../access/store/audit';
import { insertHappenings } from '../records/store/timeline';
import { knownFields, type KnownField } from '../records/known-fields';
import { found, Refusal, type Actor, type World } from '../platform/world';

const SHOWN = 500;

export const openings = (world: World): Promise<readonly OpeningRow[]> => listOpenings(world.db);

export async function opening(
  world: World,
  id: string,
): Promise<{ readonly opening: OpeningRow; readonly known: readonly KnownField[]; readonly applications: readonly ApplicationRow[] }> {
  const [row, facts, applications] = await Promise.all([
    findOpening(world.db, id),
    factsOf(world.db, [id]),
    applicationsOf(world.db, { openingId: id }, SHOWN),
  ]);
  return { opening: found(row, 'this opening'), known: await knownFields(world, facts), applications };
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

export const application = async (world: World, id: string): Promise<ApplicationRow> =>
  found(await findApplication(world.db, id), 'this application');

/** Moves an application to another stage of its opening, by hand. */
export async function changeApplication(world: World, actor: Actor, id: string, ask: { readonly stage: string }): Promise<ApplicationRow> {
  const before = await application(world, id);
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
  return application(world, id);
}
