import { thing } from '../../../../../server/flows/things';
import { workspace } from '../../../../../server/platform/world';
import { PipelineBench } from '../../../../../ui/things/view/PipelineBench';
import { orNotFound } from '../../../../not-found-or';
import { signed } from '../../../../session';

export const metadata = { title: 'Pipeline' };

export default async function StagesPage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { world, may } = await signed();
  const { id } = await params;
  const [view, space] = await Promise.all([orNotFound(thing(world, id)), workspace(world.db)]);
  return <PipelineBench key={id} first={view} zone={space.zone} mayChange={may('edit flows')} />;
}
