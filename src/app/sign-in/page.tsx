import { demoDoor } from '../../server/access/access';
import { webWorld } from '../../server/wire/web';
import { refusalText } from '../../core/sign-in';
import { doorServices } from '../../server/access/sign-in-elsewhere';
import { toldAway } from '../session';
import { SignIn } from '../../ui/session/view/SignIn';

export const dynamic = 'force-dynamic';

export default async function SignInPage({ searchParams }: { readonly searchParams: Promise<{ readonly refused?: string }> }) {
  const world = webWorld();
  const [demo, services, { refused }] = await Promise.all([demoDoor(world), doorServices(world), searchParams]).catch(toldAway);
  return <SignIn demo={demo} services={services} refused={refusalText(refused) ?? null} />;
}
