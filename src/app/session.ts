import 'server-only';
import { cookies } from 'next/headers';
import { redirect } from 'next/navigation';
import { may, type Action } from '../server/access';
import { SESSION_COOKIE } from '../server/http/answer';
import { sessionUser } from '../server/usecases/access';
import type { World } from '../server/usecases/world';
import { webWorld } from '../server/wire/web';

export interface Signed {
  readonly world: World;
  readonly user: NonNullable<Awaited<ReturnType<typeof sessionUser>>>;
  readonly may: (action: Action) => boolean;
}

/** The world and who is signed in; everybody else is led to the door. */
export async function signed(): Promise<Signed> {
  const world = webWorld();
  const user = await sessionUser(world, (await cookies()).get(SESSION_COOKIE)?.value);
  if (!user) redirect('/sign-in');
  return { world, user, may: (action) => may(user.role, action) };
}
