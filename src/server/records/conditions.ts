import { readCondition } from '../../core/flow/check';
import { compileFeelSql, type SqlPiece } from '../../core/feel';
import { columnOf, type Kind } from './store/conditions';
import type { Tx } from '../db';
import { loadCatalogue } from './fields';
import { Refusal } from '../platform/world';

/** The sentence that says why a condition cannot be asked, or null when it can. */
export async function conditionProblem(tx: Tx, text: string | undefined, about: Kind): Promise<string | null> {
  try {
    await conditionPieces(tx, text, about);
    return null;
  } catch (error) {
    if (error instanceof Refusal) return error.message;
    throw error;
  }
}

/** A typed condition as the database is asked it; what is wrong with it is said with its place. An empty text asks nothing. */
export async function conditionPieces(tx: Tx, text: string | undefined, about: Kind): Promise<readonly SqlPiece[]> {
  const typed = text?.trim() ?? '';
  if (typed === '') return ['true'];
  const fields = await loadCatalogue(tx);
  const read = readCondition(typed, about, fields);
  const compiled = read.ok ? compileFeelSql(read.expr, (segments) => columnOf(fields, about, segments)) : undefined;
  if (compiled?.ok) return compiled.pieces;
  const [problem] = read.ok ? (compiled && !compiled.ok ? [compiled] : []) : read.problems;
  throw new Refusal('not valid', problem?.message ?? 'this condition cannot be read', {
    where: typed,
    from: problem?.from ?? 0,
    to: problem?.to ?? typed.length,
  });
}
