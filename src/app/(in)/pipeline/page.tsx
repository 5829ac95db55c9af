import { liveFlows } from '../../../server/flows/flows';
import { library } from '../../../server/flows/library';
import { counts, deals } from '../../../server/records/records';
import { Pipeline } from '../../../ui/pipeline/view/Pipeline';
import { signed } from '../../session';

export const metadata = { title: 'Pipeline' };

export default async function PipelinePage() {
  const { world, may } = await signed();
  const [names, page, total, flows, now] = await Promise.all([
    library(world),
    deals(world, { limit: 200 }),
    counts(world),
    liveFlows(world, 'deal'),
    world.clock.now(),
  ]);
  return (
    <Pipeline
      pipelines={names.pipelines}
      deals={page.items}
      total={total.deals}
      flows={may('release') ? flows : []}
      now={now}
      mayChange={may('change records')}
    />
  );
}
