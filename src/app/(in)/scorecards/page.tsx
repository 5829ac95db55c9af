import { things } from '../../../server/flows/things';
import { ThingList } from '../../../ui/things/view/ThingList';
import { signed } from '../../session';

export const metadata = { title: 'Scorecards' };

export default async function ScorecardsPage() {
  const { world, may } = await signed();
  const [items, now] = await Promise.all([things(world, 'scorecard'), world.clock.now()]);
  return <ThingList kind="scorecard" items={items} now={now} mayChange={may('edit flows')} />;
}
