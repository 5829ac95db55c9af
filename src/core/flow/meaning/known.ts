import type { Library } from './library';

/** What a `prepare` line can make. */
export const DOCUMENTS = ['Dossier'] as const;

/** Roles that `ask` and `tell` may name besides teams. */
export const ASKABLE_ROLES = ['owner', 'builder', 'reviewer'] as const;

export const EMPTY_LIBRARY: Library = {
  scorecards: [],
  templates: [],
  plans: [],
  chains: [],
  teams: [],
  pipelines: [],
  intakes: [],
  connections: [],
  people: [],
  webhooks: [],
  openings: [],
  fields: [],
};
