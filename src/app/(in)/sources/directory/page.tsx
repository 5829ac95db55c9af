import { liveFlows } from '../../../../server/flows/flows';
import { searchServices } from '../../../../server/workspace/providers';
import { Directory } from '../../../../ui/sources/view/Directory';
import { signed } from '../../../session';

export const metadata = { title: 'Directory' };

export default async function DirectoryRoute() {
  const { world, may } = await signed();
  const [flows, services] = await Promise.all([liveFlows(world), searchServices(world)]);
  return <Directory flows={flows} mayTakeIn={may('take in')} services={services} />;
}
