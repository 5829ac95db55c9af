import { listOfSetAside } from '../../../../server/intake/set-aside';
import { workspace } from '../../../../server/platform/world';
import { SetAside } from '../../../../ui/sources/view/SetAside';
import { signed } from '../../../session';

export const metadata = { title: 'Set aside' };

export default async function SetAsidePage() {
  const { world, may } = await signed();
  const [items, now, space] = await Promise.all([may('take in') ? listOfSetAside(world) : [], world.clock.now(), workspace(world.db)]);
  return <SetAside items={items} now={now} zone={space.zone} mayTakeIn={may('take in')} />;
}
