/**
 * Who works here: invited, changed, gone. Promises: somebody can always let people in (the last owner stays one); who goes hands over
 * what is theirs first; an invitation is shown once and opens the door once. Refuses: mailing the link.
 */
import { randomBytes } from 'node:crypto';
import { dayKey } from '../../core/calendar';
import { readTyped } from '../../core/fields';
import { insertUser, roleOfUser, type Role } from './store/access';
import {
  changeUser,
  endInvite,
  endUser,
  handOver,
  insertInvite,
  inviteByCode,
  listInvites,
  ownersLeft,
  peopleHere,
  putAway,
  type InviteRow,
  type PersonHere,
} from './store/people';
import { insertAudit } from './store/audit';
import { digest } from './digest';
import { weakness } from './password-rules';
import { found, Refusal, workspace, type Actor, type World } from '../platform/world';

const INVITE_DAYS = 14;
const DAY_MS = 86_400_000;

export interface PeopleView {
  readonly people: readonly PersonHere[];
  readonly invites: readonly InviteRow[];
}
export async function peopleView(world: World): Promise<PeopleView> {
  const now = await world.clock.now();
  const today = dayKey(now, (await workspace(world.db)).zone);
  const [people, invites] = await Promise.all([peopleHere(world.db, today), listInvites(world.db, now)]);
  return { people, invites };
}

/** Asks somebody in. Returns the address to open, which is shown once; asking the same address again makes the older one void. */
export async function invite(
  world: World,
  actor: Actor,
  ask: { readonly email: string; readonly name: string; readonly role: Role; readonly title: string },
): Promise<PeopleView & { readonly link: string }> {
  const email = ask.email.trim().toLowerCase();
  const now = await world.clock.now();
  const code = randomBytes(24).toString('base64url');
  await world.db.begin(async (tx) => {
    await refuseKnown(tx, email);
    await insertInvite(
      tx,
      {
        id: world.newId(),
        codeHash: digest(code),
        email,
        name: ask.name.trim(),
        role: ask.role,
        title: ask.title.trim(),
        invitedBy: actor.userId,
        expiresAt: now + INVITE_DAYS * DAY_MS,
      },
      now,
    );
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'invited somebody', detail: { email, role: ask.role } });
  });
  return { ...(await peopleView(world)), link: `${world.publicUrl}/join/${code}` };
}

/** One address is one person: who went is let in again, not asked in anew. */
async function refuseKnown(tx: Parameters<typeof peopleHere>[0], email: string): Promise<void> {
  const known = (await peopleHere(tx, '9999-12-31')).find((person) => person.email === email);
  if (known)
    throw new Refusal(
      'conflict',
      known.endedAt === null ? `${email} works here already` : `${email} worked here before: let them in again`,
    );
}

export async function withdrawInvite(world: World, actor: Actor, id: string): Promise<PeopleView> {
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    const { email } = found(await endInvite(tx, id, now), 'this invitation');
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'withdrew an invitation', detail: { email } });
  });
  return peopleView(world);
}

/** Whom an invitation is for; undefined when it is used up, withdrawn or too old. */
export async function invitation(world: World, code: string): Promise<InviteRow | undefined> {
  return world.db.begin(async (tx) => inviteByCode(tx, digest(code), await world.clock.now()));
}

/** Opens an account with the password somebody chose. Throws when the invitation is void or the password too weak. */
export async function join(
  world: World,
  code: string,
  ask: { readonly name: string; readonly password: string; readonly email?: string | undefined },
): Promise<{ readonly email: string }> {
  const now = await world.clock.now();
  const known = found(await invitation(world, code), 'this invitation (it is used up, withdrawn or too old: ask for another)');
  const name = ask.name.trim() || known.name;
  const email = known.email === '' ? (ask.email ?? '').trim().toLowerCase() : known.email;
  if (email === '' || !readTyped({ type: 'e-mail' }, email).ok) throw new Refusal('not valid', 'your e-mail is how you sign in: type it');
  const weak = weakness(ask.password, [email, name]);
  if (weak !== undefined) throw new Refusal('not valid', weak);
  const passwordHash = await world.passwords.hash(ask.password);
  await world.db.begin(async (tx) => {
    const open = found(await inviteByCode(tx, digest(code), now), 'this invitation (it is used up, withdrawn or too old: ask for another)');
    await refuseKnown(tx, email);
    const id = world.newId();
    await insertUser(tx, { id, email, name, role: open.role, title: open.title, passwordHash });
    await endInvite(tx, open.id, now);
    await insertAudit(tx, { at: now, userId: id, what: 'came in by an invitation', detail: { email, role: open.role } });
  });
  return { email };
}

