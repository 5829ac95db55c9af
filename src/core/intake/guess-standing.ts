import { fold } from '../base';
import type { Places } from './standing';

/** A column whose cells name stages or openings of the workspace. */
export interface StandingColumn {
  readonly column: number;
  readonly target: string;
  readonly share: number;
}

/** What lists of deals call them, in the languages of the lists we see. */
const CALLED_DEALS =
  /\b(?:deals?|opportunit(?:y|ies)|verkaufschancen?|chancen?|offertes?|verkoopkans(?:en)?|oportunidad(?:es)?|affaires?|szans[ay]|trattativ[ae])\b/;

const ENOUGH = 0.6;

/**
 * Which columns say where a row stands, by what they hold, and whether deals or applications are told of at all: in a list that
 * tells of none no column is ever taken for one.
 */
export function standingColumns(
  headings: readonly string[],
  cells: readonly (readonly string[])[],
  { pipelines, openings }: Places,
): { readonly columns: readonly StandingColumn[]; readonly deals: boolean; readonly applications: boolean } {
  const stages = pipelines.flatMap((pipeline) => pipeline.stages);
  const opening = holding(
    cells,
    openings.map(({ name }) => name),
    [],
  );
  const stage = holding(cells, stages, [opening?.column]);
  const step =
    opening &&
    holding(
      cells,
      openings.flatMap((entry) => entry.stages),
      [opening.column, stage?.column],
    );
  const deals = stage !== undefined || headings.some((heading) => CALLED_DEALS.test(fold(heading)));
  const columns = [
    ...(opening ? [{ ...opening, target: 'application.opening' }] : []),
    ...(stage ? [{ ...stage, target: 'deal.stage' }] : []),
    ...(step ? [{ ...step, target: 'application.stage' }] : []),
  ];
  return { columns, deals, applications: opening !== undefined };
}

/** The column that holds most of such names. */
function holding(
  cells: readonly (readonly string[])[],
  names: readonly string[],
  but: readonly (number | undefined)[],
): { readonly column: number; readonly share: number } | undefined {
  const known = new Set(names.map((name) => fold(name).trim()));
  const shares = cells.map((column, i) => ({
    column: i,
    share: but.includes(i) || column.length === 0 ? 0 : column.filter((cell) => known.has(fold(cell).trim())).length / column.length,
  }));
  const [best] = shares.sort((a, b) => b.share - a.share);
  return best && best.share >= ENOUGH ? best : undefined;
}
