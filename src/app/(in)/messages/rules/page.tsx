import { corrections } from '../../../../server/messages/corrections';
import { holdRules } from '../../../../server/messages/holding';
import { workspace } from '../../../../server/platform/world';
import { HoldRules } from '../../../../ui/messages/view/HoldRules';
import { MessageTabs } from '../../../../ui/things/view/MessageTabs';
import { signed } from '../../../session';

export const metadata = { title: 'Hold or send' };

export default async function HoldRulesPage({ searchParams }: { readonly searchParams: Promise<{ mailbox?: string }> }) {
  const { world, may } = await signed();
  const [view, taught, space, { mailbox = '' }] = await Promise.all([
    holdRules(world),
    corrections(world),
    workspace(world.db),
    searchParams,
  ]);
  return (
    <HoldRules
      view={view}
      taught={taught.items}
      mayForget={may('decide')}
      mailbox={mailbox}
      mayChange={may('edit flows')}
      zone={space.zone}
      tabs={<MessageTabs on="rules" />}
    />
  );
}
