import fc from 'fast-check';
import { roundOf, turnAfter, type Member } from './index';

const member = (id: string, weight = 1, isAway = false): Member => ({ id, name: id, weight, isAway });

test('a round gives everybody their weight, and nobody all of it in a row', () => {
  expect(roundOf([member('a', 2), member('b'), member('c', 3)]).map(({ id }) => id)).toEqual(['a', 'b', 'c', 'a', 'c', 'c']);
  expect(roundOf([])).toEqual([]);
});

test('who is away is passed by and said; with nobody there it is nobody’s turn', () => {
  const team = [member('a'), member('b', 1, true), member('c')];
  expect(turnAfter(team, 1)).toMatchObject({ member: { id: 'c' }, used: 2, passed: [{ id: 'b' }] });
  expect(turnAfter(team, 3)).toMatchObject({ member: { id: 'a' }, used: 1, passed: [] });
  expect(turnAfter([member('a', 1, true)], 0)).toBeUndefined();
  expect(turnAfter([], 0)).toBeUndefined();
});

test('over whole rounds everybody who is there gets turns by weight, whatever the weights', () => {
  const members = fc.uniqueArray(fc.record({ id: fc.string({ minLength: 1, maxLength: 3 }), weight: fc.integer({ min: 1, max: 9 }) }), {
    selector: ({ id }) => id,
    minLength: 1,
    maxLength: 5,
  });
  fc.assert(
    fc.property(members, fc.integer({ min: 1, max: 4 }), (list, rounds) => {
      const team = list.map(({ id, weight }) => member(id, weight));
      const got = new Map<string, number>();
      const whole = team.reduce((sum, { weight }) => sum + weight, 0) * rounds;
      for (let used = 0; used < whole; used += 1) {
        const { id } = turnAfter(team, used)!.member;
        got.set(id, (got.get(id) ?? 0) + 1);
      }
      for (const { id, weight } of team) expect(got.get(id)).toBe(weight * rounds);
    }),
  );
});
