/**
 * Rows that stand somewhere: at a stage of a pipeline as a deal, with an opening as an application. Promises: a stage or an
 * opening that does not exist is named and never replaced by another.
 */
import { fold } from '../base';
import type { FactValue } from '../fields';

/** What the workspace has that rows can name. */
export interface Places {
  readonly pipelines: readonly { readonly name: string; readonly stages: readonly string[] }[];
  readonly openings: readonly { readonly id: string; readonly name: string; readonly stages: readonly string[] }[];
}
export const NO_PLACES: Places = { pipelines: [], openings: [] };

type Values = Readonly<Record<string, FactValue>>;

export interface DealOfRow {
  readonly pipeline: string;
  readonly stage: string;
  readonly title: string;
  /** all but its stage */
  readonly values: Values;
}
export interface ApplicationOfRow {
  readonly opening: string;
  readonly openingId: string;
  readonly stage: string;
  readonly values: Values;
}
export interface Standing {
  readonly deal: DealOfRow | null;
  readonly application: ApplicationOfRow | null;
}
export const NOWHERE: Standing = { deal: null, application: null };

const same = (name: string): ((other: string) => boolean) => {
  const folded = fold(name).trim();
  return (other) => fold(other).trim() === folded;
};
const said = (value: FactValue | undefined): string => (typeof value === 'string' ? value.trim() : '');
const listed = (names: readonly string[]): string =>
  names.length === 0 ? 'there are none yet' : `there ${names.length === 1 ? 'is' : 'are'} ${names.join(', ')}`;

/** Where a row's deal stands, or why it cannot; null where the row says nothing of one. `who`: whom it is with. */
export function dealOf(values: Values, who: string, { pipelines }: Places): DealOfRow | { readonly refused: string } | null {
  if (Object.keys(values).length === 0) return null;
  const { stage: given, ...others } = values;
  const wanted = said(given);
  const at = pipelines.flatMap(({ name, stages }) => {
    const stage = wanted === '' ? stages[0] : stages.find(same(wanted));
    return stage === undefined ? [] : [{ pipeline: name, stage }];
  })[0];
  if (!at && wanted === '') return { refused: 'deals need a pipeline: make one first' };
  if (!at) return { refused: `no pipeline has a stage “${wanted}”: ${listed(pipelines.flatMap(({ stages }) => stages))}` };
  const title = said(values.title) || who;
  return { ...at, title, values: { ...others, title } };
}

/** With which opening a row's application stands, or why it cannot; null where the row says nothing of one. */
export function applicationOf(values: Values, { openings }: Places): ApplicationOfRow | { readonly refused: string } | null {
  if (Object.keys(values).length === 0) return null;
  const { opening: named, stage: given, ...others } = values;
  const opening = openings.find(({ name }) => same(said(named))(name));
  if (!opening) return { refused: `there is no opening “${said(named)}”: ${listed(openings.map(({ name }) => name))}` };
  const wanted = said(given);
  const stage = wanted === '' ? opening.stages[0] : opening.stages.find(same(wanted));
  if (stage === undefined) return { refused: `${opening.name} has no stage “${wanted}”: ${listed(opening.stages)}` };
  return { opening: opening.name, openingId: opening.id, stage, values: others };
}
