import { library } from '../../../server/usecases/library';
import { deals } from '../../../server/usecases/records';
import { Pipeline } from '../../../ui/pipeline/view/Pipeline';
import { signed } from '../../session';

export const metadata = { title: 'Pipeline' };

export default async function PipelinePage() {
  const { world, may } = await signed();
  const [names, page, now] = await Promise.all([library(world), deals(world, { limit: 200 }), world.clock.now()]);
  return <Pipeline pipelines={names.pipelines} deals={page.items} now={now} mayChange={may('change records')} />;
}
