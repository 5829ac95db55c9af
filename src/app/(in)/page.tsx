import { flows, narrowRibbon } from '../../server/flows/flows';
import { stillMissing } from '../../server/workspace/first-day';
import { lately, startOfDay, todaysSends } from '../../server/desk/overview';
import { desk } from '../../server/desk/reviews';
import { Desk } from '../../ui/desk/view/Desk';
import { signed } from '../session';
import FirstDayPage from './first-day/page';

const DAY_MS = 86_400_000;

export const metadata = { title: 'Desk' };

export default async function DeskPage() {
  const { world, user, may } = await signed();
  const now = await world.clock.now();
  const [open, sends, live, last, { isEmpty, missing }] = await Promise.all([
    desk(world, { userId: user.id, name: user.name }),
    todaysSends(world),
    flows(world, await startOfDay(world)),
    lately(world),
    stillMissing(world),
  ]);
  // Nobody is on record and no flow runs: what there is to do is the letter.
  if (isEmpty) return <FirstDayPage />;
  const narrow = await Promise.all(live.map((flow) => narrowRibbon(world, flow, now - DAY_MS)));
  return (
    <Desk
      desk={open}
      sends={sends}
      now={now}
      lately={last}
      missing={missing}
      mayDecide={may('decide')}
      mayDealWithTrips={may('deal with trips')}
      flows={live.map((flow, i) => ({
        id: flow.id,
        name: flow.name,
        live: flow.liveNo !== null,
        counts: flow.counts ?? null,
        widths: narrow[i] ?? [],
      }))}
    />
  );
}
