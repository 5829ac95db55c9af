import { EMPTY_LIBRARY, libraryParts, librarySchema, type Library } from '../../core/flow/check';
import { compilePlan, type Plan } from '../../core/flow/plan';
import { parseFlow } from '../../core/flow/syntax';
import type { Tx } from '../db';
import { listLibrary, listTeams, trialsOf, versionsOf } from './store/flows';
import { listFields } from '../records/store/fields';
import { listUsers } from '../access/store/access';
import { listMailboxes } from '../messages/store/mailboxes';
import { listLabels } from '../intake/store/imports';
import { listOpenings } from '../intake/store/openings';
import { listWebhooks } from '../trips/store/outbox';
import type { World } from '../platform/world';

/** Every named thing a flow may use, as it is now. Items that no longer fit their schema are refused loudly. */
export async function loadLibrary(tx: Tx): Promise<Library> {
  const [items, teams, mailboxes, users, webhooks, openings, fields, lists] = await Promise.all([
    listLibrary(tx),
    listTeams(tx),
    listMailboxes(tx),
    listUsers(tx),
    listWebhooks(tx),
    listOpenings(tx),
    listFields(tx),
    listLabels(tx),
  ]);
  const parts = libraryParts(items);
  const named = new Set(parts.intakes.flatMap(({ kind, name }) => (kind === 'file' ? [name] : [])));
  return librarySchema.parse({
    ...parts,
    // A list is known to flows by the name it was taken in under.
    intakes: [...parts.intakes, ...lists.filter((name) => !named.has(name)).map((name) => ({ kind: 'file', name }))],
    teams: teams.map((team) => team.name),
    connections: mailboxes.map((box) => box.name),
    people: users.filter((user) => user.endedAt == null).map((user) => user.name),
    webhooks: webhooks.map((hook) => hook.name),
    openings: openings.filter((opening) => opening.isOpen),
    fields,
  });
}

/** The named things as a page shows and completes them. */
export async function library(world: World): Promise<Library> {
  return loadLibrary(world.db);
}

const compiled = new Map<string, Plan>();
const KEPT = 200;

/** Plans of versions and trials, compiled once per process: what they are compiled from never changes. */
export async function loadPlans(
  tx: Tx,
  ids: readonly { readonly versionId: string | null; readonly trialId: string | null }[],
): Promise<(held: { readonly versionId: string | null; readonly trialId: string | null }) => Plan | undefined> {
  const missing = (pick: 'versionId' | 'trialId'): string[] => [
    ...new Set(ids.map((entry) => entry[pick]).filter((id) => id !== null && !compiled.has(id)) as string[]),
  ];
  const [versions, trials] = [missing('versionId'), missing('trialId')];
  const rows = [...(versions.length > 0 ? await versionsOf(tx, versions) : []), ...(trials.length > 0 ? await trialsOf(tx, trials) : [])];
  for (const row of rows) {
    if (compiled.size >= KEPT) compiled.delete(compiled.keys().next().value ?? '');
    const library = librarySchema.safeParse(row.library);
    compiled.set(row.id, compilePlan(parseFlow(row.text).tree, library.success ? library.data : EMPTY_LIBRARY));
  }
  return (held) => compiled.get(held.versionId ?? held.trialId ?? '');
}
