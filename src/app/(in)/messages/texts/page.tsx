import { things } from '../../../../server/flows/things';
import { ThingList } from '../../../../ui/things/view/ThingList';
import { signed } from '../../../session';

export const metadata = { title: 'Texts' };

export default async function TextsPage() {
  const { world, may } = await signed();
  const [items, now] = await Promise.all([things(world, 'template'), world.clock.now()]);
  return <ThingList kind="template" items={items} now={now} mayChange={may('edit flows')} />;
}
