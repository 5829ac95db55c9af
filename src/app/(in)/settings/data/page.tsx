import { examples } from '../../../../server/workspace/example';
import { erasurePreview } from '../../../../server/workspace/erase';
import { keepingView } from '../../../../server/workspace/keeping';
import { workspace } from '../../../../server/platform/world';
import { settingsIndex } from '../../../../server/workspace/settings-index';
import { Data } from '../../../../ui/settings/view/Data';
import { orNotFound } from '../../../not-found-or';
import { signed } from '../../../session';

export const metadata = { title: 'Data' };

export default async function DataPage({ searchParams }: { readonly searchParams: Promise<{ readonly person?: string }> }) {
  const { world, may } = await signed();
  const { person } = await searchParams;
  const mayErase = may('erase');
  const [index, keeping, { zone }, example] = await Promise.all([
    settingsIndex(world),
    keepingView(world),
    workspace(world.db),
    examples(world),
  ]);
  const about = mayErase && person !== undefined ? { id: person, ...(await orNotFound(erasurePreview(world, person))) } : null;
  return <Data key={person ?? ''} index={index} first={keeping} about={about} zone={zone} mayErase={mayErase} example={example} />;
}
