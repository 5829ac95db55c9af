import { RECORD_KINDS } from '../../../../core/base';
import { fieldsView } from '../../../../server/records/change-fields';
import { settingsIndex } from '../../../../server/workspace/settings-index';
import { Fields } from '../../../../ui/settings/view/Fields';
import { signed } from '../../../session';

export const metadata = { title: 'Fields' };

interface Props {
  readonly searchParams: Promise<{ readonly record?: string; readonly make?: string }>;
}

export default async function FieldsPage({ searchParams }: Props) {
  const { world, may } = await signed();
  const { record, make } = await searchParams;
  const kind = RECORD_KINDS.find((entry) => entry === record) ?? 'company';
  const [index, first] = await Promise.all([settingsIndex(world), fieldsView(world, kind)]);
  return <Fields key={kind} index={index} first={first} make={make ?? ''} mayChange={may('edit flows')} />;
}
