import { channelOf } from '../../../../../core/writer';
import { library } from '../../../../../server/flows/library';
import { thing } from '../../../../../server/flows/things';
import { workspace } from '../../../../../server/platform/world';
import { PlanBench } from '../../../../../ui/things/view/PlanBench';
import { orNotFound } from '../../../../not-found-or';
import { signed } from '../../../../session';

export const metadata = { title: 'Plan' };

export default async function PlanPage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { world, may } = await signed();
  const { id } = await params;
  const [view, space, known] = await Promise.all([orNotFound(thing(world, id)), workspace(world.db), library(world)]);
  return (
    <PlanBench
      key={id}
      first={view}
      texts={known.templates.map((text) => ({ name: text.name, channel: channelOf(text) }))}
      mailboxes={known.connections}
      zone={space.zone}
      mayChange={may('edit flows')}
    />
  );
}
