import { researchSettings } from '../../../../server/research/research-settings';
import { settingsIndex } from '../../../../server/workspace/settings-index';
import { Reading } from '../../../../ui/settings/view/Reading';
import { signed } from '../../../session';

export const metadata = { title: 'Questions and reading' };

export default async function ReadingPage() {
  const { world, may } = await signed();
  const [index, research] = await Promise.all([settingsIndex(world), researchSettings(world)]);
  return <Reading index={index} research={research} mayChange={may('edit flows')} />;
}
