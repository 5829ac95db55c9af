import { SOURCE_KINDS } from '../facts';
import { plural, textIn, type Instant, type JsonObject } from '../base';
import type { Plan } from '../flow/plan';
import { advance } from './advance';
import type { WorkspaceTime } from './run';
import type { Answer, JournalEntry, RecordView, Request, Trip, TripEvent } from './types';

/** What was found out on an earlier trip, to be answered with again. */
export interface Readings {
  /** detail of each journal line by its verb, in the order they were written */
  readonly journal: readonly Pick<JournalEntry, 'verb' | 'detail' | 'costMicro'>[];
  readonly compose: Extract<Answer, { kind: 'compose' }>;
}

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
    if (result.request) event = { kind: 'answer', answer: answerFrom(result.request, readings, missing) };
    else if (result.reload) event = { kind: 'go' };
    else break;
  }
  return { trip: current, journal, missing };
}

const recordIn = (view: RecordView, kind: string) => (kind === 'person' ? view.person : kind === 'company' ? view.company : view.deal);
const valueAt = (view: RecordView, kind: string, field: string): unknown => recordIn(view, kind)?.[field];

function withValue(view: RecordView, kind: string, field: string, value: string | number | boolean | null): RecordView {
  if (kind === 'person') return { ...view, person: { ...view.person, [field]: value } };
  if (kind === 'company') return { ...view, company: view.company && { ...view.company, [field]: value } };
  return { ...view, deal: view.deal && { ...view.deal, [field]: value } };
}

const list = (value: JsonObject[string]): readonly JsonObject[] => (Array.isArray(value) ? (value as readonly JsonObject[]) : []);

function answerFrom(request: Request, readings: Readings, missing: string[]): Answer {
  const of = (verb: string) => readings.journal.filter((entry) => entry.verb === verb);
  switch (request.kind) {
    case 'compose':
      return readings.compose;
    case 'reply':
      return { kind: 'reply', came: null };
    case 'screen': {
      const known = of('keep').flatMap((entry) => list(entry.detail.verdicts)) as unknown as Extract<
        Answer,
        { kind: 'screen' }
      >['verdicts'];
      return { kind: 'screen', verdicts: known.filter((verdict) => request.screens.includes(verdict.screen)) };
    }
    case 'prepare':
      return { kind: 'prepare', paper: request.id, address: '', costMicro: 0 };
    case 'match': {
      const known = of('match').find((entry) => entry.detail.target === request.target && typeof entry.detail.how === 'string');
      if (!known) missing.push(`whether the ${request.target} is known`);
      const { how, otherId, otherName, confidence } = known?.detail ?? {};
      return {
        kind: 'match',
        how: how === 'same' || how === 'doubt' || how === 'none' ? how : 'new',
        otherId: typeof otherId === 'string' ? otherId : null,
        otherName: typeof otherName === 'string' ? otherName : '',
        confidence: typeof confidence === 'number' ? confidence : 0,
        evidence: [],
      };
    }
    case 'read': {
      const found = of('read').flatMap((entry) => list(entry.detail.findings));
      const findings = request.questions.map((question) => {
        const known = found.find((entry) => entry.id === question.id.text);
        if (!known) missing.push(question.id.text);
        const { value } = known ?? {};
        const scalar = typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean' ? value : null;
        return {
          id: question.id.text,
          found: known?.found === true,
          value: scalar,
          quote: typeof known?.quote === 'string' ? known.quote : null,
          url: typeof known?.url === 'string' ? known.url : null,
          source: SOURCE_KINDS.find((kind) => kind === known?.source) ?? ('site' as const),
          date: typeof known?.date === 'number' ? known.date : null,
          others: [],
          confidence: typeof known?.confidence === 'number' ? known.confidence : 0,
          says: known ? 'as it was read then' : 'never asked before',
        };
      });
      return { kind: 'read', findings, pages: 0, tookMs: 0, costMicro: 0, says: `${plural(findings.length, 'answer')} as read then` };
    }
    case 'look up': {
      const known = of('look up').at(-1);
      if (!known) missing.push(request.field);
      return {
        kind: 'look up',
        asked: list(known?.detail.asked).map((entry) => ({
          provider: textIn(entry.provider),
          outcome: entry.outcome === 'usable' || entry.outcome === 'not usable' || entry.outcome === 'failed' ? entry.outcome : 'nothing',
          value: typeof entry.value === 'string' ? entry.value : null,
          why: typeof entry.why === 'string' ? entry.why : '',
          costMicro: typeof entry.costMicro === 'number' ? entry.costMicro : 0,
          tookMs: 0,
        })),
      };
    }
  }
}
