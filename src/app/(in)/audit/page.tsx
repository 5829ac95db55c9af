import { auditPage } from '../../../server/access/audit';
import { workspace } from '../../../server/platform/world';
import { Audit } from '../../../ui/settings/view/Audit';
import { signed } from '../../session';

export const metadata = { title: 'Audit' };

export default async function AuditRoute({ searchParams }: { readonly searchParams: Promise<{ search?: string; cursor?: string }> }) {
  const { world, may } = await signed();
  const { search, cursor } = await searchParams;
  const mayRead = may('read the audit');
  const before = cursor !== undefined && /^\d{1,15}$/.test(cursor) ? cursor : undefined;
  const [page, space] = await Promise.all([
    mayRead ? auditPage(world, { search: search?.slice(0, 200), cursor: before }) : { items: [], next: null },
    workspace(world.db),
  ]);
  return (
    <Audit
      key={`${search ?? ''} ${before ?? ''}`}
      {...page}
      search={search ?? ''}
      isFirst={before === undefined}
      zone={space.zone}
      mayRead={mayRead}
    />
  );
}
