import { erasurePreview } from '../../../../server/workspace/erase';
import { keepingView } from '../../../../server/workspace/keeping';
import { settingsIndex } from '../../../../server/workspace/settings-index';
import { Data } from '../../../../ui/settings/view/Data';
import { orNotFound } from '../../../not-found-or';
import { signed } from '../../../session';

export const metadata = { title: 'Data' };

export default async function DataPage({ searchParams }: { readonly searchParams: Promise<{ readonly person?: string }> }) {
  const { world, may } = await signed();
  const { person } = await searchParams;
  const mayErase = may('erase');
  const [index, keeping] = await Promise.all([settingsIndex(world), keepingView(world)]);
  const about = mayErase && person !== undefined ? { id: person, ...(await orNotFound(erasurePreview(world, person))) } : null;
  return <Data key={person ?? ''} index={index} first={keeping} about={about} mayErase={mayErase} />;
}
