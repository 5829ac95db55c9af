import { cookies } from 'next/headers';
import { actionsOf } from '../../../server/access/may';
import { SESSION_COOKIE } from '../../../server/http/answer';
import { sessionsOf } from '../../../server/access/access';
import { factorView } from '../../../server/access/second-factor';
import { telling } from '../../../server/desk/telling';
import { workspace } from '../../../server/platform/world';
import { Account } from '../../../ui/settings/view/Account';
import { signed } from '../../session';

export const metadata = { title: 'My account' };

export default async function AccountRoute() {
  const { world, user } = await signed('second factor');
  const token = (await cookies()).get(SESSION_COOKIE)?.value;
  const actor = { userId: user.id, name: user.name };
  const [sessions, space, factor, told] = await Promise.all([
    sessionsOf(world, user.id, token),
    workspace(world.db),
    factorView(world, actor),
    telling(world, actor),
  ]);
  return <Account user={{ ...user, may: actionsOf(user.role) }} sessions={sessions} factor={factor} told={told} zone={space.zone} />;
}
