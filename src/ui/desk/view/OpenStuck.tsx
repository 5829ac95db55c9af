/** @jsxImportSource @emotion/react */
import { TextField } from '@mui/material';
import Link from '../../kit/Link';
import { useState } from 'react';
import { call } from '../../client';
import { countText } from '../../kit/format';
import type { StuckView } from '../state/types';
import { Body, Deeds, type DecisionProps } from './parts';
import { placed } from '../../kit/placed';

export function OpenStuck({ group, decide, mayDealWithTrips }: DecisionProps & { readonly group: StuckView }) {
  const [value, setValue] = useState('');
  const hand = group.byHand;
  const [first] = group.trips;
  const choose = (choice: 'try again' | 'skip the line' | 'set by hand' | 'end') => () => {
    if (first) decide(call('chooseTrips', { body: { alike: first.id, choice, ...(choice === 'set by hand' && { value }) } }));
  };
  return (
    <Body>
      <p>{group.why}. Nothing else is held up by this.</p>
      <div className="small">
        {group.trips.map((trip, i) => (
          <span key={trip.id}>
            {i > 0 ? ' · ' : ''}
            <Link href={`/trips/${trip.id}`}>{trip.personName}</Link>
            {trip.companyName ? <span className="quiet"> {trip.companyName}</span> : null}
          </span>
        ))}
        {group.count > group.trips.length ? ` and ${countText(group.count - group.trips.length)} more` : ''}
      </div>
      {hand && mayDealWithTrips ? (
        <form
          css={placed({ display: 'flex', gap: 8, alignItems: 'center' })}
          onSubmit={(event) => {
            event.preventDefault();
            if (value.trim() !== '') choose('set by hand')();
          }}
        >
          <TextField
            size="small"
            label={`${hand.label}${hand.unit ? `, ${hand.unit}` : ''}, by hand${group.count > 1 ? ` for all ${countText(group.count)}` : ''}`}
            value={value}
            onChange={(event) => {
              setValue(event.target.value);
            }}
            css={placed({ width: 320 })}
          />
          <span className="quiet small">
            <kbd>Enter</kbd> sets it and goes on
          </span>
        </form>
      ) : null}
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
