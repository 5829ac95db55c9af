/**
 * Rows that stand somewhere: at a stage of a pipeline as a deal, with an opening as an application. Promises: a stage or an
 * opening that does not exist is named and never replaced by another.
 */
import { fold, stableId } from '../base';
import type { FactValue } from '../fields';
import type { RowPlan } from './plan';

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

/** A deal that is on record. */
export interface KnownDeal {
  readonly id: string;
  readonly title: string;
  readonly pipeline: string;
  readonly stage: string;
  readonly companyId: string | null;
  readonly personId: string | null;
}
export interface KnownApplication {
  readonly id: string;
  readonly openingId: string;
  readonly personId: string;
  readonly stage: string;
}

/** What becomes of a row's deal or application. */
export interface StandingPlan {
  readonly id: string;
  readonly isNew: boolean;
  readonly says: string;
}

/** Of how many rows becomes what. */
export interface RowCounts {
  readonly new: number;
  readonly known: number;
  readonly perhaps: number;
  readonly refused: number;
  readonly newCompanies: number;
  readonly newDeals: number;
  readonly newApplications: number;
}

export function countPlans(
  rows: readonly {
    readonly plan: Pick<RowPlan, 'kind' | 'newCompany' | 'companyId'>;
    readonly standing: { readonly deal: Pick<StandingPlan, 'isNew'> | null; readonly application: Pick<StandingPlan, 'isNew'> | null };
  }[],
): RowCounts {
  const count = (kind: RowPlan['kind']): number => rows.filter(({ plan }) => plan.kind === kind).length;
  return {
    new: count('new'),
    known: count('known'),
    perhaps: count('perhaps'),
    refused: count('refused'),
    newCompanies: new Set(rows.flatMap(({ plan }) => (plan.newCompany ? plan.companyId : []))).size,
    newDeals: rows.filter(({ standing }) => standing.deal?.isNew).length,
    newApplications: rows.filter(({ standing }) => standing.application?.isNew).length,
  };
}

/** The counts of two parts of a list together. */
export const addCounts = (one: RowCounts, other: RowCounts): RowCounts => ({
  new: one.new + other.new,
  known: one.known + other.known,
  perhaps: one.perhaps + other.perhaps,
  refused: one.refused + other.refused,
  newCompanies: one.newCompanies + other.newCompanies,
  newDeals: one.newDeals + other.newDeals,
  newApplications: one.newApplications + other.newApplications,
});

/**
 * Finds for each row the deal or application it is, among those on record and those of the rows before it. A deal is known by whom it
 * is with and what it is called; an application by who applies for what. A list never moves what stands somewhere already.
 */
export class StandingPlanner {
  private readonly deals = new Map<string, KnownDeal>();
  private readonly applications = new Map<string, KnownApplication>();

  constructor(private readonly importId: string) {}

  know(deals: readonly KnownDeal[], applications: readonly KnownApplication[]): void {
    for (const deal of deals) this.add(deal);
    for (const application of applications) this.applications.set(`${application.openingId} ${application.personId}`, application);
  }

  deal({ row, companyId, personId }: RowPlan, deal: DealOfRow): StandingPlan {
    const own = stableId('import', this.importId, String(row), 'deal');
    const before = [companyId, personId].flatMap((id) => this.deals.get(keyOf(deal.pipeline, id, deal.title)) ?? [])[0];
    if (!before || before.id === own) {
      this.add({ id: own, title: deal.title, pipeline: deal.pipeline, stage: deal.stage, companyId, personId });
      return { id: own, isNew: true, says: `opens at ${deal.stage} in ${deal.pipeline}` };
    }
    return { id: before.id, isNew: false, says: staysAt(before.stage, deal.stage) };
  }

  application({ row, personId }: RowPlan, application: ApplicationOfRow): StandingPlan | null {
    if (personId === null) return null;
    const own = stableId('import', this.importId, String(row), 'application');
    const key = `${application.openingId} ${personId}`;
    const before = this.applications.get(key);
    if (!before || before.id === own) {
      this.applications.set(key, { id: own, openingId: application.openingId, personId, stage: application.stage });
      return { id: own, isNew: true, says: `applies for ${application.opening}, at ${application.stage}` };
    }
    return { id: before.id, isNew: false, says: staysAt(before.stage, application.stage) };
  }

  private add(deal: KnownDeal): void {
    for (const id of [deal.companyId, deal.personId]) if (id !== null) this.deals.set(keyOf(deal.pipeline, id, deal.title), deal);
  }
}

const keyOf = (pipeline: string, withId: string | null, title: string): string => [pipeline, withId, fold(title).trim()].join('\n');
const staysAt = (stands: string, listSays: string): string =>
  stands === listSays ? `known, at ${stands}` : `known, and stays at ${stands}: the list says ${listSays}`;
