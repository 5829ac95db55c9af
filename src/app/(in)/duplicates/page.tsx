import { pairs } from '../../../server/desk/overview';
import { Duplicates } from '../../../ui/duplicates/view/Duplicates';
import { signed } from '../../session';

export const metadata = { title: 'Duplicates' };

export default async function DuplicatesPage() {
  const { world } = await signed();
  const [{ open, decided }, now] = await Promise.all([pairs(world), world.clock.now()]);
  return <Duplicates open={open} decided={decided} now={now} />;
}
