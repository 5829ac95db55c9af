import { doors } from '../../../server/usecases/doors';
import { imports } from '../../../server/usecases/imports';
import { Sources } from '../../../ui/sources/view/Sources';
import { signed } from '../../session';

export const metadata = { title: 'Sources' };

export default async function SourcesPage() {
  const { world, may } = await signed();
  const [lists, open, now] = await Promise.all([imports(world), doors(world), world.clock.now()]);
  return <Sources lists={lists} doors={open} now={now} mayTakeIn={may('take in')} />;
}
