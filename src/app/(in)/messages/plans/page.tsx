import { things } from '../../../../server/flows/things';
import { ThingList } from '../../../../ui/things/view/ThingList';
import { signed } from '../../../session';

export const metadata = { title: 'Plans' };

export default async function PlansPage() {
  const { world, may } = await signed();
  const [items, now] = await Promise.all([things(world, 'plan'), world.clock.now()]);
  return <ThingList kind="plan" items={items} now={now} mayChange={may('edit flows')} />;
}
