import { things } from '../../../../server/flows/things';
import { ThingList } from '../../../../ui/things/view/ThingList';
import { signed } from '../../../session';

export const metadata = { title: 'Lookup chains' };

export default async function ChainsPage() {
  const { world, may } = await signed();
  const [items, now] = await Promise.all([things(world, 'chain'), world.clock.now()]);
  return <ThingList kind="chain" items={items} now={now} mayChange={may('edit flows')} />;
}
