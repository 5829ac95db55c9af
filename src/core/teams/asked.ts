/** Somebody who works here, as far as being asked is concerned. */
export interface Colleague {
  readonly id: string;
  readonly name: string;
  readonly role: string;
  readonly teams: readonly string[];
  /** not there today */
  readonly isAway: boolean;
}
export interface AskedOf {
  /** whose decision it is today */
  readonly people: readonly Colleague[];
  /** they stand in for who was asked, since none of those is there */
  readonly standIn: boolean;
}

/**
 * Whose decision something is that was asked of a team, a role or a person by name. When none of them is there: the teams of the
 * one who was named, else the owners, there or not: nothing is asked of nobody.
 */
export function askedOf(who: string, colleagues: readonly Colleague[]): AskedOf {
  const named = colleagues.filter(({ name, role, teams }) => name === who || role === who || teams.includes(who));
  const there = named.filter(({ isAway }) => !isAway);
  if (there.length > 0) return { people: there, standIn: false };
  const besides = colleagues.filter(
    (one) => !one.isAway && !named.includes(one) && named.some(({ teams }) => teams.some((team) => one.teams.includes(team))),
  );
  if (besides.length > 0) return { people: besides, standIn: true };
  const owners = colleagues.filter(({ role }) => role === 'owner');
  const ownersThere = owners.filter(({ isAway }) => !isAway);
  return { people: ownersThere.length > 0 ? ownersThere : owners, standIn: true };
}
