import { trip } from '../../../../server/desk/overview';
import { factsBehind } from '../../../../server/records/records';
import { workspace } from '../../../../server/platform/world';
import { Trip } from '../../../../ui/flows/view/Trip';
import { orNotFound } from '../../../not-found-or';
import { signed } from '../../../session';

export const metadata = { title: 'Trip' };

export default async function TripPage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { world, may } = await signed();
  const { trip: row, journal, text } = await orNotFound(trip(world, (await params).id));
  const [facts, space] = await Promise.all([factsBehind(world, row.personId), workspace(world.db)]);
  const why = typeof row.stateDetail.why === 'string' ? row.stateDetail.why : '';
  return (
    <Trip
      key={row.id}
      trip={{ ...row, why }}
      text={text}
      journal={journal}
      facts={facts}
      zone={space.zone}
      mayDeal={may('deal with trips')}
    />
  );
}
