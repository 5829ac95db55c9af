import { liveFlows } from '../../../../../server/flows/flows';
import { personPage, scoreOf } from '../../../../../server/records/records';
import { workspace } from '../../../../../server/platform/world';
import { PersonPage } from '../../../../../ui/records/view/PersonPage';
import { orNotFound } from '../../../../not-found-or';
import { signed } from '../../../../session';

export const metadata = { title: 'Person' };

export default async function PersonRoute({ params }: { readonly params: Promise<{ id: string }> }) {
  const { world, may } = await signed();
  const page = await orNotFound(personPage(world, (await params).id));
  const [live, now, space] = await Promise.all([liveFlows(world), world.clock.now(), workspace(world.db)]);
  return (
    <PersonPage
      key={page.person.id}
      view={{ ...page, score: scoreOf(page.score) }}
      flows={live}
      now={now}
      zone={space.zone}
      mayChange={may('change records')}
      mayStart={may('release')}
      mayDecide={may('decide')}
      mayErase={may('erase')}
    />
  );
}
