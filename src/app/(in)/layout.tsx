import type { ReactNode } from 'react';
import { readClock } from '../../server/usecases/clock';
import { railCounts } from '../../server/usecases/overview';
import { troubles } from '../../server/usecases/troubles';
import { Shell } from '../../ui/shell/view/Shell';
import { signed } from '../session';

export const dynamic = 'force-dynamic';

export default async function InLayout({ children }: { readonly children: ReactNode }) {
  const { world, user, may } = await signed();
  const [counts, clock, away] = await Promise.all([
    railCounts(world, { userId: user.id, name: user.name }),
    readClock(world),
    troubles(world),
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
      {children}
    </Shell>
  );
}
