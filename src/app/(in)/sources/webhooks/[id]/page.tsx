import { webhookIntake } from '../../../../../server/intake/webhook-intakes';
import { workspace } from '../../../../../server/platform/world';
import { WebhookPage } from '../../../../../ui/sources/view/WebhookPage';
import { orNotFound } from '../../../../not-found-or';
import { signed } from '../../../../session';

export const metadata = { title: 'Webhook' };

export default async function WebhookRoute({ params }: { readonly params: Promise<{ id: string }> }) {
  const { world, may } = await signed();
  const { id } = await params;
  const view = await orNotFound(webhookIntake(world, id));
  const [now, space] = await Promise.all([world.clock.now(), workspace(world.db)]);
  return (
    <WebhookPage
      mayOpen={may('open papers')}
      key={id}
      view={view}
      now={now}
      zone={space.zone}
      publicUrl={world.publicUrl}
      mayChange={may('take in')}
    />
  );
}
