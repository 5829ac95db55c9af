import { fieldOf } from '../../core/facts';
import type { SqlName, SqlPiece } from '../../core/feel';
import { FEEL_TYPE } from '../../core/flow/check';
import type { Tx } from '../db';

export type Kind = 'person' | 'company' | 'deal';

/** The aliases under which statements that take conditions join their tables. */
const ALIAS: Record<Kind, string> = { person: 'p', company: 'c', deal: 'd' };
/** Where a name of a condition about that kind is stored. Whole numbers are widened, so that dividing them is dividing. */
export function columnOf(about: Kind, segments: readonly string[]): SqlName | undefined {
  const [first = '', second] = segments;
  const kind = second === undefined ? about : first === 'company' || first === 'person' ? first : undefined;
  const field = kind && fieldOf(kind, second ?? first);
  if (!kind || !field) return undefined;
  const type = FEEL_TYPE[field.type];
  const at = `${field.computed && field.key !== 'pipeline' ? 'q' : ALIAS[kind]}.${field.key}`;
  return { type, sql: type === 'number' ? `${at}::float8` : at };
}

/** A compiled condition as part of a statement: its values travel as parameters. */
export function whereOf(tx: Tx, pieces: readonly SqlPiece[]): ReturnType<Tx> {
  return pieces.reduce<ReturnType<Tx>>(
    (sofar, piece) => (typeof piece === 'string' ? tx`${sofar}${tx.unsafe(piece)}` : tx`${sofar}${piece.value as never}`),
    tx``,
  );
}
