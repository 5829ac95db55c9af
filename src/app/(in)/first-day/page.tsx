import { firstDay } from '../../../server/workspace/first-day';
import { examples } from '../../../server/workspace/example';
import { FirstDay } from '../../../ui/first-day/view/FirstDay';
import { signed } from '../../session';

export const metadata = { title: 'First day' };

export default async function FirstDayPage() {
  const { world, may } = await signed();
  const [letter, example] = await Promise.all([firstDay(world), examples(world)]);
  return (
    <FirstDay
      first={letter}
      example={example}
      mayErase={may('erase')}
      zones={Intl.supportedValuesOf('timeZone')}
      mayChange={may('edit flows')}
      mayKeepSecrets={may('keep secrets')}
    />
  );
}
