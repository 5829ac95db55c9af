import { cookies } from 'next/headers';
import { actionsOf } from '../../../server/access/may';
import { SESSION_COOKIE } from '../../../server/http/answer';
import { sessionsOf } from '../../../server/access/access';
import { factorView } from '../../../server/access/second-factor';
import { workspace } from '../../../server/platform/world';
import { Account } from '../../../ui/settings/view/Account';
import { signed } from '../../session';

export const metadata = { title: 'My account' };

export default async function AccountRoute() {
  const { world, user } = await signed('second factor');
  const token = (await cookies()).get(SESSION_COOKIE)?.value;
  const [sessions, space, factor] = await Promise.all([
    sessionsOf(world, user.id, token),
    workspace(world.db),
    factorView(world, { userId: user.id, name: user.name }),
  ]);
  return <Account user={{ ...user, may: actionsOf(user.role) }} sessions={sessions} factor={factor} zone={space.zone} />;
}
