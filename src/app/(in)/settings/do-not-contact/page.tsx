import { doNotContactList } from '../../../../server/messages/do-not-contact';
import { settingsIndex } from '../../../../server/workspace/settings-index';
import { workspace } from '../../../../server/platform/world';
import { NotWrittenTo } from '../../../../ui/settings/view/NotWrittenTo';
import { signed } from '../../../session';

export const metadata = { title: 'Do not contact' };

export default async function DoNotContactPage() {
  const { world, may } = await signed();
  const [index, closed, space] = await Promise.all([settingsIndex(world), doNotContactList(world), workspace(world.db)]);
  return <NotWrittenTo index={index} first={closed} zone={space.zone} mayChange={may('edit flows')} />;
}
