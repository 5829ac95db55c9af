/** Whose turn it is in a team. */
export interface Member {
  readonly id: string;
  readonly name: string;
  /** how many turns of a round are theirs, 1 to 9 */
  readonly weight: number;
  /** not here on that day: turns pass them by */
  readonly isAway: boolean;
}

/**
 * A round: everybody once in their order, then those with a second turn, and so on, so that a heavier weight does not mean
 * several turns in a row while others wait.
 */
export function roundOf<M extends Pick<Member, 'weight'>>(members: readonly M[]): readonly M[] {
  const most = Math.max(0, ...members.map((member) => member.weight));
  return Array.from({ length: most }, (_, lap) => members.filter((member) => member.weight > lap)).flat();
}

export interface Turn<M> {
  readonly member: M;
  /** turns that this one uses up: 1, and one more for each that was passed by */
  readonly used: number;
  readonly passed: readonly M[];
}

/** Who is next after so many turns were used up; undefined when nobody is there. */
export function turnAfter<M extends Member>(members: readonly M[], used: number): Turn<M> | undefined {
  const round = roundOf(members);
  const passed: M[] = [];
  for (let step = 0; step < round.length; step++) {
    const member = round[(used + step) % round.length];
    if (!member) return undefined;
    if (!member.isAway) return { member, used: step + 1, passed: [...new Set(passed)] };
    passed.push(member);
  }
  return undefined;
}
