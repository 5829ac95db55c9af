import type { HandChannel } from '../writer';

/**
 * What comes of a task: `goes on`: the plan does; `again`: it is tried another time, and goes on after the last try; `answered`: they spoke, the
 * plan stops as at an answer; `barred`: nobody contacts them again; `failed`: it could not be done, and the plan goes on without it.
 */
export interface TaskOutcome {
  readonly id: string;
  /** pressed on the desk */
  readonly key: string;
  /** on the button */
  readonly label: string;
  /** what stands in the conversation and at the person afterwards */
  readonly says: string;
  readonly then: 'goes on' | 'again' | 'answered' | 'barred' | 'failed';
}

/** How often somebody who is not reached is called, and between two tries a working day. */
export const MOST_TRIES = 3;

export const TASK_OUTCOMES: Readonly<Record<HandChannel, readonly TaskOutcome[]>> = {
  call: [
    { id: 'talked', key: 't', label: 'We talked', says: 'talked on the phone', then: 'answered' },
    { id: 'left word', key: 'l', label: 'Left word', says: 'left word on the phone', then: 'goes on' },
    { id: 'not reached', key: 'n', label: 'Not reached', says: 'not reached by phone', then: 'again' },
    { id: 'wrong number', key: 'w', label: 'Wrong number', says: 'the number is wrong', then: 'failed' },
    { id: 'no more', key: 'x', label: 'Wants no contact', says: 'wants no more contact', then: 'barred' },
  ],
  'profile note': [
    { id: 'left', key: 'd', label: 'Note is left', says: 'note left on the profile', then: 'goes on' },
    { id: 'no profile', key: 'n', label: 'No such profile', says: 'no profile was found', then: 'failed' },
  ],
  letter: [
    { id: 'posted', key: 'd', label: 'Posted', says: 'letter posted', then: 'goes on' },
    { id: 'bad address', key: 'n', label: 'Address is wrong', says: 'the postal address is wrong', then: 'failed' },
  ],
};
export const TASK_OUTCOME_IDS = Object.values(TASK_OUTCOMES).flatMap((outcomes) => outcomes.map(({ id }) => id));
export const outcomeOf = (channel: HandChannel, id: string): TaskOutcome | undefined =>
  TASK_OUTCOMES[channel].find((outcome) => outcome.id === id);

/** What happens then, as it is said before a key is pressed. */
export function sayThen({ then }: TaskOutcome, tries: number): string {
  switch (then) {
    case 'goes on':
      return 'the plan goes on';
    case 'again':
      return tries + 1 < MOST_TRIES ? 'again on the next working day' : `that was try ${MOST_TRIES}: the plan goes on`;
    case 'answered':
      return 'the plan stops, as at an answer';
    case 'barred':
      return 'the plan stops, nobody contacts them again';
    case 'failed':
      return 'the plan goes on without it';
  }
}
