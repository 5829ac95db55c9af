/**
 * Who may do what: one table, looked at on the server for every request. Promises: an action not in a role's list is
 * refused. Refuses: anything that depends on the record (all records of a workspace are open to its people).
 */
export const ROLES = ['owner', 'builder', 'rep', 'reviewer', 'viewer'] as const;
export type Role = (typeof ROLES)[number];

export const ACTIONS = [
  'look',
  'open papers',
  'change records',
  'take in',
  'edit flows',
  'release',
  'decide',
  'deal with trips',
  'move the clock',
  'read the audit',
  'keep secrets',
  'erase',
] as const;
export type Action = (typeof ACTIONS)[number];

const MAY: Readonly<Record<Role, readonly Action[]>> = {
  owner: ACTIONS,
  // Tokens, people, secrets and erasing are the owner's.
  builder: ACTIONS.filter((action) => action !== 'keep secrets' && action !== 'erase'),
  rep: ['look', 'open papers', 'change records', 'decide', 'move the clock'],
  reviewer: ['look', 'open papers', 'decide'],
  viewer: ['look'],
};

/** What a role may do, in the order of `ACTIONS`. */
export const actionsOf = (role: Role): readonly Action[] => MAY[role];

export function may(role: Role, action: Action): boolean {
  return MAY[role].includes(action);
}
