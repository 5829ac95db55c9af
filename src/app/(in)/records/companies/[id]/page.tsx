import { companyPage } from '../../../../../server/records/records';
import { workspace } from '../../../../../server/platform/world';
import { CompanyPage } from '../../../../../ui/records/view/CompanyPage';
import { orNotFound } from '../../../../not-found-or';
import { signed } from '../../../../session';

export const metadata = { title: 'Company' };

export default async function CompanyRoute({ params }: { readonly params: Promise<{ id: string }> }) {
  const { world, may } = await signed();
  const page = await orNotFound(companyPage(world, (await params).id));
  const [now, space] = await Promise.all([world.clock.now(), workspace(world.db)]);
  return <CompanyPage key={page.company.id} {...page} now={now} zone={space.zone} mayChange={may('change records')} />;
}
