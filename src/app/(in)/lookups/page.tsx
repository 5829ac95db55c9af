import { library } from '../../../server/flows/library';
import { lookups } from '../../../server/desk/overview';
import { Lookups } from '../../../ui/lookups/view/Lookups';
import { signed } from '../../session';

export const metadata = { title: 'Lookups' };

export default async function LookupsPage() {
  const { world } = await signed();
  const [names, figures] = await Promise.all([library(world), lookups(world)]);
  return <Lookups chains={names.chains} figures={figures} />;
}
