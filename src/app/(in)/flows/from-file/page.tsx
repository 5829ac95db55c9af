import { library } from '../../../../server/flows/library';
import { FromFile } from '../../../../ui/flows/view/FromFile';
import { signed } from '../../../session';

export const metadata = { title: 'A flow from a file' };

export default async function FromFilePage() {
  const { world, may } = await signed();
  return <FromFile library={await library(world)} mayEdit={may('edit flows')} />;
}
