import type { Instant, JsonObject } from '../../core/base';
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
