import type { ReactNode } from 'react';
import { rail } from '../../server/desk/rail';
import { loadCatalogue } from '../../server/records/fields';
import { FieldsProvider } from '../../ui/client/fields';
import { Shell } from '../../ui/shell/view/Shell';
import { signed } from '../session';

export const dynamic = 'force-dynamic';

export default async function InLayout({ children }: { readonly children: ReactNode }) {
  const { world, user } = await signed('second factor');
  const [around, fields] = await Promise.all([rail(world, { userId: user.id, name: user.name }, user.role), loadCatalogue(world.db)]);
  return (
    <Shell rail={around} who={user.name}>
      <FieldsProvider own={fields.own}>{children}</FieldsProvider>
    </Shell>
  );
}
