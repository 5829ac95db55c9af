/** A trip of one grower’s person through the engine, as its tests begin it. */
import { advance, type Advance, type Answer, type Command, type RecordView, type Trip, type TripEvent } from '../core/engine';
import { compilePlan, type Plan } from '../core/flow/plan';
import { parseFlow } from '../core/flow/syntax';
import { DEMO_LIBRARY } from './demo-library';

export const NOW = Date.parse('2026-11-24T10:00:00Z');
export const VIEW: RecordView = {
  person: { id: 'p1', name: 'Mara Quill', first_name: 'Mara', email: 'm.quill@oakmere-glass.example', phone: null, status: null },
  company: {
    id: 'c1',
    name: 'Oakmere Glass',
    website: 'oakmere-glass.example',
    heated_area: 4.2,
    all_year: true,
    controls_since: 2010,
    expansion: true,
    country: 'GB',
    service_contract: null,
  },
  deal: null,
};
export const trip = (more: Partial<Trip> = {}): Trip => ({
  id: 't1',
  trial: false,
  record: { kind: 'person', id: 'p1' },
  at: 0,
  part: 0,
  state: { kind: 'ready' },
  vars: {},
  seq: 0,
  tries: 0,
  dealId: null,
  ...more,
});
export const go: TripEvent = { kind: 'go' };
export const compose: Extract<Answer, { kind: 'compose' }> = {
  kind: 'compose',
  facts: [
    {
      id: 'f1',
      field: 'heated_area',
      value: 4.2,
      quote: '4.2 hectares of heated glass',
      url: 'http://oakmere-glass.example/about',
      source: 'site',
      confidence: 0.9,
    },
  ],
  recentLines: [],
  sender: { name: 'Tomasz Wierzba' },
  doNotContact: false,
};

/** A flow of these lines, ready to run. */
export const plan = (body: string): Plan => compilePlan(parseFlow(`flow "X"\nabout person\n\n${body}`).tree, DEMO_LIBRARY);
export const says = (result: Advance): string[] => result.journal.map((entry) => `${entry.verb}: ${entry.says}`);
export const command = <K extends Command['kind']>(result: Advance, kind: K): Extract<Command, { kind: K }> | undefined =>
  result.commands.find((entry): entry is Extract<Command, { kind: K }> => entry.kind === kind);
/** Runs a trip, answering what it asks with `answer`, until it waits or ends. */
export function run(
  flow: Plan,
  start: Trip,
  answer: (result: Advance) => Answer | undefined,
  view = VIEW,
): { trip: Trip; results: Advance[] } {
  const results: Advance[] = [];
  let current = start;
  let event: TripEvent = go;
  for (let guard = 0; guard < 50; guard++) {
    const result = advance(flow, current, event, NOW, view);
    results.push(result);
    current = result.trip;
    const given = result.request ? answer(result) : undefined;
    if (given) event = { kind: 'answer', answer: given };
    else if (result.reload) event = go;
    else break;
  }
  return { trip: current, results };
}
