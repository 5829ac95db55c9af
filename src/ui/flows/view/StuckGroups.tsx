/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { plural } from '../../../core/base';
import { call, sayProblem } from '../../client';
import { countText } from '../../kit/format';
import type { SaidText } from '../../kit/parts';
import { placed } from '../../kit/placed';

export interface StuckGroup {
  readonly key: string;
  readonly line: string;
  readonly why: string;
  readonly held: boolean;
  readonly count: number;
  /** those that came first */
  readonly trips: readonly { readonly id: string; readonly personName: string }[];
}

interface Props {
  readonly groups: readonly StuckGroup[];
  readonly may: boolean;
  readonly onSaid: (said: SaidText) => void;
}

const CHOICES = ['try again', 'skip the line', 'end'] as const;
const SHOWN = 4;
/** More would push the trips themselves off the screen. */
const GROUPS_SHOWN = 3;

/** Trips stuck at one line for one reason are dealt with together. */
export function StuckGroups({ groups, may, onSaid }: Props) {
  const router = useRouter();
  const [all, setAll] = useState(false);
  if (groups.length === 0) return null;
  const choose = (group: StuckGroup, choice: (typeof CHOICES)[number]): void => {
    const [first] = group.trips;
    if (!first) return;
    call('chooseTrips', { body: { alike: first.id, choice } }).then(
      ({ chosen }) => {
        onSaid({ calm: true, text: `${plural(chosen, 'trip')}: ${choice}.` });
        router.refresh();
      },
      (error: unknown) => {
        onSaid({ calm: false, text: sayProblem(error) });
      },
    );
  };
  return (
    <ul className="stuck-groups" aria-label="Stuck trips">
      {(all ? groups : groups.slice(0, GROUPS_SHOWN)).map((group) => (
        <li key={group.key}>
          <span className="grow">
            <span className="in-brick strong">
              ■ {plural(group.count, 'trip')} {group.held ? 'held' : 'stuck'} at {group.line}
            </span>{' '}
            {group.why}
            <span className="quiet small" css={placed({ display: 'block' })}>
              {group.trips
                .slice(0, SHOWN)
                .map((trip) => trip.personName)
                .join(' · ')}
              {group.count > SHOWN ? ` and ${countText(group.count - SHOWN)} more` : ''}
            </span>
          </span>
          {may
            ? CHOICES.map((choice) => (
                <Button
                  key={choice}
                  onClick={() => {
                    choose(group, choice);
                  }}
                >
                  {choice === 'end' ? 'End' : choice === 'try again' ? 'Try again' : 'Skip the line'}
                </Button>
              ))
            : null}
        </li>
      ))}
      {groups.length > GROUPS_SHOWN ? (
        <li>
          <span className="grow quiet">
            {all ? 'The largest groups first.' : `${plural(groups.length - GROUPS_SHOWN, 'smaller group')} of stuck trips below these.`}
          </span>
          <Button
            onClick={() => {
              setAll(!all);
            }}
          >
            {all ? 'Show the largest only' : 'Show all'}
          </Button>
        </li>
      ) : null}
    </ul>
  );
}
