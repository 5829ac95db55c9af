import { COUNTRIES } from '../../../core/fields';
import { settingsIndex } from '../../../server/workspace/settings-index';
import { workspace } from '../../../server/platform/world';
import { Workspace } from '../../../ui/settings/view/Workspace';
import { signed } from '../../session';

export const metadata = { title: 'Settings' };

export default async function SettingsPage() {
  const { world, may } = await signed();
  const [index, space] = await Promise.all([settingsIndex(world), workspace(world.db)]);
  const zones = Intl.supportedValuesOf('timeZone');
  return (
    <Workspace
      index={index}
      first={space}
      zones={zones.includes(space.zone) ? zones : [space.zone, ...zones]}
      countries={COUNTRIES}
      mayChange={may('edit flows')}
    />
  );
}
