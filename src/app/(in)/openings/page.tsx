import { liveFlows } from '../../../server/usecases/flows';
import { opening, openings } from '../../../server/usecases/openings';
import { Openings } from '../../../ui/openings/view/Openings';
import { orNotFound } from '../../not-found-or';
import { signed } from '../../session';

export const metadata = { title: 'Openings' };

export default async function OpeningsPage({ searchParams }: { readonly searchParams: Promise<{ of?: string }> }) {
  const { world, may } = await signed();
  const [{ of }, list, flows, now] = await Promise.all([searchParams, openings(world), liveFlows(world), world.clock.now()]);
  const chosen = of ?? list[0]?.id;
  const view = chosen === undefined ? null : await orNotFound(opening(world, chosen));
  return (
    <Openings
      key={chosen ?? ''}
      openings={list}
      view={view}
      flows={may('release') ? flows : []}
      now={now}
      mayChange={may('change records')}
    />
  );
}
