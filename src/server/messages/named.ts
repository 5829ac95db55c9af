/** Whom an answer names in its sender's place, taken in as a person of the same firm. */
import { personKeys, personName, reachOf } from '../../core/match';
import { createPerson } from '../records/records';
import { findPerson, peopleByKeys } from '../records/store/records';
import { insertHappenings } from '../records/store/timeline';
import { findMessage } from './store/messages';
import { found, Refusal, type Actor, type World } from '../platform/world';

/**
 * The person an answer names: the one that is known already by the address, or by the name in the same firm, else a new one with the
 * answer as the source. Nobody is written to by it.
 */
export async function takeInNamed(
  world: World,
  actor: Actor,
  messageId: string,
): Promise<{ readonly personId: string; readonly isNew: boolean }> {
  const message = found(await findMessage(world.db, messageId), 'this message');
  const named = message.reading?.named;
  if (!named || message.personId === null) throw new Refusal('not valid', 'this answer names nobody to be written to instead');
  const sender = found(await findPerson(world.db, message.personId), 'who wrote it');
  const name = named.name ?? named.email ?? '';
  const keys = named.email === null ? [] : [`e:${named.email}`];
  const byAddress = (await peopleByKeys(world.db, keys)).find(({ email, otherEmail }) => [email, otherEmail].includes(named.email));
  const known = byAddress ?? (await sameName(world, name, sender.companyId));
  if (known) return { personId: known.id, isNew: false };
  const person = await createPerson(world, actor, {
    values: { name, ...(named.email !== null && { email: named.email }) },
    companyId: sender.companyId,
    source: 'reply',
    sourceRef: `answer of ${sender.name}`,
  });
  const now = await world.clock.now();
  await insertHappenings(world.db, [
    {
      recordKind: 'person',
      recordId: sender.id,
      at: now,
      kind: 'note',
      says: `Named ${name} to be written to instead`,
      detail: { personId: person.id },
    },
  ]);
  return { personId: person.id, isNew: true };
}

async function sameName(world: World, name: string, companyId: string | null): Promise<{ readonly id: string } | undefined> {
  if (companyId === null) return undefined;
  const alike = await peopleByKeys(world.db, personKeys({ name, ...reachOf({}) }));
  return alike.find((person) => person.companyId === companyId && personName(person.name) === personName(name));
}
