/**
 * The engine in a made-up world: workers that crash between any two steps, words that get lost, slow and failing effects,
 * a clock that jumps. Everything that happens follows from one seed. The store keeps the promises of the real statements
 * (claims with leases and fences, all-or-nothing transactions); what moves a trip is the real `advance`.
 */
import { chance, type Chance } from '../core/base';
import { advance, type Command, type RecordView, type Trip, type TripEvent } from '../core/engine';
import { compilePlan, type Plan } from '../core/flow/plan';
import { parseFlow } from '../core/flow/syntax';
import { DEMO_LIBRARY } from './demo-library';
import { compose, NOW, trip as freshTrip, VIEW } from './trips';

const FLOW = `flow "Sim"
about person

take in from hand
keep when email != null
look up phone with "Phone"
hand over to "Yard board"
split
  when phone = null
    note "no phone"
  else
    note "phone"
wait 2 hours
write email "First contact" as m
ask "north" to approve m
send m
wait for reply to m, at most 3 days as answer
split
  when answer.came = true
    note "answered"
  else
    stop "silent"
`;
const LIBRARY = { ...DEMO_LIBRARY, chains: [{ name: 'Phone', field: 'phone', providers: [{ name: 'Fernpost', priceMicro: 10 }] }] };
const PLAN: Plan = compilePlan(parseFlow(FLOW).tree, LIBRARY);

const MINUTE = 60_000;
const DAY = 24 * 60 * MINUTE;
const LEASE = 5 * MINUTE;
/** a day; a question costs a third of it */
const BUDGET = 35;
const PRICE = 10;

interface Row {
  trip: Trip;
  dueAt: number | null;
  leaseBy: string | null;
  leaseUntil: number;
  fence: number;
  events: { id: number; event: TripEvent }[];
  journal: string[];
  ended: boolean;
}
interface Send {
  readonly tripId: string;
  readonly kind: 'send' | 'hand over';
  state: 'planned' | 'started' | 'done' | 'in doubt' | 'failed';
  leaseBy: string | null;
  leaseUntil: number;
  fence: number;
  attempts: number;
}
interface Lookup {
  reserved: number;
  /** the day on which it was set aside */
  reservedAt: number;
  answer: string | null | undefined;
}

/** What went wrong, or undefined; and how much happened, so that an empty run cannot look well. */
export interface SimResult {
  readonly broken: string | undefined;
  readonly steps: number;
  readonly crashes: number;
  readonly delivered: number;
  readonly inDoubt: number;
}

class Sim {
  readonly rows = new Map<string, Row>();
  readonly sends = new Map<string, Send>();
  readonly lookups = new Map<string, Lookup>();
  /** how often each message and call reached the outside */
  readonly arrived = new Map<string, number>();
  readonly answers = new Map<string, boolean>();
  /** set aside and spent, by day */
  readonly money = new Map<number, { reserved: number; spent: number }>();
  now = NOW;
  crashes = 0;
  steps = 0;
  private nextEvent = 1;
  constructor(
    readonly draw: Chance,
    trips: number,
  ) {
    for (let i = 0; i < trips; i++) {
      const id = `t${i}`;
      this.rows.set(id, {
        trip: freshTrip({ id }),
        dueAt: this.now,
        leaseBy: null,
        leaseUntil: 0,
        fence: 0,
        events: [],
        journal: [],
        ended: false,
      });
    }
  }

  post(tripId: string, event: TripEvent): void {
    const row = this.rows.get(tripId);
    if (!row || row.ended) return;
    row.events.push({ id: this.nextEvent++, event });
    row.dueAt = this.now;
  }

  day(at = this.now): { reserved: number; spent: number } {
    const day = Math.floor(at / DAY);
    const found = this.money.get(day) ?? { reserved: 0, spent: 0 };
    this.money.set(day, found);
    return found;
  }

  view(id: string): RecordView {
    const found = this.lookups.get(id)?.answer;
    return { ...VIEW, person: { ...VIEW.person, id, phone: found ?? null } };
  }
}

