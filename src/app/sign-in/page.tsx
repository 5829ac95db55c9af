import { users } from '../../server/usecases/access';
import { webWorld } from '../../server/wire/web';
import { toldAway } from '../session';
import { SignIn } from '../../ui/session/view/SignIn';

export const dynamic = 'force-dynamic';

export default async function SignInPage() {
  const world = webWorld();
  const people = world.isDemo
    ? (await users(world).catch(toldAway)).map(({ email, name, role, title }) => ({ email, name, role, title }))
    : [];
  return <SignIn people={people} />;
}
