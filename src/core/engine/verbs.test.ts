import { textIn } from '../base';
import { compilePlan, type Plan } from '../flow/plan';
import { parseFlow } from '../flow/syntax';
import { DEMO_LIBRARY } from '../../testing/demo-library';
import { go, NOW, trip, VIEW } from '../../testing/trips';
import { advance, type Advance, type RecordView, type Trip, type TripEvent } from './index';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const plan = (body: string, about = 'person'): Plan =>
  compilePlan(parseFlow(`flow "X"\nabout ${about}\n\ntake in from hand\n${body}`).tree, DEMO_LIBRARY);
const DEAL: RecordView = {
  ...VIEW,
  deal: {
    id: 'd1',
    title: 'Oakmere, bays 3–4',
    stage: 'Proposal',
    amount: 38000,
    pipeline: 'Glasshouse sales',
    quiet_days: 8,
    stage_days: 8,
  },
};
const step = (flow: Plan, from: Trip, event: TripEvent = go, now = NOW, view = VIEW): Advance =>
  advance(flow, from, event, now, view, { zone: 'Europe/London', daysOff: new Set(['2026-11-26']) });
const lastSays = (result: Advance): string | undefined => result.journal.at(-1)?.says;

describe('wait', () => {
  test.each([
    ['wait 3 hours', NOW + 3 * HOUR],
    ['wait 2 working days', Date.parse('2026-11-27T10:00:00Z')],
    ['wait until 09:00', Date.parse('2026-11-25T09:00:00Z')],
    ['wait until 17:30', Date.parse('2026-11-24T17:30:00Z')],
    ['wait until date("2027-01-15")', Date.parse('2027-01-15T00:00:00Z')],
  ])('%s', (line, until) => {
    const waits = step(plan(`${line}\nnote "on"\n`), trip());
    expect(waits.trip.state).toMatchObject({ kind: 'waiting', until });
    expect(step(plan(`${line}\nnote "on"\n`), waits.trip, go, until - 1).trip).toEqual(waits.trip);
    expect(lastSays(step(plan(`${line}\nnote "on"\n`), waits.trip, go, until))).toBe('on');
  });

  test('a working day passes over days off, and the reader’s clock is the reader’s', () => {
    const at = Date.parse('2026-11-25T12:00:00Z');
    const flow = plan("wait until 09:00 on a working day in reader's time\n");
    const spanish: RecordView = { ...VIEW, company: { ...VIEW.company, id: 'c1', country: 'ES' } };
    expect(step(flow, trip(), go, at, spanish).trip.state).toMatchObject({ until: Date.parse('2026-11-27T08:00:00Z') });
  });

  const forReply = plan(
    'wait for reply to opener, at most 2 days as answer\nnote if answer.came then "they wrote: " + answer.text else "silence"\n',
  );
  const sent = trip({ vars: { opener: { id: 'm1' } } });
  const none: TripEvent = { kind: 'answer', answer: { kind: 'reply', came: null } };
  const some: TripEvent = { kind: 'answer', answer: { kind: 'reply', came: { kind: 'interested', text: 'Yes please', quote: null } } };

  test('for a reply: an answer that is there already is taken at once', () => {
    const asks = step(forReply, sent);
    expect(asks.request).toEqual({ kind: 'reply', messageId: 'm1' });
    expect(lastSays(step(forReply, asks.trip, some))).toBe('they wrote: Yes please');
  });

  test('for a reply: a signal looks again, and the limit counts from the first look', () => {
    const waits = step(forReply, step(forReply, sent).trip, none);
    expect(waits.trip.state).toMatchObject({ kind: 'waiting', on: 'reply', until: NOW + 2 * DAY });
    const looked = step(forReply, waits.trip, { kind: 'signal' }, NOW + DAY);
    const still = step(forReply, looked.trip, none, NOW + DAY);
    expect(still.trip.state).toMatchObject({ until: NOW + 2 * DAY });
    expect(still.journal).toEqual([]);
    const over = step(forReply, step(forReply, still.trip, go, NOW + 2 * DAY).trip, none, NOW + 2 * DAY);
    expect(lastSays(over)).toBe('silence');
    expect(Object.keys(over.trip.vars).sort()).toEqual(['answer', 'opener']);
  });

  test('for a condition: sees the deal as it is now', () => {
    const flow = plan('wait for deal.stage = "Won", at most 30 days as sale\nnote string(sale.came)\n');
    const opened = trip({ vars: { deal: { id: 'd1', stage: 'Qualified' } }, dealId: 'd1' });
    const waits = step(flow, opened, go, NOW, DEAL);
    expect(waits.trip.state).toMatchObject({ kind: 'waiting', on: 'change', until: NOW + HOUR });
    const won: RecordView = { ...DEAL, deal: { ...DEAL.deal, id: 'd1', stage: 'Won' } };
    expect(lastSays(step(flow, waits.trip, { kind: 'signal' }, NOW + HOUR, won))).toBe('true');
    expect(lastSays(step(flow, waits.trip, go, NOW + 30 * DAY, DEAL))).toBe('false');
  });

  test('a trial waits for nothing and says so', () => {
    const result = step(forReply, { ...sent, trial: true });
    expect(result.journal.map((entry) => entry.says)).toEqual([
      'taken in from hand',
      'would wait for a reply, at most 2 days; goes on as if nothing came',
      'silence',
    ]);
  });
});

