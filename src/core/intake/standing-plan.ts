import { fold, stableId } from '../base';
import type { RowPlan } from './plan';
import type { ApplicationOfRow, DealOfRow } from './standing';

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
