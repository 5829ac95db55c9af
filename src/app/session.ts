import 'server-only';
import { cookies } from 'next/headers';
import { redirect } from 'next/navigation';
import { may, type Action } from '../server/access/may';
import { SESSION_COOKIE } from '../server/http/answer';
import { isAway } from '../server/ports';
import { sessionUser } from '../server/access/access';
import type { World } from '../server/platform/world';
import { webWorld } from '../server/wire/web';

export interface Signed {
  readonly world: World;
  readonly user: NonNullable<Awaited<ReturnType<typeof sessionUser>>>;
  readonly may: (action: Action) => boolean;
}

/** An error that says on the page that it is the database that is away: nothing else of an error reaches a browser. */
export function toldAway(error: unknown): never {
  const code = error instanceof Error && 'code' in error ? String(error.code) : '';
  if (isAway(code)) throw Object.assign(new Error('the database is away'), { digest: 'database-away' });
  throw error;
}

/** The world and who is signed in; everybody else is led to the door. */
export async function signed(door: 'second factor' | null = null): Promise<Signed> {
  const world = webWorld();
  const token = (await cookies()).get(SESSION_COOKIE)?.value;
  const user = await sessionUser(world, token).catch(toldAway);
  if (!user) redirect('/sign-in');
  // Where everybody needs a second factor, whoever has none sets it up before anything else.
  if (user.lacksFactor && door === null) redirect('/account');
  return { world, user, may: (action) => may(user.role, action) };
}