describe('gather', () => {
  const flow = plan('gather 3 or 1 day as batch\ntell owner name\nnote "one of " + string(batch.size)\n');
  const waits = step(flow, trip());
  const gathered = (place: number): TripEvent => ({
    kind: 'gathered',
    batch: 'b1',
    place,
    members: [
      { id: 't1', name: 'Mara Quill', says: 'Mara Quill' },
      { id: 't2', name: 'Piet Aalders', says: 'Piet Aalders' },
    ],
  });

  test('holds the trip until it is called on, with what the line below will say', () => {
    expect(waits.trip.state).toMatchObject({
      kind: 'waiting',
      until: null,
      on: 'batch',
      batch: { count: 3, limit: NOW + DAY, says: 'Mara Quill' },
    });
    expect(step(flow, waits.trip, go, NOW + 9 * DAY).trip).toEqual(waits.trip);
    expect(step(flow, waits.trip, { kind: 'signal' }).trip).toEqual(waits.trip);
  });

  test('the first speaks for all, the others go along', () => {
    const first = step(flow, waits.trip, gathered(0));
    expect(first.commands).toContainEqual(expect.objectContaining({ kind: 'tell', who: 'owner', text: 'Mara Quill\nPiet Aalders' }));
    const second = step(flow, waits.trip, gathered(1));
    expect(second.commands.map((command) => command.kind)).toEqual(['note']);
    expect(second.journal.map((entry) => entry.says)).toEqual(['goes on with 1 other', 'told with the 1 other gathered', 'one of 2']);
    expect(second.trip.vars).toEqual({ batch: { size: 2 } });
  });
});

describe('tell and hand over', () => {
  test('tell puts a notice and goes on; a trial only says so', () => {
    const flow = plan('tell "Lucía Ferrer Mas" by email "Look at " + name\n');
    expect(step(flow, trip()).commands).toEqual([
      expect.objectContaining({ kind: 'tell', who: 'Lucía Ferrer Mas', byEmail: true, text: 'Look at Mara Quill' }),
    ]);
    expect(step(flow, trip({ trial: true })).commands).toEqual([]);
  });

  const flow = plan(
    'hand over to "Planning desk" and wait, at most 2 hours as visit\n  free: yes/no\n  slot: text\nnote if visit.came then visit.slot else "no word"\n',
  );
  const handed = step(flow, trip({ vars: { fit: { points: 80 } } }));
  const ok = (body: Record<string, string | boolean> | null): TripEvent => ({ kind: 'handed over', ok: true, says: 'answered 200', body });

  test('hands over the record with the results so far, and waits until it has arrived', () => {
    expect(handed.commands).toEqual([
      expect.objectContaining({
        kind: 'hand over',
        webhook: 'Planning desk',
        answered: true,
        body: expect.objectContaining({ person: VIEW.person, results: { fit: { points: 80 } } }) as unknown,
      }),
    ]);
    expect(handed.trip.state).toMatchObject({ kind: 'waiting', until: null, on: 'hand-over' });
  });

  test('an answer that comes back at once is taken; one that comes later is waited for', () => {
    expect(lastSays(step(flow, handed.trip, ok({ free: true, slot: 'Tuesday' })))).toBe('Tuesday');
    const waits = step(flow, handed.trip, ok({ ok: true }));
    expect(waits.trip.state).toMatchObject({ until: NOW + 2 * HOUR, on: 'hand-over' });
    expect(lastSays(step(flow, waits.trip, { kind: 'handed back', body: { slot: 'Friday' } }))).toBe('Friday');
    expect(lastSays(step(flow, waits.trip, go, NOW + 2 * HOUR))).toBe('no word');
  });

  test('parts of another type than asked for are unknown, and the journal says which', () => {
    const back = step(flow, handed.trip, ok({ free: 'maybe', slot: 'Monday' }));
    expect(back.journal[0]?.says).toBe('Planning desk answered; not of the type asked for: free');
    expect(back.trip.vars.visit).toEqual({ free: null, slot: 'Monday', came: true });
  });

  test('a refusal for good sticks the trip; trying again hands over afresh', () => {
    const stuck = step(flow, handed.trip, { kind: 'handed over', ok: false, says: 'refused it (403)', body: null });
    expect(stuck.trip.state).toMatchObject({ kind: 'stuck', why: 'refused it (403)' });
    const again = step(flow, stuck.trip, { kind: 'choice', choice: 'try again', by: 'Ines' });
    const [first, second] = [handed.commands[0], again.commands[0]];
    expect(second?.kind).toBe('hand over');
    expect(first?.kind === 'hand over' && second?.kind === 'hand over' && first.effectId !== second.effectId).toBe(true);
  });
});

