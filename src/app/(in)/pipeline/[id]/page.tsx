import { library } from '../../../../server/flows/library';
import { dealPage } from '../../../../server/records/records';
import { workspace } from '../../../../server/platform/world';
import { DealPage } from '../../../../ui/records/view/DealPage';
import { orNotFound } from '../../../not-found-or';
import { signed } from '../../../session';

export const metadata = { title: 'Deal' };

export default async function DealRoute({ params }: { readonly params: Promise<{ id: string }> }) {
  const { world, may } = await signed();
  const page = await orNotFound(dealPage(world, (await params).id));
  const [now, space, names] = await Promise.all([world.clock.now(), workspace(world.db), library(world)]);
  const stages = names.pipelines.find((pipeline) => pipeline.name === page.deal.pipeline)?.stages ?? [];
  return <DealPage key={page.deal.id} {...page} stages={stages} now={now} zone={space.zone} mayChange={may('change records')} />;
}
