import { mailboxViews } from '../../../../server/messages/mailboxes';
import { budgetsView } from '../../../../server/workspace/budgets';
import { settingsIndex } from '../../../../server/workspace/settings-index';
import { Limits } from '../../../../ui/settings/view/Limits';
import { signed } from '../../../session';

export const metadata = { title: 'Limits and budgets' };

export default async function LimitsPage() {
  const { world, may } = await signed();
  const [index, budgets, boxes] = await Promise.all([settingsIndex(world), budgetsView(world), mailboxViews(world)]);
  return <Limits index={index} first={budgets} boxes={boxes} mayChange={may('keep secrets')} />;
}
