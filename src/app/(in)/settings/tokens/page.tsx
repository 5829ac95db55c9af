import { workspace } from '../../../../server/platform/world';
import { settingsIndex } from '../../../../server/workspace/settings-index';
import { tokens } from '../../../../server/access/tokens';
import { Tokens, TokensClosed } from '../../../../ui/settings/view/Tokens';
import { signed } from '../../../session';

export const metadata = { title: 'Tokens' };

export default async function TokensPage() {
  const { world, may } = await signed();
  const index = await settingsIndex(world);
  if (!may('keep secrets')) return <TokensClosed index={index} />;
  return <Tokens index={index} first={await tokens(world)} now={Date.now()} zone={(await workspace(world.db)).zone} />;
}
