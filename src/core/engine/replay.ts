import type { Instant } from '../base';
import type { Plan } from '../flow/plan';
import type { Shape } from '../flow/syntax';
import { advance } from './advance';
import type { WorkspaceTime } from './run';
import type { Readings } from './readings';
import type { JournalEntry, RecordView, Trip, TripEvent } from './types';
import { runOf, type Asks } from './verbs';

export interface Replayed {
  readonly trip: Trip;
  readonly journal: readonly JournalEntry[];
  /** what the plan asked that was never asked before: answered with “not found” here */
  readonly missing: readonly string[];
}

const MOST_ROUNDS = 60;

/** Runs a trip as a trial with recorded answers only: nothing outside is asked, and the same records give the same way. */
export function replay(plan: Plan, trip: Trip, view: RecordView, readings: Readings, now: Instant, time?: WorkspaceTime): Replayed {
  const journal: JournalEntry[] = [];
  const missing: string[] = [];
  let current: Trip = { ...trip, trial: true, at: 0, part: 0, state: { kind: 'ready' }, vars: {}, seq: 0, tries: 0 };
  let event: TripEvent = { kind: 'go' };
  let seen = view;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const result = advance(plan, current, event, now, seen, time);
    journal.push(...result.journal);
    current = result.trip;
    for (const command of result.commands)
      if (command.kind === 'record facts')
        for (const fact of command.facts)
          // What was read and looked up then is on the record already, chosen by its trust rule; what a line sets is not.
          if (fact.source === 'flow' || (valueAt(seen, fact.record.kind, fact.field) ?? null) === null)
            seen = withValue(seen, fact.record.kind, fact.field, fact.value);
    const asks = asksAt(plan, current);
    if (result.request && asks) event = { kind: 'answer', answer: asks.replayed(result.request, readings, missing) };
    else if (result.reload) event = { kind: 'go' };
    else break;
  }
  return { trip: current, journal, missing };
}

/** What the line asks at which a trip stands. */
const asksAt = (plan: Plan, trip: Trip): Asks<Shape> | null => {
  const line = plan.instructions[trip.at];
  return (line ? runOf(line.step).asks : null) as Asks<Shape> | null;
};

const recordIn = (view: RecordView, kind: string) => (kind === 'person' ? view.person : kind === 'company' ? view.company : view.deal);
const valueAt = (view: RecordView, kind: string, field: string): unknown => recordIn(view, kind)?.[field];

function withValue(view: RecordView, kind: string, field: string, value: string | number | boolean | null): RecordView {
  if (kind === 'person') return { ...view, person: { ...view.person, [field]: value } };
  if (kind === 'company') return { ...view, company: view.company && { ...view.company, [field]: value } };
  return { ...view, deal: view.deal && { ...view.deal, [field]: value } };
}
