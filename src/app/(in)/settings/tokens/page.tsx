import type { TokenShape } from '../../../../api';
import { toWire } from '../../../../server/http/answer';
import { settingsIndex } from '../../../../server/workspace/settings-index';
import { tokens } from '../../../../server/access/tokens';
import { Tokens, TokensClosed } from '../../../../ui/settings/view/Tokens';
import { signed } from '../../../session';

export const metadata = { title: 'Tokens' };

export default async function TokensPage() {
  const { world, may } = await signed();
  const index = await settingsIndex(world);
  if (!may('keep secrets')) return <TokensClosed index={index} />;
  return <Tokens index={index} first={toWire(await tokens(world)) as TokenShape[]} now={Date.now()} />;
}
