import { things } from '../../../../server/flows/things';
import { ThingList } from '../../../../ui/things/view/ThingList';
import { signed } from '../../../session';

export const metadata = { title: 'Pipelines' };

export default async function PipelinesPage() {
  const { world, may } = await signed();
  const [items, now] = await Promise.all([things(world, 'pipeline'), world.clock.now()]);
  return <ThingList kind="pipeline" items={items} now={now} mayChange={may('edit flows')} />;
}
