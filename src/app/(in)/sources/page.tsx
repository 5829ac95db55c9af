import { imports } from '../../../server/usecases/imports';
import { Sources } from '../../../ui/sources/view/Sources';
import { signed } from '../../session';

export const metadata = { title: 'Sources' };

export default async function SourcesPage() {
  const { world, may } = await signed();
  return <Sources lists={await imports(world)} now={await world.clock.now()} mayTakeIn={may('take in')} />;
}
