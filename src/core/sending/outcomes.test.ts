import { MOST_TRIES, outcomeOf, sayThen, TASK_OUTCOMES } from './outcomes';

test('every outcome of a channel has a key of its own, and none is one the desk moves or opens by', () => {
  for (const outcomes of Object.values(TASK_OUTCOMES)) {
    const keys = outcomes.map(({ key }) => key);
    expect(new Set(keys).size).toBe(keys.length);
    expect(keys.filter((key) => ['j', 'k', 'a'].includes(key))).toEqual([]);
  }
});

test('who is not reached is called again until the last try', () => {
  const missed = outcomeOf('call', 'not reached');
  expect(missed && sayThen(missed, 0)).toBe('again on the next working day');
  expect(missed && sayThen(missed, MOST_TRIES - 1)).toBe('that was try 3: the plan goes on');
});

test('an outcome belongs to its channel', () => {
  expect(outcomeOf('letter', 'talked')).toBeUndefined();
  expect(outcomeOf('letter', 'posted')?.then).toBe('goes on');
});
