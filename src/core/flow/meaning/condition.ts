import { parseFeel, typeOfFeel, type FeelExpr, type FeelProblem } from '../../feel';
import type { Catalogue } from '../../fields';
import { nameAt, type ResultShape } from './scope';

export type ReadCondition =
  { readonly ok: true; readonly expr: FeelExpr } | { readonly ok: false; readonly problems: readonly FeelProblem[] };

/** Reads a condition on records of one kind by itself, as a list of records is filtered: fields stand alone, as in a flow about them; `results` stand beside them. */
export function readCondition(
  text: string,
  about: 'person' | 'company' | 'deal',
  fields: Catalogue,
  results: ReadonlyMap<string, ResultShape> = new Map(),
): ReadCondition {
  const parsed = parseFeel(text);
  if (!parsed.expr) return { ok: false, problems: parsed.problems };
  const { type, problems } = typeOfFeel(parsed.expr, (segments) => nameAt(fields, about, results, segments));
  if (problems.length > 0) return { ok: false, problems };
  if (type.type === 'boolean' || type.type === 'any') return { ok: true, expr: parsed.expr };
  const message = 'a condition must be true or false: compare it with something';
  return { ok: false, problems: [{ from: 0, to: text.length, message }] };
}
