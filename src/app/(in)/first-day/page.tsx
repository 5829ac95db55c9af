import { firstDay } from '../../../server/workspace/first-day';
import { FirstDay } from '../../../ui/first-day/view/FirstDay';
import { signed } from '../../session';

export const metadata = { title: 'First day' };

export default async function FirstDayPage() {
  const { world, may } = await signed();
  const letter = await firstDay(world);
  return (
    <FirstDay
      first={letter}
      zones={Intl.supportedValuesOf('timeZone')}
      mayChange={may('edit flows')}
      mayKeepSecrets={may('keep secrets')}
    />
  );
}
