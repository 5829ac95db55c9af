import { ourHosts } from '../../../../../server/intake/doors';
import { NewWatched } from '../../../../../ui/sources/view/NewWatched';
import { signed } from '../../../../session';

export const metadata = { title: 'New door' };

export default async function NewWatchedRoute({ searchParams }: { readonly searchParams: Promise<{ kind?: string }> }) {
  const { world, may } = await signed();
  const { kind } = await searchParams;
  return (
    <NewWatched kind={kind === 'calendar' ? 'calendar' : 'mailbox'} ourHosts={await ourHosts(world)} mayPrivate={may('keep secrets')} />
  );
}
