'use client';
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { plural } from '../../../core/base';
import { call, sayProblem } from '../../client';
import type { SaidText } from '../../kit/parts';

export interface StuckGroup {
  readonly key: string;
  readonly line: string;
  readonly why: string;
  readonly held: boolean;
  readonly tripIds: readonly string[];
  readonly names: readonly string[];
}

interface Props {
  readonly groups: readonly StuckGroup[];
  readonly may: boolean;
  readonly onSaid: (said: SaidText) => void;
}

const CHOICES = ['try again', 'skip the line', 'end'] as const;
const SHOWN = 4;

/** Trips stuck at one line for one reason are dealt with together. */
export function StuckGroups({ groups, may, onSaid }: Props) {
  const router = useRouter();
  if (groups.length === 0) return null;
  const choose = (group: StuckGroup, choice: (typeof CHOICES)[number]): void => {
    call('chooseTrips', { body: { tripIds: group.tripIds.slice(0, 500), choice } }).then(
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
      {groups.map((group) => (
        <li key={group.key}>
          <span className="grow">
            <span className="in-brick strong">
              ■ {plural(group.tripIds.length, 'trip')} {group.held ? 'held' : 'stuck'} at {group.line}
            </span>{' '}
            {group.why}
            <span className="quiet small" style={{ display: 'block' }}>
              {group.names.slice(0, SHOWN).join(' · ')}
              {group.names.length > SHOWN ? ` and ${group.names.length - SHOWN} more` : ''}
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
    </ul>
  );
}
