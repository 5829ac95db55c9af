import { statements } from '../../../../server/flows/things';
import { Statements } from '../../../../ui/things/view/Statements';
import { signed } from '../../../session';

export const metadata = { title: 'Said of ourselves' };

export default async function StatementsPage() {
  const { world, may } = await signed();
  return <Statements first={await statements(world.db)} mayChange={may('edit flows')} />;
}
