import { providers } from '../../../../server/workspace/providers';
import { settingsIndex } from '../../../../server/workspace/settings-index';
import { Connections } from '../../../../ui/settings/view/Connections';
import { signed } from '../../../session';

export const metadata = { title: 'Connections' };

export default async function ConnectionsPage() {
  const { world, may } = await signed();
  const [index, first] = await Promise.all([settingsIndex(world), providers(world)]);
  return <Connections index={index} first={first} now={Date.now()} mayChange={may('keep secrets')} />;
}
