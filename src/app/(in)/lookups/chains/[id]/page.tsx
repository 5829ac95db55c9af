import { providers } from '../../../../../server/workspace/providers';
import { thing } from '../../../../../server/flows/things';
import { workspace } from '../../../../../server/platform/world';
import { ChainBench } from '../../../../../ui/things/view/ChainBench';
import { orNotFound } from '../../../../not-found-or';
import { signed } from '../../../../session';

export const metadata = { title: 'Lookup chain' };

export default async function ChainPage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { world, may } = await signed();
  const { id } = await params;
  const [view, described, space] = await Promise.all([orNotFound(thing(world, id)), providers(world), workspace(world.db)]);
  const names = described.flatMap(({ provider }) => (provider.finds === 'value' ? [provider.name] : []));
  return <ChainBench key={id} first={view} described={names} zone={space.zone} mayChange={may('edit flows')} />;
}
