import { liveFlows } from '../../../server/flows/flows';
import { opening, openings } from '../../../server/intake/openings';
import { Known } from '../../../ui/records/view/Known';
import { loadCatalogue } from '../../../server/records/fields';
import { Openings } from '../../../ui/openings/view/Openings';
import { orNotFound } from '../../not-found-or';
import { signed } from '../../session';

export const metadata = { title: 'Openings' };

export default async function OpeningsPage({ searchParams }: { readonly searchParams: Promise<{ of?: string }> }) {
  const { world, may } = await signed();
  const [{ of }, list, flows, now] = await Promise.all([searchParams, openings(world), liveFlows(world), world.clock.now()]);
  const chosen = of ?? list[0]?.id;
  const view = chosen === undefined ? null : await orNotFound(opening(world, chosen));
  const hasFields = (await loadCatalogue(world.db)).all('opening').some((field) => !field.isStandard);
  return (
    <Openings
      key={chosen ?? ''}
      openings={list}
      view={view}
      known={
        view && hasFields ? (
          <Known known={view.known} of={[{ record: 'opening', id: view.opening.id }]} now={now} mayChange={may('change records')} />
        ) : null
      }
      flows={may('release') ? flows : []}
      now={now}
      mayChange={may('change records')}
    />
  );
}
