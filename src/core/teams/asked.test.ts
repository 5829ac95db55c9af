import { askedOf, type Colleague } from '.';

const one = (name: string, more: Partial<Colleague> = {}): Colleague => ({
  id: name,
  name,
  role: 'rep',
  teams: [],
  isAway: false,
  ...more,
});
const ruud = one('Ruud', { role: 'owner' });
const names = (who: string, people: readonly Colleague[]): readonly string[] => askedOf(who, people).people.map(({ name }) => name);

test('a team, a role and a person are asked by name', () => {
  const people = [ruud, one('Tomasz', { teams: ['north'] }), one('Lucía', { teams: ['north', 'south'] }), one('Yusuf', { role: 'viewer' })];
  expect(names('north', people)).toEqual(['Tomasz', 'Lucía']);
  expect(names('viewer', people)).toEqual(['Yusuf']);
  expect(names('Lucía', people)).toEqual(['Lucía']);
  expect(askedOf('north', people).standIn).toBe(false);
});

test('who is away is not asked; of a team the others are', () => {
  const people = [ruud, one('Tomasz', { teams: ['north'], isAway: true }), one('Lucía', { teams: ['north'] })];
  expect(names('north', people)).toEqual(['Lucía']);
  expect(askedOf('Tomasz', people)).toEqual({ people: [people[2]], standIn: true });
});

test('with nobody there, and for a name nobody has, the owners stand in, even on their days off', () => {
  const away = one('Tomasz', { teams: ['north'], isAway: true });
  expect(names('north', [ruud, away])).toEqual(['Ruud']);
  expect(names('west', [ruud, away])).toEqual(['Ruud']);
  expect(names('west', [{ ...ruud, isAway: true }, away])).toEqual(['Ruud']);
});
