/** Deals and applications that rows of lists tell of: found among those on record, made with their facts, never moved. */
import type { Instant } from '../../core/base';
import type { FactDraft } from '../../core/facts';
import type { Places, RowPlan, RowReading, StandingPlan, StandingPlanner } from '../../core/intake';
import type { Tx } from '../db';
import { loadLibrary } from '../flows/library';
import { recordFacts } from '../records/facts';
import { dealsWith, insertDeals } from '../records/store/deals';
import { insertHappenings, type Happening } from '../records/store/timeline';
import { applicationsBy, insertApplications, listOpenings } from './store/openings';
import type { Door, RowToTakeIn } from './take-in';

/** What rows can name of the workspace: its pipelines and openings with their stages. */
export async function placesOf(tx: Tx): Promise<Places> {
  const [{ pipelines }, openings] = await Promise.all([loadLibrary(tx), listOpenings(tx)]);
  return { pipelines, openings };
}

/** What becomes of a row's deal and application; null where it tells of none. */
export interface RowStanding {
  readonly deal: StandingPlan | null;
  readonly application: StandingPlan | null;
}
export const NO_STANDING: RowStanding = { deal: null, application: null };

/** For each plan in order: what becomes of its deal and its application. */
export async function planStanding(
  tx: Tx,
  planner: StandingPlanner,
  rows: readonly { readonly plan: RowPlan; readonly reading: RowReading }[],
): Promise<readonly RowStanding[]> {
  const telling = rows.filter(
    ({ plan, reading: { record } }) => plan.kind !== 'refused' && (record.standing.deal ?? record.standing.application),
  );
  if (telling.length === 0) return rows.map(() => NO_STANDING);
  const people = telling.flatMap(({ plan }) => plan.personId ?? []);
  const companies = telling.flatMap(({ plan }) => plan.companyId ?? []);
  const [deals, applications] = await Promise.all([dealsWith(tx, people, companies), applicationsBy(tx, people)]);
  planner.know(deals, applications);
  return rows.map(({ plan, reading }) => {
    const { deal, application } = reading.record.standing;
    if (plan.kind === 'refused') return NO_STANDING;
    return { deal: deal && planner.deal(plan, deal), application: application && planner.application(plan, application) };
  });
}

/** Makes what is new, and adds what the list says of what is known. */
export async function takeInStanding(
  tx: Tx,
  rows: readonly (RowToTakeIn & { readonly standing: RowStanding })[],
  door: Door,
  now: Instant,
): Promise<void> {
  const deals: Parameters<typeof insertDeals>[1][number][] = [];
  const applications: Parameters<typeof insertApplications>[1][number][] = [];
  const facts: FactDraft[] = [];
  const happenings: Happening[] = [];
  for (const { plan, reading, standing } of rows) {
    const { personId, companyId } = plan;
    const told = reading?.record.standing;
    const source = { source: door.source, sourceRef: door.refOf(plan.row), confidence: 0.8, observedAt: now };
    const say = (kind: 'deal' | 'application', { id }: StandingPlan, says: string): void => {
      const of =
        personId === null
          ? { recordKind: 'company' as const, recordId: companyId ?? '' }
          : { recordKind: 'person' as const, recordId: personId };
      happenings.push({ ...of, at: now, kind, says, detail: { [`${kind}Id`]: id, ...door.detailOf(plan.row) } });
    };
    if (standing.deal && told?.deal) {
      const { id, isNew } = standing.deal;
      const { pipeline, stage, title, values } = told.deal;
      if (isNew) {
        deals.push({ id, title, pipeline, stage, amount: null, companyId, personId, tripId: null });
        say('deal', standing.deal, `Deal ${title} opened at ${stage}: ${door.says}`);
      }
      for (const [field, value] of Object.entries(values)) facts.push({ record: { kind: 'deal', id }, field, value, ...source });
    }
    if (standing.application && told?.application && personId !== null) {
      const { id, isNew } = standing.application;
      const { openingId, opening, stage, values } = told.application;
      if (isNew) {
        applications.push({ id, openingId, personId, stage, tripId: null });
        say('application', standing.application, `Applied for ${opening}, at ${stage}: ${door.says}`);
      }
      for (const [field, value] of Object.entries(values)) facts.push({ record: { kind: 'application', id }, field, value, ...source });
    }
  }
  await insertDeals(tx, deals, now);
  await insertApplications(tx, applications, now);
  const meta = { tripId: null, mark: null, userId: door.userId };
  await recordFacts(
    tx,
    facts.map((fact) => ({ fact, meta })),
  );
  await insertHappenings(tx, happenings);
}
