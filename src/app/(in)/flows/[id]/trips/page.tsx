import { numberedLines, parseFlow } from '../../../../../core/flow/syntax';
import { flow, versions } from '../../../../../server/usecases/flows';
import { trips } from '../../../../../server/usecases/overview';
import { workspace } from '../../../../../server/usecases/world';
import { Trips } from '../../../../../ui/flows/view/Trips';
import { orNotFound } from '../../../../not-found-or';
import { signed } from '../../../../session';

interface Props {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<{ state?: string; cursor?: string }>;
}

export const metadata = { title: 'Trips' };

export default async function TripsPage({ params, searchParams }: Props) {
  const { world } = await signed();
  const [{ id }, { state, cursor }] = [await params, await searchParams];
  const row = await orNotFound(flow(world, id));
  const [page, past, space, now] = await Promise.all([
    orNotFound(trips(world, { flowId: id, state, cursor, limit: 100 })),
    versions(world, id),
    workspace(world.db),
    world.clock.now(),
  ]);
  const numbers = new Map(
    past.map((version) => [
      version.id,
      new Map(numberedLines(parseFlow(version.text).tree.lines).map((entry) => [entry.line.mark, entry.number])),
    ]),
  );
  const rows = page.items.map((trip) => ({
    ...trip,
    line: trip.versionId && trip.mark ? (numbers.get(trip.versionId)?.get(trip.mark) ?? null) : null,
  }));
  return <Trips flow={{ id, name: row.name }} trips={rows} next={page.next} state={state} now={now} zone={space.zone} />;
}
