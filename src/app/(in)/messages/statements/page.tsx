import { neverSaid, statements } from '../../../../server/flows/things';
import { Statements } from '../../../../ui/things/view/Statements';
import { signed } from '../../../session';

export const metadata = { title: 'Said of ourselves' };

export default async function StatementsPage() {
  const { world, may } = await signed();
  const [said, never] = await Promise.all([statements(world.db), neverSaid(world.db)]);
  return <Statements first={said} never={never} mayChange={may('edit flows')} />;
}
