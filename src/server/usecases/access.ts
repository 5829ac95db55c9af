import { createHash, randomBytes } from 'node:crypto';
import {
  addTry,
  forgetTries,
  insertSession,
  insertToken,
  listUsers,
  recentTries,
  revokeSession,
  userByEmail,
  userBySession,
  userByToken,
  type UserRow,
} from '../store/access';
import { Refusal, type World } from './world';

const SESSION_DAYS = 14;
const THROTTLE = { tries: 8, minutes: 10 } as const;

/** Tokens are kept only as digests: reading the database gives nobody a session. */
export const digest = (token: string): string => createHash('sha256').update(token).digest('hex');

/** Opens a session for the right password; wrong ones are counted, and after eight in ten minutes the door stays shut a while. */
export async function signIn(
  world: World,
  email: string,
  password: string,
): Promise<{ readonly token: string; readonly user: UserRow; readonly maxAgeSeconds: number }> {
  const address = email.trim().toLowerCase();
  if ((await recentTries(world.db, address, THROTTLE.minutes)) >= THROTTLE.tries)
    throw new Refusal('too often', `too many wrong passwords: try again in ${THROTTLE.minutes} minutes`);
  const user = await userByEmail(world.db, address);
  const right = user !== undefined && (await world.passwords.verify(user.passwordHash, password).catch(() => false));
  if (!user || !right) {
    await addTry(world.db, address);
    throw new Refusal('not allowed', 'e-mail or password is wrong');
  }
  await forgetTries(world.db, address);
  const token = randomBytes(32).toString('base64url');
  await insertSession(world.db, { tokenHash: digest(token), userId: user.id, days: SESSION_DAYS });
  const { passwordHash: _, ...rest } = user;
  return { token, user: rest, maxAgeSeconds: SESSION_DAYS * 86_400 };
}

export async function signOut(world: World, token: string): Promise<void> {
  await revokeSession(world.db, digest(token));
}
export async function sessionUser(world: World, token: string | undefined): Promise<UserRow | undefined> {
  return token ? userBySession(world.db, digest(token)) : undefined;
}
export async function tokenUser(world: World, token: string): Promise<UserRow | undefined> {
  return userByToken(world.db, digest(token));
}
export async function users(world: World): Promise<readonly UserRow[]> {
  return listUsers(world.db);
}

/** A new API token; it is shown once and never again. */
export async function makeToken(world: World, userId: string, name: string, days: number): Promise<string> {
  const token = `mr_${randomBytes(24).toString('base64url')}`;
  await insertToken(world.db, { tokenHash: digest(token), userId, name, days });
  return token;
}
