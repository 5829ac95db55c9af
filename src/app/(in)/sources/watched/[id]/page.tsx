import { mailServices, signInServices } from '../../../../../server/access/sign-in-services';
import { watchedDoor } from '../../../../../server/intake/watched';
import { workspace } from '../../../../../server/platform/world';
import { WatchedPage } from '../../../../../ui/sources/view/WatchedPage';
import { orNotFound } from '../../../../not-found-or';
import { signed } from '../../../../session';

export const metadata = { title: 'Door' };

export default async function WatchedRoute({ params }: { readonly params: Promise<{ id: string }> }) {
  const { world, may } = await signed();
  const { id } = await params;
  const view = await orNotFound(watchedDoor(world, id));
  const [now, space, services] = await Promise.all([world.clock.now(), workspace(world.db), signInServices(world)]);
  return (
    <WatchedPage
      mayOpen={may('open papers')}
      key={id}
      view={view}
      now={now}
      zone={space.zone}
      services={mailServices(services)}
      mayChange={may('edit flows')}
      mayTakeIn={may('take in')}
      mayPrivate={may('keep secrets')}
    />
  );
}
