import Link from 'next/link';
import { call } from '../../client';
import type { StuckView } from '../state/types';
import { Body, Deeds, type DecisionProps } from './parts';

export function OpenStuck({ group, decide, mayDealWithTrips }: DecisionProps & { readonly group: readonly StuckView[] }) {
  const choose = (choice: 'try again' | 'skip the line' | 'end') => () => {
    decide(call('chooseTrips', { body: { tripIds: group.map((trip) => trip.id), choice } }));
  };
  return (
    <Body>
      <p>{group[0]?.why}. Nothing else is held up by this.</p>
      <div className="small">
        {group.slice(0, 12).map((trip, i) => (
          <span key={trip.id}>
            {i > 0 ? ' · ' : ''}
            <Link href={`/trips/${trip.id}`}>{trip.personName}</Link>
            {trip.companyName ? <span className="quiet"> {trip.companyName}</span> : null}
          </span>
        ))}
        {group.length > 12 ? ` and ${group.length - 12} more` : ''}
      </div>
      <Deeds
        off={!mayDealWithTrips}
        deeds={[
          { key: 'a', label: 'Try again', main: true, run: choose('try again') },
          { key: 's', label: 'Skip the line', run: choose('skip the line') },
          { key: 'x', label: 'End', run: choose('end') },
        ]}
      />
    </Body>
  );
}
