import { flow, latestTrials } from '../../../../../server/flows/flows';
import { library } from '../../../../../server/flows/library';
import { forecastAndReal, forecastDraft, history, whatWouldChange, whoCameBefore } from '../../../../../server/flows/releases';
import { flows } from '../../../../../server/flows/flows';
import { workspace } from '../../../../../server/platform/world';
import { Release } from '../../../../../ui/flows/view/Release';
import { orNotFound } from '../../../../not-found-or';
import { signed } from '../../../../session';

export const metadata = { title: 'Release' };
const LAST_TRIPS = 500;
/** Without any trip so far, a forecast for a middling list. */
const FIRST_GUESS = 200;

export default async function ReleasePage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { world, may } = await signed();
  const { id } = await params;
  const row = await orNotFound(flow(world, id));
  const counts = (await flows(world, 0)).find((entry) => entry.id === id)?.counts;
  const sofar = counts ? counts.underWay + counts.done + counts.stopped : 0;
  const changes = whatWouldChange(world, id, LAST_TRIPS);
  // The page awaits it where it is shown; until then nobody would hear that it failed.
  changes.catch(() => undefined);
  const [names, past, forecast, [trial], judged, space, before] = await Promise.all([
    library(world),
    history(world, id),
    forecastDraft(world, id, { records: Math.max(1, sofar || FIRST_GUESS) }),
    latestTrials(world, id),
    forecastAndReal(world, id),
    workspace(world.db),
    whoCameBefore(world, id),
  ]);
  return (
    <Release
      key={`${id} ${row.draftNo} ${row.liveNo ?? 0}`}
      flow={{
        id,
        draftText: row.draftText,
        liveNo: row.liveNo,
        liveText: past.find((version) => version.id === row.liveVersionId)?.text ?? null,
        underWay: counts?.underWay ?? 0,
        cameBefore: before,
      }}
      library={names}
      tried={trial?.text === row.draftText}
      forecast={forecast}
      changes={changes}
      judged={judged}
      versions={past.map(({ id: versionId, no, text, releasedAt, releasedByName }) => ({
        id: versionId,
        no,
        text,
        releasedAt,
        releasedByName,
      }))}
      now={await world.clock.now()}
      zone={space.zone}
      mayRelease={may('release')}
    />
  );
}
