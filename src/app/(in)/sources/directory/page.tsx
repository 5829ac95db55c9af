import { liveFlows } from '../../../../server/flows/flows';
import { Directory } from '../../../../ui/sources/view/Directory';
import { signed } from '../../../session';

export const metadata = { title: 'Directory' };

export default async function DirectoryRoute() {
  const { world, may } = await signed();
  return <Directory flows={await liveFlows(world)} mayTakeIn={may('take in')} />;
}