/**
 * The address by which the first owner comes in, where nobody works here yet; null where somebody does. Asking again makes the
 * address before it void, so that one that was lost opens nothing.
 */
export async function firstAddress(world: World): Promise<string | null> {
  if ((await peopleHere(world.db, '9999-12-31')).length > 0) return null;
  const now = await world.clock.now();
  const code = randomBytes(24).toString('base64url');
  await world.db.begin((tx) =>
    insertInvite(
      tx,
      {
        id: world.newId(),
        codeHash: digest(code),
        email: '',
        name: '',
        role: 'owner',
        title: 'owner',
        invitedBy: null,
        expiresAt: now + INVITE_DAYS * DAY_MS,
      },
      now,
    ),
  );
  return `${world.publicUrl}/join/${code}`;
}

export interface PersonChange {
  readonly role?: Role | undefined;
  readonly title?: string | undefined;
  readonly name?: string | undefined;
  readonly away?: readonly { readonly from: string; readonly to: string }[] | undefined;
}
export async function changePersonHere(world: World, actor: Actor, id: string, ask: PersonChange): Promise<PeopleView> {
  const now = await world.clock.now();
  const today = dayKey(now, (await workspace(world.db)).zone);
  await world.db.begin(async (tx) => {
    const person = found(
      (await peopleHere(tx, today)).find((entry) => entry.id === id && entry.endedAt === null),
      'this person',
    );
    const to = { role: ask.role ?? person.role, title: ask.title?.trim() ?? person.title, name: ask.name?.trim() || person.name };
    if (person.role === 'owner' && to.role !== 'owner') await someoneElse(tx);
    await changeUser(tx, id, to);
    const turned = ask.away?.find(({ from, to: until }) => until < from);
    if (turned) throw new Refusal('not valid', `away from ${turned.from} to ${turned.to}: that ends before it begins`);
    if (ask.away) await putAway(tx, id, ask.away);
    const changed = Object.fromEntries(
      (['role', 'title', 'name'] as const).filter((key) => to[key] !== person[key]).map((key) => [key, `${person[key]} → ${to[key]}`]),
    );
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: 'changed a person here',
      detail: {
        who: person.email,
        ...changed,
        ...(ask.away && { away: ask.away.map(({ from, to: until }) => `${from} to ${until}`).join(', ') }),
      },
    });
  });
  return peopleView(world);
}

async function someoneElse(tx: Parameters<typeof ownersLeft>[0]): Promise<void> {
  if ((await ownersLeft(tx)) < 2) throw new Refusal('conflict', 'this is the only owner: make somebody else an owner first');
}

/** Lets somebody go: they cannot come in any more, their tokens end, and what is theirs is somebody else's. */
export async function letGo(world: World, actor: Actor, id: string, ask: { readonly handTo: string | null }): Promise<PeopleView> {
  const now = await world.clock.now();
  if (actor.userId === id) throw new Refusal('conflict', 'nobody lets themselves go: another owner can');
  await world.db.begin(async (tx) => {
    const person = found(
      (await peopleHere(tx, '9999-12-31')).find((entry) => entry.id === id && entry.endedAt === null),
      'this person',
    );
    if (person.role === 'owner') await someoneElse(tx);
    if (person.owns > 0 && ask.handTo === null)
      throw new Refusal('conflict', `${person.name} has ${person.owns} records: say who takes them over`, { owns: person.owns });
    if (ask.handTo !== null && (ask.handTo === id || (await roleOfUser(tx, ask.handTo)) === undefined))
      throw new Refusal('not valid', 'who takes over must be somebody else who works here');
    const handed = ask.handTo === null ? 0 : await handOver(tx, id, ask.handTo);
    await endUser(tx, id, now);
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'let somebody go', detail: { who: person.email, handed } });
  });
  return peopleView(world);
}

/** Lets somebody in again who had gone; what was handed over stays where it is. */
export async function letBack(world: World, actor: Actor, id: string): Promise<PeopleView> {
  await world.db.begin(async (tx) => {
    const person = found(
      (await peopleHere(tx, '9999-12-31')).find((entry) => entry.id === id && entry.endedAt !== null),
      'this person',
    );
    await endUser(tx, id, null);
    await insertAudit(tx, {
      at: await world.clock.now(),
      userId: actor.userId,
      what: 'let somebody in again',
      detail: { who: person.email },
    });
  });
  return peopleView(world);
}
