import { numberedLines, parseFlow } from '../../../../../core/flow/syntax';
import { flow, versions } from '../../../../../server/flows/flows';
import { tripCounts, trips } from '../../../../../server/desk/overview';
import { stuckGroups } from '../../../../../server/trips/stuck';
import { workspace } from '../../../../../server/platform/world';
import { Trips } from '../../../../../ui/flows/view/Trips';
import { orNotFound } from '../../../../not-found-or';
import { signed } from '../../../../session';

interface Props {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<{ state?: string; mark?: string; cursor?: string }>;
}

export const metadata = { title: 'Trips' };

export default async function TripsPage({ params, searchParams }: Props) {
  const { world, may } = await signed();
  const [{ id }, { state, mark, cursor }] = [await params, await searchParams];
  const row = await orNotFound(flow(world, id));
  const [page, past, space, now, counts, stuck] = await Promise.all([
    orNotFound(trips(world, { flowId: id, state, mark, cursor, limit: 100 })),
    versions(world, id),
    workspace(world.db),
    world.clock.now(),
    tripCounts(world, id, row.liveVersionId),
    stuckGroups(world, id),
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
  const live = past.find((version) => version.id === row.liveVersionId) ?? past[0];
  const lines = numberedLines(parseFlow(live?.text ?? row.draftText).tree.lines).map(({ line, number }) => ({
    mark: line.mark,
    label: `line ${number} ${line.step.verb}`,
  }));
  return (
    <Trips
      flow={{ id, name: row.name, paused: row.pausedAt !== null, underWay: counts.underWay, older: counts.older }}
      trips={rows}
      next={page.next}
      state={state}
      mark={mark}
      now={now}
      zone={space.zone}
      counts={counts.by}
      groups={stuck}
      lines={lines}
      mayControl={may('release')}
      mayDealWithTrips={may('deal with trips')}
    />
  );
}
