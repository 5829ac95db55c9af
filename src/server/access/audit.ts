import type { Instant, JsonObject } from '../../core/base';
import { csvOf } from '../platform/csv';
import { listAudit } from './store/audit';
import type { World } from '../platform/world';

export interface AuditLine {
  readonly id: number;
  readonly at: Instant;
  readonly who: string;
  readonly what: string;
  readonly detail: JsonObject;
}
const PAGE = 100;
/** So many lines a file has at most; who needs more asks by a word, or takes the database out. */
const FILE_LINES = 100_000;

/** Who did what, newest first; `search` in names, words and details. */
export async function auditPage(
  world: World,
  ask: { readonly search?: string | undefined; readonly cursor?: string | undefined },
): Promise<{ readonly items: readonly AuditLine[]; readonly next: string | null }> {
  const rows = await listAudit(world.db, {
    search: ask.search?.trim() ?? '',
    before: ask.cursor === undefined ? null : Number(ask.cursor),
    limit: PAGE + 1,
  });
  const last = rows[PAGE - 1];
  return { items: rows.slice(0, PAGE), next: rows.length > PAGE && last ? String(last.id) : null };
}

/** What `auditPage` finds, all of it, as a file: one line each, instants in UTC, details as JSON. */
export async function auditFile(world: World, ask: { readonly search?: string | undefined }) {
  const rows = await listAudit(world.db, { search: ask.search?.trim() ?? '', before: null, limit: FILE_LINES });
  const lines = rows.map(({ at, who, what, detail }) => [new Date(at).toISOString(), who, what, JSON.stringify(detail)]);
  return { name: 'audit.csv', type: 'text/csv; charset=utf-8', content: csvOf([['when, UTC', 'who', 'what', 'details'], ...lines]) };
}
