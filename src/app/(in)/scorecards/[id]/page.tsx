import { thing } from '../../../../server/flows/things';
import { workspace } from '../../../../server/platform/world';
import { ScorecardBench } from '../../../../ui/things/view/ScorecardBench';
import { orNotFound } from '../../../not-found-or';
import { signed } from '../../../session';

export const metadata = { title: 'Scorecard' };

export default async function ScorecardPage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { world, may } = await signed();
  const { id } = await params;
  const [view, space] = await Promise.all([orNotFound(thing(world, id)), workspace(world.db)]);
  return <ScorecardBench key={id} first={view} zone={space.zone} mayChange={may('edit flows')} />;
}
