import { randomBytes } from 'node:crypto';
import type { Instant, JsonObject } from '../../core/base';
import {
  addTry,
  endSessions,
  forgetTries,
  insertSession,
  insertToken,
  listSessions,
  listUsers,
  revokeSession,
  roleOfUser,
  seeSession,
  seeToken,
  triesBefore,
  userByEmail,
  userBySession,
  userByToken,
  type Scope,
  type UserRow,
} from './store/access';
import { digest } from './digest';
import { checkCode } from './second-factor';
import { getSetting } from '../platform/store/settings';
import { insertAudit } from './store/audit';
import { Refusal, type Actor, type World, workspace } from '../platform/world';

/** A session ends when nobody has used it for so long, and in any case so long after it began. */
const SESSION = { idleHours: 72, days: 14, seenEveryMinutes: 5 } as const;

/**
 * Wrong passwords: so many are free; each one after that doubles the wait before the next is looked at, up to a limit. Counted for
 * the account at that address, for the address over all accounts, and, far more gently, for the account over all addresses: nobody
 * can keep an owner out by typing wrong passwords elsewhere.
 */
const WAITS = [
  { by: 'both', free: 5, mostSeconds: 900 },
  { by: 'address', free: 30, mostSeconds: 900 },
  { by: 'account', free: 60, mostSeconds: 20 },
] as const;
const WITHIN_MINUTES = 60;

let decoy: Promise<string> | undefined;
/** A hash that no password fits: an account that does not exist takes as long to refuse as one that does. */
const decoyHash = (world: World): Promise<string> => (decoy ??= world.passwords.hash(randomBytes(24).toString('base64url')));

/** The password is right, and a code of the second factor is wanted besides. */
export class CodeWanted extends Refusal {
  constructor() {
    super('not allowed', 'the code of your phone is wanted too, or a recovery code');
  }
}

/**
 * Opens a session for the right password, and the right code where the account has a second factor. The try is counted before anything
 * is looked at, so that many at once gain nothing. Throws `CodeWanted` when only the code is missing.
 */
export async function signIn(world: World, email: string, password: string, address = 'direct', code?: string): Promise<OpenedSession> {
  const account = email.trim().toLowerCase();
  const own = await addTry(world.db, account, address);
  const before = await triesBefore(world.db, { account, address, own }, WITHIN_MINUTES);
  for (const { by, free, mostSeconds } of WAITS) {
    const { count, agoSeconds } = before[by];
    const wait = count < free ? 0 : Math.min(mostSeconds, 2 ** Math.min(20, count - free));
    if (agoSeconds < wait) {
      // A try that was not looked at does not make the wait longer.
      await forgetTries(world.db, { id: own });
      throw new Refusal('too often', `too many wrong passwords: try again in ${Math.ceil(wait - agoSeconds)} seconds`);
    }
  }
  const user = await userByEmail(world.db, account);
  const right = await world.passwords.verify(user?.passwordHash ?? (await decoyHash(world)), password).catch(() => false);
  const at = await world.clock.now();
  if (!user || !right) {
    if (user) await insertAudit(world.db, { at, userId: user.id, what: 'a sign-in failed', detail: { from: address } });
    throw new Refusal('not allowed', 'e-mail or password is wrong');
  }
  const factor = await checkCode(world, user.id, code ?? '');
  if (factor === 'wrong') {
    if (code === undefined) {
      await forgetTries(world.db, { id: own });
      throw new CodeWanted();
    }
    await insertAudit(world.db, { at, userId: user.id, what: 'a sign-in failed at its code', detail: { from: address } });
    throw new Refusal('not allowed', 'the code is not right, or was used before');
  }
  await forgetTries(world.db, { account, address });
  const { passwordHash: _, ...rest } = user;
  return openSession(world, rest, { from: address, ...(factor === 'recovery' && { by: 'a recovery code' }) });
}

export interface OpenedSession {
  readonly token: string;
  readonly user: UserRow;
  readonly maxAgeSeconds: number;
}