describe('texts at hand', () => {
  test('sort puts a label with its words in the journal', () => {
    const flow = plan(
      'sort company.name as kind\n  glass: "builds with glass" like "Oakmere Glass"\n  wood: "builds with wood"\nnote kind.label\n',
    );
    const result = step(flow, trip());
    expect(lastSays(result)).toBe('glass');
    expect(result.journal[1]?.detail).toMatchObject({ label: 'glass', quote: 'Oakmere Glass' });
  });

  test('pick out answers typed questions from the text', () => {
    const view: RecordView = { ...VIEW, company: { ...VIEW.company, id: 'c1', controls: 'Tessel 4 controls, installed in 2013' } };
    const flow = plan(
      'pick out from company.controls as kit\n  controls_since: year "Since when do they have their controls?"\nnote string(kit.controls_since)\n',
    );
    expect(lastSays(step(flow, trip(), go, NOW, view))).toBe('2013');
  });
});

describe('a deal that a line opened', () => {
  test('has its fields set, is seen with them by the lines below, and keeps its stage to “move”', () => {
    const flow = plan('open deal in "Glasshouse sales" at "Qualified" as sale\nset sale.amount = 1000 + 500\nnote string(sale.amount)\n');
    const result = step(flow, trip(), go, NOW, VIEW);
    expect(lastSays(result)).toBe('1500');
    const [opened, facts] = result.commands;
    if (opened?.kind !== 'open deal' || facts?.kind !== 'record facts') throw new Error('no deal');
    expect(facts.facts).toMatchObject([{ record: { kind: 'deal', id: opened.dealId }, field: 'amount', value: 1500, source: 'flow' }]);
  });
});

describe('an application that a line opened', () => {
  const FLOW = 'open application for "Commissioning technician" at "Received" as job\n';
  test('is seen with what its opening says and what was set since, as it is now', () => {
    const flow = plan(`${FLOW}set job.could_begin = date("2027-03-01")\nnote string(job.nights_away) + " " + string(job.could_begin)\n`);
    const view = { ...VIEW, openings: { 'Commissioning technician': { nights_away: 18 } } };
    const result = step(flow, trip(), go, NOW, view);
    expect(lastSays(result)).toBe('18 2027-03-01');
    const { id } = result.trip.vars.job ?? {};
    expect(result.commands[1]).toMatchObject({
      facts: [{ record: { kind: 'application', id }, field: 'could_begin', value: '2027-03-01' }],
    });
  });
  test('and what somebody set by hand meanwhile counts, until the flow sets it', () => {
    const flow = plan(`${FLOW}wait 1 day\nnote string(job.wage_asked)\nset job.wage_asked = 3\nnote string(job.wage_asked)\n`);
    const begun = step(flow, trip(), go, NOW, VIEW);
    const id = textIn(begun.trip.vars.job?.id);
    const later = step(flow, begun.trip, go, NOW + 86_400_000, { ...VIEW, applications: { [id]: { wage_asked: 2 } } });
    expect(later.journal.filter((entry) => entry.verb === 'note').map((entry) => entry.says)).toEqual(['2', '3']);
  });
});

describe('a flow about deals', () => {
  test('sees the deal at the top, the person and the company below', () => {
    const flow = plan(
      'keep when quiet_days = 8 and person.first_name = "Mara"\nset amount = amount + 1000\nset person.status = stage\nmove deal to "Won"\nnote title + " " + stage\n',
      'deal',
    );
    const result = step(flow, trip({ dealId: 'd1' }), go, NOW, DEAL);
    expect(lastSays(result)).toBe('Oakmere, bays 3–4 Won');
    expect(result.commands).toMatchObject([
      { kind: 'record facts', facts: [{ record: { kind: 'deal', id: 'd1' }, field: 'amount', value: 39000 }] },
      { kind: 'record facts', facts: [{ record: { kind: 'person', id: 'p1' }, field: 'status', value: 'Proposal' }] },
      { kind: 'move deal', dealId: 'd1', stage: 'Won' },
      { kind: 'note' },
    ]);
  });
});

describe('set by hand', () => {
  const flow = plan('look up email with "Work e-mail"\nnote email\n');
  const stuck = step(flow, step(flow, trip(), go, NOW, { ...VIEW, person: { ...VIEW.person, email: null } }).trip, {
    kind: 'failed',
    why: 'refused',
    retryable: false,
    retryAfterMs: null,
  });

  test('puts the value where the line would have, as a fact by hand', () => {
    const set = step(flow, stuck.trip, { kind: 'choice', choice: 'set by hand', by: 'Ines', value: 'm@oakmere-glass.example' });
    expect(set.commands[0]).toMatchObject({ kind: 'record facts', facts: [{ field: 'email', source: 'hand', sourceRef: 'Ines' }] });
    expect(lastSays(set)).toBe('m@oakmere-glass.example');
  });

  test('does nothing without a value', () => {
    expect(step(flow, stuck.trip, { kind: 'choice', choice: 'set by hand', by: 'Ines' }).trip).toEqual(stuck.trip);
  });
});
