import { numberedLines, parseFlow } from '../../../core/flow/syntax';
import { flows } from '../../../server/flows/flows';
import { startOfDay } from '../../../server/desk/overview';
import { workspace } from '../../../server/platform/world';
import { Flows } from '../../../ui/flows/view/Flows';
import { signed } from '../../session';

export const metadata = { title: 'Flows' };

export default async function FlowsPage() {
  const { world, may } = await signed();
  const [today, all, space] = await Promise.all([flows(world, await startOfDay(world)), flows(world, 0), workspace(world.db)]);
  const rows = today.map((flow) => ({
    id: flow.id,
    name: flow.name,
    live: flow.liveNo === null ? null : { no: flow.liveNo, since: flow.liveSince ?? 0, restsSince: flow.pausedAt },
    lines: numberedLines(parseFlow(flow.draftText).tree.lines).length,
    counts: flow.counts ?? null,
    costAllMicro: all.find((entry) => entry.id === flow.id)?.counts?.costMicro ?? 0,
  }));
  return <Flows flows={rows} zone={space.zone} mayEdit={may('edit flows')} />;
}