type Steps = Generator<void, void, void>;

/** One trip worked off by one worker; every `yield` is a moment in which others act and the worker may die. */
function* workTrip(sim: Sim, holder: string): Steps {
  const due = [...sim.rows.values()].filter((row) => row.dueAt !== null && row.dueAt <= sim.now && row.leaseUntil < sim.now);
  const row = due[sim.draw.below(Math.max(1, due.length))];
  if (!row) return;
  row.leaseBy = holder;
  row.leaseUntil = sim.now + LEASE;
  row.fence += 1;
  const { fence } = row;
  let held = row.trip;
  let queue = [...row.events];
  let answer: TripEvent | undefined;
  yield;
  for (let round = 0; round < 30; round++) {
    const posted = answer ? undefined : queue.shift();
    const event: TripEvent = answer ?? posted?.event ?? (held.state.kind === 'asking' ? { kind: 'overdue' } : { kind: 'go' });
    const result = advance(PLAN, held, event, sim.now, sim.view(held.id));
    yield;
    // One transaction: refused whole when the lease went to another.
    if (row.fence !== fence || row.leaseBy !== holder) return;
    const more = result.request !== undefined || result.reload || result.trip.state.kind === 'ready' || queue.length > 0;
    commit(
      sim,
      row,
      result.trip,
      result.journal.map((entry) => `${entry.seq} ${entry.verb} ${entry.outcome}`),
      result.commands,
    );
    if (posted) row.events = row.events.filter((entry) => entry.id !== posted.id);
    const waits =
      result.trip.state.kind === 'waiting' || result.trip.state.kind === 'asking'
        ? result.trip.state.until
        : result.trip.state.kind === 'ready'
          ? sim.now
          : null;
    row.dueAt = row.ended ? null : row.events.length > 0 ? sim.now : waits;
    if (!more) {
      row.leaseBy = null;
      row.leaseUntil = 0;
      return;
    }
    row.leaseUntil = sim.now + LEASE;
    held = result.trip;
    queue = queue.length > 0 ? queue : [];
    yield;
    answer = undefined;
    if (!result.request) continue;
    if (result.request.kind === 'compose') answer = { kind: 'answer', answer: compose };
    else if (result.request.kind === 'reply')
      answer = {
        kind: 'answer',
        answer: { kind: 'reply', came: sim.answers.get(held.id) ? { kind: 'interested', text: 'yes', quote: null } : null },
      };
    else if (result.request.kind === 'look up') answer = yield* lookUp(sim, held.id);
    else throw new Error(`the simulated flow never asks for ${result.request.kind}`);
  }
}

function commit(sim: Sim, row: Row, trip: Trip, journal: readonly string[], commands: readonly Command[]): void {
  row.trip = trip;
  row.journal.push(...journal);
  row.ended = trip.state.kind === 'done' || trip.state.kind === 'stopped';
  for (const command of commands) {
    if (command.kind === 'plan touches') plan(sim, `send ${command.touches[0]?.messageId ?? ''}`, trip.id, 'send');
    if (command.kind === 'hand over') plan(sim, `hand over ${command.effectId}`, trip.id, 'hand over');
  }
}

function plan(sim: Sim, key: string, tripId: string, kind: Send['kind']): void {
  if (!sim.sends.has(key)) sim.sends.set(key, { tripId, kind, state: 'planned', leaseBy: null, leaseUntil: 0, fence: 0, attempts: 0 });
}

