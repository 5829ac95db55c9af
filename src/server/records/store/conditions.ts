import type { Catalogue, Field } from '../../../core/fields';
import type { FeelType, SqlName, SqlPiece } from '../../../core/feel';
import { FEEL_TYPE } from '../../../core/flow/check';
import type { Tx } from '../../db';

export type Kind = 'person' | 'company' | 'deal';

/** The aliases under which statements that take conditions join their tables. */
const ALIAS: Record<Kind, string> = { person: 'p', company: 'c', deal: 'd' };
/**
 * Where a name of a condition about that kind is stored: a column, or a key of the record's own values, which are of their
 * field's type whenever they are there. Whole numbers are widened, so that dividing them is dividing.
 */
export function columnOf(fields: Catalogue, about: Kind, segments: readonly string[]): SqlName | undefined {
  const [first = '', second] = segments;
  const kind = second === undefined ? about : first === 'company' || first === 'person' ? first : undefined;
  const field = kind && fields.of(kind, second ?? first);
  if (!kind || !field) return undefined;
  const type = FEEL_TYPE[field.type];
  if (!field.isStandard) return { type, sql: ownValue(field, ALIAS[kind]) };
  const at = `${field.isComputed && field.key !== 'pipeline' ? 'q' : ALIAS[kind]}.${field.key}`;
  return { type, sql: type === 'number' ? `${at}::float8` : at };
}

const CASTS: Readonly<Partial<Record<FeelType, string>>> = { number: '::float8', boolean: '::boolean' };

/** The value of an own field as an expression over its table. Its key is letters, digits and underscores by its schema. */
export function ownValue(field: Pick<Field, 'key' | 'type'>, alias: string): string {
  return `(${alias}.custom ->> '${field.key}')${CASTS[FEEL_TYPE[field.type]] ?? ''}`;
}

/** A compiled condition as part of a statement: its values travel as parameters. */
export function whereOf(tx: Tx, pieces: readonly SqlPiece[]): ReturnType<Tx> {
  return pieces.reduce<ReturnType<Tx>>(
    (sofar, piece) => (typeof piece === 'string' ? tx`${sofar}${tx.unsafe(piece)}` : tx`${sofar}${piece.value as never}`),
    tx``,
  );
}
