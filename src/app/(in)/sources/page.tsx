import { doors } from '../../../server/intake/doors';
import { imports } from '../../../server/intake/imports';
import { setAsideCounts } from '../../../server/intake/set-aside';
import { Sources } from '../../../ui/sources/view/Sources';
import { signed } from '../../session';

export const metadata = { title: 'Sources' };

export default async function SourcesPage() {
  const { world, may } = await signed();
  const [lists, open, now, aside] = await Promise.all([imports(world), doors(world), world.clock.now(), setAsideCounts(world)]);
  const count = [...aside.values()].reduce((sum, one) => sum + one, 0);
  return <Sources lists={lists} doors={open} now={now} aside={count} mayTakeIn={may('take in')} />;
}