/** A paid question: set aside, asked, settled; after a crash anywhere it is asked again under the same key. */
function* lookUp(sim: Sim, id: string): Generator<void, TripEvent, void> {
  const ledger = sim.lookups.get(id) ?? { reserved: 0, reservedAt: 0, answer: undefined };
  sim.lookups.set(id, ledger);
  if (ledger.answer === undefined) {
    if (ledger.reserved === 0) {
      const money = sim.day();
      if (money.reserved + money.spent + PRICE > BUDGET)
        return { kind: 'held back', why: 'the budget is used up', until: (Math.floor(sim.now / DAY) + 1) * DAY };
      money.reserved += PRICE;
      ledger.reserved = PRICE;
      ledger.reservedAt = sim.now;
    }
    yield;
    const luck = sim.draw.next();
    if (luck < 0.15) return { kind: 'failed', why: 'busy', retryable: true, retryAfterMs: null };
    const value = luck < 0.6 ? '+44 1632 960000' : null;
    yield;
    if ((sim.lookups.get(id)?.answer ?? undefined) === undefined) {
      const money = sim.day(ledger.reservedAt);
      money.reserved -= ledger.reserved;
      money.spent += value === null ? 0 : PRICE;
      ledger.reserved = 0;
      ledger.answer = value;
    }
  }
  const value = ledger.answer ?? null;
  return {
    kind: 'answer',
    answer: {
      kind: 'look up',
      asked: [
        {
          provider: 'Fernpost',
          outcome: value === null ? 'nothing' : 'usable',
          value,
          why: '',
          costMicro: value === null ? 0 : PRICE,
          tookMs: 1,
        },
      ],
    },
  };
}

/** One effect by one worker: planned → started → done; a mail whose worker died in between is looked up, never sent again by guess. */
function* workSend(sim: Sim, holder: string): Steps {
  const open = [...sim.sends.entries()].filter(
    ([, send]) => (send.state === 'planned' || send.state === 'started') && send.leaseUntil < sim.now,
  );
  const found = open[sim.draw.below(Math.max(1, open.length))];
  if (!found) return;
  const [key, send] = found;
  const wasStarted = send.state === 'started';
  send.leaseBy = holder;
  send.leaseUntil = sim.now + LEASE;
  send.fence += 1;
  const { fence } = send;
  const mine = (): boolean => send.fence === fence && send.leaseBy === holder;
  const settle = (state: Send['state']): void => {
    if (!mine()) return;
    send.state = state;
    send.leaseUntil = 0;
    if (state === 'done' && send.kind === 'hand over') sim.post(send.tripId, { kind: 'handed over', ok: true, says: 'taken', body: null });
    if (state === 'done' && send.kind === 'send') sim.post(send.tripId, { kind: 'plan ended', how: 'all sent' });
  };
  yield;
  // A call carries an id that the other side knows it by, so it may be repeated. A mail may not: the relay is asked.
  if (wasStarted && send.kind === 'send') {
    const known = sim.draw.next();
    yield;
    if (known < 0.1) settle('in doubt');
    else settle(sim.arrived.has(key) ? 'done' : 'planned');
    return;
  }
  if (!mine()) return;
  // Taken before the send counts as begun: see `Mail.deadline`.
  const deadline = sim.now + LEASE / 2;
  send.state = 'started';
  send.attempts += 1;
  send.leaseUntil = sim.now + LEASE;
  yield;
  // A worker that stalled past half its lease does not begin to hand over at all.
  if (sim.now > deadline) {
    if (send.kind === 'send') {
      settle('planned');
      return;
    }
  }
  const luck = sim.draw.next();
  if (luck < 0.15) {
    settle('planned');
    return;
  }
  sim.arrived.set(key, (sim.arrived.get(key) ?? 0) + 1);
  yield;
  settle(luck < 0.2 && send.kind === 'send' ? 'in doubt' : 'done');
}

/** People and the outside: approve, answer. */
function others(sim: Sim): void {
  for (const [id, row] of sim.rows) {
    if (row.trip.state.kind === 'asking' && row.events.length === 0 && sim.draw.next() < 0.3)
      sim.post(id, {
        kind: 'decided',
        decision:
          sim.draw.next() < 0.85
            ? { kind: 'approve', by: 'Ines', subject: 's', body: 'b', edited: false }
            : { kind: 'refuse', by: 'Ines', why: '' },
      });
    if (row.trip.state.kind === 'stuck' && row.events.length === 0 && sim.draw.next() < 0.3)
      sim.post(id, { kind: 'choice', choice: sim.draw.next() < 0.6 ? 'try again' : 'skip the line', by: 'Ines' });
  }
  for (const [key, send] of sim.sends)
    if (send.kind === 'send' && sim.arrived.has(key) && !sim.answers.has(send.tripId) && sim.draw.next() < 0.05) {
      sim.answers.set(send.tripId, true);
      // The word of it may get lost: then the trip finds out when its time is up.
      if (sim.draw.next() < 0.8) sim.post(send.tripId, { kind: 'signal' });
    }
}

