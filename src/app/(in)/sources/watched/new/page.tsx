import { mailServices, signInServices } from '../../../../../server/access/sign-in-services';
import { ourHosts } from '../../../../../server/intake/doors';
import { NewWatched } from '../../../../../ui/sources/view/NewWatched';
import { signed } from '../../../../session';

export const metadata = { title: 'New door' };

export default async function NewWatchedRoute({ searchParams }: { readonly searchParams: Promise<{ kind?: string }> }) {
  const { world, may } = await signed();
  const { kind } = await searchParams;
  const [hosts, services] = await Promise.all([ourHosts(world), signInServices(world)]);
  return (
    <NewWatched
      kind={kind === 'calendar' ? 'calendar' : 'mailbox'}
      ourHosts={hosts}
      services={mailServices(services)}
      mayPrivate={may('keep secrets')}
    />
  );
}
