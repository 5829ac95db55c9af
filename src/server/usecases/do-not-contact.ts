/**
 * Who is not written to, put there by hand. Promises: what is planned for an address goes nowhere from then on; who asked not to be written to
 * is not taken off again by a click.
 */
import { addDoNotContact, liftDoNotContact, listDoNotContact, whyDoNotContact } from '../store/messages';
import { insertAudit } from '../store/timeline';
import { Refusal, type Actor, type World } from './world';

export interface Barred {
  readonly email: string;
  readonly why: string;
  readonly at: string;
}
export async function doNotContactList(world: World): Promise<Barred[]> {
  return (await listDoNotContact(world.db)).map((entry) => ({ ...entry, at: new Date(entry.at).toISOString() }));
}

export async function barAddress(world: World, actor: Actor, ask: { readonly email: string; readonly why: string }): Promise<Barred[]> {
  const email = ask.email.trim().toLowerCase();
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    const known = await whyDoNotContact(tx, email);
    if (known !== undefined) throw new Refusal('conflict', `${email} is not written to already: ${known}`);
    const why = ask.why.trim() === '' ? `put here by ${actor.name}` : `put here by ${actor.name}: ${ask.why.trim()}`;
    await addDoNotContact(tx, email, why, now);
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'put an address among those not written to', detail: { email, why } });
  });
  return doNotContactList(world);
}

/** The word written down when somebody asked not to be written to. */
const ASKED = 'unsubscribed';

export async function liftAddress(world: World, actor: Actor, email: string): Promise<Barred[]> {
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    const why = await whyDoNotContact(tx, email);
    if (why === undefined) throw new Refusal('not found', `${email} is not on the list`);
    if (why === ASKED) throw new Refusal('conflict', `${email} asked not to be written to: only they can take that back`);
    await liftDoNotContact(tx, email);
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'took an address off those not written to', detail: { email, why } });
  });
  return doNotContactList(world);
}
