import type { ReactNode } from 'react';
import { readClock } from '../../server/trips/clock';
import { loadCatalogue } from '../../server/records/fields';
import { railCounts } from '../../server/desk/overview';
import { troubles } from '../../server/desk/troubles';
import { FieldsProvider } from '../../ui/client/fields';
import { Shell } from '../../ui/shell/view/Shell';
import { signed } from '../session';

export const dynamic = 'force-dynamic';

export default async function InLayout({ children }: { readonly children: ReactNode }) {
  const { world, user, may } = await signed();
  const [counts, clock, away, fields] = await Promise.all([
    railCounts(world, { userId: user.id, name: user.name }),
    readClock(world),
    troubles(world),
    loadCatalogue(world.db),
  ]);
  return (
    <Shell
      troubles={away}
      rail={{
        ...counts,
        movable: counts.movable && may('move the clock'),
        target: clock.target,
        userName: user.name,
        userTitle: user.title,
      }}
    >
      <FieldsProvider own={fields.own}>{children}</FieldsProvider>
    </Shell>
  );
}
