import { drafts, flow, flows, latestTrials, ribbon, versions } from '../../../../server/flows/flows';
import { specimens } from '../../../../server/research/specimens';
import { library } from '../../../../server/flows/library';
import { workspace } from '../../../../server/platform/world';
import { Workbench } from '../../../../ui/flows/view/Workbench';
import { orNotFound } from '../../../not-found-or';
import { signed } from '../../../session';

const DAY_MS = 86_400_000;

export const metadata = { title: 'Flow' };

export default async function WorkbenchPage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { world, user, may } = await signed();
  const { id } = await params;
  const row = await orNotFound(flow(world, id));
  const now = await world.clock.now();
  const [names, trials, people, all, day, week, ever, past, space, saved] = await Promise.all([
    library(world),
    latestTrials(world, id),
    specimens(world, id),
    flows(world, 0),
    ribbon(world, id, now - DAY_MS, 'day'),
    ribbon(world, id, now - 7 * DAY_MS, 'week'),
    ribbon(world, id, undefined),
    versions(world, id),
    workspace(world.db),
    drafts(world, id),
  ]);
  const live = past.find((version) => version.id === row.liveVersionId);
  return (
    <Workbench
      key={id}
      flow={{
        id,
        draftText: row.draftText,
        draftNo: row.draftNo,
        drafts: saved,
        live: live ? { no: live.no, text: live.text, since: live.releasedAt, restsSince: row.pausedAt } : null,
        underWay: all.find((entry) => entry.id === id)?.counts?.underWay ?? 0,
      }}
      library={names}
      trials={trials}
      people={people}
      live={{ day, week, all: ever }}
      zone={space.zone}
      userId={user.id}
      mayEdit={may('edit flows')}
      mayRelease={may('release')}
    />
  );
}
