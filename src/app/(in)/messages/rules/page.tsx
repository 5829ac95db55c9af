import { holdRules } from '../../../../server/usecases/holding';
import { workspace } from '../../../../server/usecases/world';
import { HoldRules } from '../../../../ui/messages/view/HoldRules';
import { MessageTabs } from '../../../../ui/things/view/MessageTabs';
import { signed } from '../../../session';

export const metadata = { title: 'Hold or send' };

export default async function HoldRulesPage({ searchParams }: { readonly searchParams: Promise<{ mailbox?: string }> }) {
  const { world, may } = await signed();
  const [view, space, { mailbox = '' }] = await Promise.all([holdRules(world), workspace(world.db), searchParams]);
  return <HoldRules view={view} mailbox={mailbox} mayChange={may('edit flows')} zone={space.zone} tabs={<MessageTabs on="rules" />} />;
}