/** Opens a session for somebody who has proved who they are. */
export async function openSession(world: World, user: UserRow, detail: JsonObject): Promise<OpenedSession> {
  const token = randomBytes(32).toString('base64url');
  await insertSession(world.db, { tokenHash: digest(token), userId: user.id, days: SESSION.days });
  await insertAudit(world.db, { at: await world.clock.now(), userId: user.id, what: 'signed in', detail });
  return { token, user, maxAgeSeconds: SESSION.days * 86_400 };
}

export async function signOut(world: World, token: string): Promise<void> {
  await revokeSession(world.db, digest(token));
}
export async function sessionUser(world: World, token: string | undefined): Promise<UserRow | undefined> {
  if (!token) return undefined;
  const user = await userBySession(world.db, digest(token), SESSION.idleHours);
  if (user) await seeSession(world.db, digest(token), SESSION.seenEveryMinutes);
  return user;
}
export async function tokenUser(world: World, token: string): Promise<(UserRow & { readonly scope: Scope }) | undefined> {
  const user = await userByToken(world.db, digest(token));
  if (user) await seeToken(world.db, digest(token), SESSION.seenEveryMinutes);
  return user;
}
export async function users(world: World): Promise<readonly UserRow[]> {
  return listUsers(world.db);
}

/** A demo world's people and the one password they have, for its door; null where nobody is let in by one click. */
export async function demoDoor(world: World): Promise<{
  readonly name: string;
  readonly password: string;
  readonly people: readonly { readonly email: string; readonly name: string; readonly role: string; readonly title: string }[];
} | null> {
  if (!world.isDemo) return null;
  const [password, space, everybody] = await Promise.all([getSetting(world.db, 'demo password'), workspace(world.db), listUsers(world.db)]);
  if (typeof password !== 'string') return null;
  return { name: space.name, password, people: everybody.map(({ email, name, role, title }) => ({ email, name, role, title })) };
}

export const roleOf = (world: World, userId: string): Promise<UserRow['role'] | undefined> => roleOfUser(world.db, userId);

export interface SessionView {
  /** names the session; it opens nothing */
  readonly id: string;
  readonly createdAt: Instant;
  readonly seenAt: Instant;
  readonly expiresAt: Instant;
  readonly own: boolean;
}

/** One's own open sessions, the newest first; `token` is the one that asks. */
export async function sessionsOf(world: World, userId: string, token: string | undefined): Promise<readonly SessionView[]> {
  const own = token === undefined ? '' : digest(token);
  return (await listSessions(world.db, userId, SESSION.idleHours)).map(({ tokenHash, ...row }) => ({
    ...row,
    id: tokenHash.slice(0, 12),
    own: tokenHash === own,
  }));
}

/** Ends one's own sessions everywhere; `but` is left open. */
export async function endOwnSessions(world: World, actor: Actor, but: string | undefined): Promise<number> {
  if (actor.userId === null) throw new Refusal('not allowed', 'only people have sessions');
  const ended = await endSessions(world.db, { userId: actor.userId, but: but === undefined ? null : digest(but) });
  await insertAudit(world.db, { at: await world.clock.now(), userId: actor.userId, what: 'ended sessions', detail: { ended } });
  return ended;
}

/** Ends the sessions of one person by their e-mail, or everybody's. Throws when there is no such person. */
export async function endSessionsOf(world: World, email: string | null): Promise<number> {
  const user = email === null ? undefined : await userByEmail(world.db, email.trim().toLowerCase());
  if (email !== null && !user) throw new Refusal('not found', `there is nobody with the e-mail ${email}`);
  const ended = await endSessions(world.db, { userId: user?.id ?? null, but: null });
  await insertAudit(world.db, {
    at: await world.clock.now(),
    userId: null,
    what: 'ended sessions',
    detail: { whose: email ?? 'everybody', ended },
  });
  return ended;
}

/** A new API token; it is shown once and never again. */
export async function makeToken(world: World, userId: string, name: string, days: number, scope: Scope = 'all'): Promise<string> {
  const token = `mr_${randomBytes(24).toString('base64url')}`;
  await insertToken(world.db, { tokenHash: digest(token), userId, name, days, scope });
  await insertAudit(world.db, { at: await world.clock.now(), userId, what: 'made a token', detail: { name, days, scope } });
  return token;
}
