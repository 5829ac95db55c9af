import type { RecordKind } from '../../core/base';
import { byTrust, competing, type Fact } from '../../core/facts';
import { loadCatalogue } from './fields';
import type { World } from '../platform/world';

const MONTH_MS = 30.4 * 86_400_000;

/** One field of a record as it is shown: the value that counts, where it came from, and what else was said. */
export interface KnownField {
  readonly record: RecordKind;
  readonly recordId: string;
  readonly key: string;
  readonly label: string;
  readonly group: string;
  readonly unit: string | null;
  /** older than a value of this field may be */
  readonly isStale: boolean;
  readonly fact: Fact | null;
  readonly others: readonly Fact[];
}

/** What facts say of records, field by field; facts of what is no field of the workspace are not shown. */
export async function knownFields(world: World, facts: readonly Fact[]): Promise<readonly KnownField[]> {
  const [fields, now] = await Promise.all([loadCatalogue(world.db), world.clock.now()]);
  const byField = new Map<string, Fact[]>();
  for (const fact of facts) {
    const key = `${fact.record.kind} ${fact.record.id} ${fact.field}`;
    byField.set(key, [...(byField.get(key) ?? []), fact]);
  }
  return [...byField.values()].flatMap((list): KnownField[] => {
    const [best] = [...list].sort(byTrust);
    const field = best && fields.of(best.record.kind, best.field);
    return best && field
      ? [
          {
            record: best.record.kind,
            recordId: best.record.id,
            key: field.key,
            label: field.label,
            group: field.group,
            unit: field.unit ?? null,
            isStale: best.value !== null && field.staleMonths !== undefined && now - best.observedAt > field.staleMonths * MONTH_MS,
            fact: best,
            others: competing(list),
          },
        ]
      : [];
  });
}