/** Runs one seed to its end and looks for what may never happen. */
export function simulate(seed: number): SimResult {
  const draw = chance(seed);
  const sim = new Sim(draw, 3 + draw.below(6));
  const workers = 2 + draw.below(3);
  const running: (Steps | undefined)[] = Array.from({ length: workers }, () => undefined);
  const crashRate = draw.next() * 0.08;
  const done = (): boolean =>
    [...sim.rows.values()].every((row) => row.ended) &&
    [...sim.sends.values()].every((send) => send.state !== 'planned' && send.state !== 'started');
  let broken: string | undefined;
  for (sim.steps = 0; sim.steps < 60_000 && !broken && !done(); sim.steps++) {
    const i = draw.below(workers);
    const calm = sim.steps > 40_000;
    if (!calm && running[i] && draw.next() < crashRate) {
      running[i] = undefined;
      sim.crashes += 1;
      continue;
    }
    running[i] ??= draw.next() < 0.5 ? workTrip(sim, `w${i} ${sim.steps}`) : workSend(sim, `w${i} ${sim.steps}`);
    if (running[i]?.next().done) running[i] = undefined;
    if (draw.next() < 0.2) others(sim);
    // Time creeps, and now and then leaps by hours or a day.
    sim.now += draw.next() < 0.02 ? draw.below(26 * 60) * MINUTE : draw.below(30_000);
    // Nothing that goes wrong mends itself: looking now and then is enough.
    if (sim.steps % 16 === 0) broken = violated(sim);
  }
  broken ??= violated(sim);
  if (!broken && !done()) broken = `not finished after ${sim.steps} steps: ${unfinished(sim)}`;
  const sends = [...sim.sends.values()];
  return {
    broken,
    steps: sim.steps,
    crashes: sim.crashes,
    delivered: [...sim.arrived.keys()].filter((key) => key.startsWith('send')).length,
    inDoubt: sends.filter((send) => send.state === 'in doubt').length,
  };
}

const unfinished = (sim: Sim): string =>
  [...sim.rows.values()]
    .filter((row) => !row.ended)
    .map((row) => `${row.trip.id} ${JSON.stringify(row.trip.state)}`)
    .join('; ');

/** What may never happen, whatever the seed. */
function violated(sim: Sim): string | undefined {
  for (const { reserved, spent } of sim.money.values()) {
    if (reserved + spent > BUDGET) return `the budget is exceeded: ${reserved} set aside, ${spent} spent of ${BUDGET}`;
    if (reserved < 0) return 'more was given back than was set aside';
  }
  for (const [key, times] of sim.arrived) if (key.startsWith('send') && times > 1) return `${key} arrived ${times} times`;
  for (const [key, send] of sim.sends)
    if (send.kind === 'send' && send.state === 'done' && !sim.arrived.has(key)) return `${key} counts as done and never arrived`;
  for (const row of sim.rows.values()) {
    const seqs = row.journal.map((line) => Number(line.split(' ')[0]));
    if (seqs.some((seq, i) => seq !== i)) return `${row.trip.id}: the journal has gaps or doubles: ${seqs.join(',')}`;
    if (row.journal.length !== row.trip.seq) return `${row.trip.id}: ${row.journal.length} journal lines, ${row.trip.seq} counted`;
    const stop = row.journal.findIndex((line) => line.endsWith(' stopped'));
    if (stop >= 0 && stop < row.journal.length - 1) return `${row.trip.id}: a line was run after the stop`;
    if (row.ended && row.trip.state.kind !== 'done' && row.trip.state.kind !== 'stopped') return `${row.trip.id} ended and goes on`;
  }
  return undefined;
}
