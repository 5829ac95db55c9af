/** Crashes, lost leases and two workers, on a real database: nothing lost, nothing twice. */
import fc from 'fast-check';
import type { Trip } from '../../core/engine';
import { demoWorld, goodSite, slotsDue, testWorker, type TestWorld } from '../../testing/world';
import type { Tx } from '../db';
import { claimSends, listDoubts } from '../messages/store/effects';
import { takeTurn } from '../flows/store/flows';
import { claimTrips, dueWhereCalled, postEvent, saveTrips } from '../trips/store/trips';
import { flows } from '../flows/flows';
import { lookAtFile, startImport } from '../intake/imports';
import { people } from '../records/records';
import { decideReview, desk, settleDoubt } from '../desk/reviews';
import { sendDue, settleDoubts } from '../messages/send-due';
import { trips } from '../desk/overview';
import { troubles } from '../desk/troubles';
import type { Actor } from '../platform/world';

const ASK = { leaseMs: 60_000, batch: 20, calls: 4 };
let world: TestWorld;
let ines: Actor;

/** People whose first message is approved and due. */
async function approved(count: number): Promise<void> {
  ({ world, ines } = await demoWorld());
  // In the evening: nothing is due before the next morning.
  world.now += 3_600_000 * 12;
  const flowId = (await flows(world, 0))[0]!.id;
  const names = [
    'Mara Quill',
    'Jonas Reissig',
    'Piet Aalders',
    'Nuria Peralta',
    'Ewa Sobczak',
    'Tamsin Stokoe',
    'Ruben Hoekstra',
    'Freya Lindqvist',
  ];
  const list = Array.from(
    { length: count },
    (_, i) =>
      `${names[i % names.length]!} ${i >= names.length ? 'Junior' : ''},p${i}@firm${i}.example,Firm Number ${i},firm${i}.example,GB`,
  );
  for (let i = 0; i < count; i++) goodSite(world.outside, `firm${i}.example`, 2 + i / 10);
  const id = await lookAtFile(world, ines, { name: 'x.csv', bytes: Buffer.from(['Name,Mail,Firm,Site,Country', ...list].join('\n')) });
  await startImport(world, ines, id, { flowId });
  await testWorker(world).drain();
  for (const review of (await desk(world)).reviews) await decideReview(world, ines, review.id, { does: 'approve' });
  await testWorker(world).drain();
}
afterEach(() => world.close());

/** The lease of everything a dead worker held is over. */
async function leasesEnd(): Promise<void> {
  await world.db`update effect set lease_until = clock_timestamp() - interval '1 second' where lease_until is not null`;
  await world.db`update trip set lease_until = clock_timestamp() - interval '1 second' where lease_until is not null`;
}

/** Runs two transactions so that the second waits for a row of the first before that one ends; what the second gave. */
async function meanwhile<T>(
  of: TestWorld,
  { first, second }: { first: (tx: Tx) => Promise<unknown>; second: (tx: Tx) => Promise<T> },
): Promise<T> {
  let waits: Promise<T> | undefined;
  await of.db.begin(async (tx) => {
    await first(tx);
    waits = of.db.begin(second) as Promise<T>;
    for (let blocked = 0; blocked === 0;)
      blocked =
        (
          await of.db<
            { n: number }[]
          >`select count(*)::int as n from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'`
        )[0]?.n ?? 0;
  });
  return waits!;
}

/** The ids of mails that arrived, and how many arrived more than once. */
const arrived = (): { different: number; twice: number } => {
  const ids = world.outside.mails.map((mail) => mail.messageId);
  return { different: new Set(ids).size, twice: ids.length - new Set(ids).size };
};

test('a worker that stalls between writing a send down and handing it over hands nothing over', async () => {
  await approved(2);
  await slotsDue(world);
  world.outside.late = true;
  await testWorker(world).drain();
  expect(arrived()).toEqual({ different: 0, twice: 0 });
  world.outside.late = false;
  await slotsDue(world);
  await testWorker(world).drain();
  expect(arrived()).toEqual({ different: 2, twice: 0 });
});

test('a worker that dies while sending: what the relay took is done, what it never had goes out, nothing twice', async () => {
  await approved(4);
  await slotsDue(world);
  world.outside.outcomes.push({ kind: 'crash', taken: true }, { kind: 'crash', taken: false });
  await sendDue(world, { ...ASK, holder: 'dead' });
  await leasesEnd();
  expect(await settleDoubts(world, { ...ASK, holder: 'alive' })).toBe(2);
  await testWorker(world, 'alive').drain();
  expect(arrived()).toEqual({ different: 4, twice: 0 });
  const [left] = await world.db<
    { n: number }[]
  >`select count(*)::int as n from effect where kind = 'send' and state in ('started', 'in doubt')`;
  expect(left?.n).toBe(0);
});

test('a line that breaks after the message was handed over: the relay is asked, and a mail it does not have goes out once more', async () => {
  await approved(3);
  await slotsDue(world);
  const broke = { kind: 'in doubt', says: 'the line broke after the message was handed over' } as const;
  world.outside.outcomes.push({ ...broke, taken: true }, { ...broke, taken: false });
  await sendDue(world, { ...ASK, holder: 'one' });
  const states = async () =>
    (await world.db<{ state: string }[]>`select state from effect where kind = 'send' order by state`).map((row) => row.state);
  // The relay has the first; that it does not have the second may be too early to say.
  expect((await states()).filter((state) => state === 'started')).toHaveLength(1);
  expect(await settleDoubts(world, { ...ASK, holder: 'two' })).toBe(0);
  await leasesEnd();
  expect(await settleDoubts(world, { ...ASK, holder: 'two' })).toBe(1);
  await testWorker(world, 'two').drain();
  world.now += 3_600_000;
  await testWorker(world, 'two').drain();
  expect(arrived()).toEqual({ different: 3, twice: 0 });
  expect(await listDoubts(world.db)).toEqual([]);
});

test('what nobody can know stays in doubt until a person says; it is never sent again by guess', async () => {
  await approved(2);
  await slotsDue(world);
  world.outside.relayKnows = false;
  world.outside.outcomes.push(
    { kind: 'crash', taken: true },
    { kind: 'in doubt', says: 'the line broke after the message was handed over' },
  );
  await sendDue(world, { ...ASK, holder: 'dead' });
  await leasesEnd();
  await testWorker(world, 'alive').drain();
  const doubts = await listDoubts(world.db);
  expect(doubts).toHaveLength(2);
  expect((await desk(world)).doubts).toHaveLength(2);
  expect(arrived().different).toBe(1);
  for (const doubt of doubts)
    await settleDoubt(
      world,
      ines,
      doubt.id,
      world.outside.mails.some((mail) => mail.messageId.includes(doubt.messageId)),
    );
  await expect(settleDoubt(world, ines, doubts[0]!.id, false)).rejects.toThrow('no longer in doubt');
  world.now += 3_600_000;
  await testWorker(world).drain();
  expect(await listDoubts(world.db)).toEqual([]);
  expect(arrived()).toEqual({ different: 2, twice: 0 });
});

test.each([true, false])('a trip whose last send was in doubt goes on when a person has said whether it left (%s)', async (left) => {
  await approved(1);
  world.outside.relayKnows = false;
  for (let touch = 0; touch < 2; touch++) {
    await slotsDue(world);
    await testWorker(world).drain();
  }
  await slotsDue(world);
  world.outside.outcomes.push({ kind: 'crash', taken: left });
  await sendDue(world, { ...ASK, holder: 'dead' });
  await leasesEnd();
  await testWorker(world, 'alive').drain();
  const [doubt] = await listDoubts(world.db);
  expect((await trips(world, {})).items.map((row) => row.state)).toEqual(['following']);
  await settleDoubt(world, ines, doubt?.id ?? '', left);
  if (!left) await slotsDue(world);
  await testWorker(world).drain();
  expect((await trips(world, {})).items.map((row) => row.state)).toEqual(['done']);
  expect(arrived()).toEqual({ different: 3, twice: 0 });
});

test('a greylisting relay is tried again later; one that refuses ends the plan', async () => {
  await approved(2);
  await slotsDue(world);
  world.outside.outcomes.push({ kind: 'deferred', says: '451 come back later' }, { kind: 'rejected', says: '550 no such mailbox' });
  await testWorker(world).drain();
  expect(arrived().different).toBe(0);
  await slotsDue(world);
  await testWorker(world).drain();
  expect(arrived()).toEqual({ different: 1, twice: 0 });
  expect((await trips(world, { state: 'done' })).items).toHaveLength(1);
});

test('random crashes of two workers, over and over: every mail arrives once', async () => {
  await approved(8);
  const seed = 20261124;
  const random = fc.sample(fc.constantFrom('fine', 'fine', 'dies before', 'dies after'), { numRuns: 400, seed });
  let step = 0;
  for (let day = 0; day < 16; day++) {
    for (let hour = 0; hour < 24; hour += 3) {
      world.now += 3_600_000 * 3;
      for (let i = 0; i < 3; i++) {
        const how = random[step++ % random.length]!;
        world.outside.outcomes.length = 0;
        if (how !== 'fine') world.outside.outcomes.push({ kind: 'crash', taken: how === 'dies after' });
        await Promise.all([sendDue(world, { ...ASK, batch: 2, holder: 'one' }), sendDue(world, { ...ASK, batch: 2, holder: 'two' })]);
        await leasesEnd();
        await settleDoubts(world, { ...ASK, holder: 'three' });
      }
      world.outside.outcomes.length = 0;
      await testWorker(world).drain();
    }
  }
  expect({ seed, ...arrived() }).toEqual({ seed, different: 24, twice: 0 });
  expect((await trips(world, { state: 'done' })).items).toHaveLength(8);
}, 90_000);

test('two workers never hold the same send or trip', async () => {
  await approved(8);
  await slotsDue(world);
  const claim = { now: world.now, since: world.now - 3_600_000, leaseMs: 60_000, limit: 5 };
  const [one, two] = await Promise.all([
    claimSends(world.db, { ...claim, holder: 'one' }),
    claimSends(world.db, { ...claim, holder: 'two' }),
  ]);
  const ids = [...one, ...two].map((send) => send.id);
  expect(ids).toHaveLength(8);
  expect(new Set(ids).size).toBe(8);
});

test('a stalled worker whose lease went to another can no longer write', async () => {
  await approved(1);
  await world.db`update trip set state = 'ready', due_at = ${world.now}, lease_by = null, lease_until = null`;
  const ask = { now: world.now, leaseMs: 60_000, limit: 1 };
  const [stalled] = await claimTrips(world.db, { ...ask, holder: 'stalled' });
  await leasesEnd();
  const [other] = await claimTrips(world.db, { ...ask, holder: 'other' });
  expect(other?.fence).toBe((stalled?.fence ?? 0) + 1);
  const write = (held: typeof stalled, holder: string) =>
    saveTrips(world.db, [{ held: held!, trip: { ...held!.trip, seq: 999 }, keep: false }], { holder, now: world.now, leaseMs: 60_000 });
  expect((await write(stalled, 'stalled')).size).toBe(0);
  expect((await write(other, 'other')).size).toBe(1);
});

test('an event that comes while the trip is being written is not lost', async () => {
  await approved(1);
  await world.db`update trip set state = 'ready', due_at = ${world.now}, lease_by = null, lease_until = null`;
  const [held] = await claimTrips(world.db, { holder: 'one', now: world.now, leaseMs: 60_000, limit: 1 });
  const { trip } = held!;
  const waiting: Trip = { ...trip, state: { kind: 'waiting', until: null, why: 'waits for a reply', on: 'reply' } };
  // The poster has the row; the writer comes, looks for events, finds none and waits for the row; the poster ends.
  const ended = await meanwhile(world, {
    first: (tx) => postEvent(tx, trip.id, { kind: 'signal' }, world.now),
    second: async (tx) => {
      const saved = await saveTrips(tx, [{ held: held!, trip: waiting, keep: false }], { holder: 'one', now: world.now, leaseMs: 60_000 });
      await dueWhereCalled(tx, [...saved.keys()], world.now);
      return saved.size;
    },
  });
  expect(ended).toBe(1);
  const [row] = await world.db<{ state: string; dueAt: number | null }[]>`select state, due_at from trip`;
  expect(row).toEqual({ state: 'waiting', dueAt: world.now });
});

test('a broken invariant stops its own trip only, with a reason', async () => {
  await approved(2);
  const [row] = (await trips(world, {})).items;
  await world.db`insert into trip_event (trip_id, event, at) values (${row!.id}, ${world.db.json({ kind: 'answer', answer: { kind: 'nonsense' } })}, now())`;
  await world.db`update trip set state = 'ready', due_at = ${world.now} where id = ${row!.id}`;
  await testWorker(world).drain();
  const [stuck] = (await trips(world, { state: 'stuck' })).items;
  expect(stuck).toMatchObject({ id: row!.id });
  expect(stuck?.stateDetail.why).toMatch(/something broke inside Millrace/);
});

test('assigning in turn is fair when many ask at once', async () => {
  await approved(1);
  const turns = await Promise.all(Array.from({ length: 40 }, () => takeTurn(world.db, 'north', '2026-11-24')));
  const counts = new Map<string, number>();
  for (const turn of turns) counts.set(turn!.name, (counts.get(turn!.name) ?? 0) + 1);
  expect(Object.fromEntries(counts)).toEqual({ 'Tomasz Wierzba': 20, 'Lucía Ferrer Mas': 20 });
  expect(await takeTurn(world.db, 'nobody', '2026-11-24')).toBeUndefined();
});

test('the database itself refuses a second trip, a taken slot, a record merged into itself, and a fact without measure', async () => {
  await approved(2);
  const { db } = world;
  const [trip] = await db<{ id: string }[]>`select id from trip limit 1`;
  await expect(
    db`insert into trip (id, flow_id, version_id, person_id, intake_key, state, created_at) select gen_random_uuid(), flow_id, version_id, person_id, intake_key, 'ready', now() from trip where id = ${trip!.id}`,
  ).rejects.toThrow('trip_once');
  await expect(db`update effect set due_at = (select min(due_at) from effect where kind = 'send') where kind = 'send'`).rejects.toThrow(
    'effect_slot',
  );
  await expect(db`update person set merged_into = id`).rejects.toThrow();
  await expect(db`update fact set confidence = 2`).rejects.toThrow();
  await expect(db`update effect set state = 'perhaps'`).rejects.toThrow();
  expect((await people(world, {})).items).toHaveLength(2);
});

test('a relay that is away uses up no try and is told on every page; its mail goes out when it is back', async () => {
  await approved(3);
  const away = { kind: 'away', says: 'it does not answer' } as const;
  for (let i = 0; i < 12; i++) {
    await slotsDue(world);
    world.outside.outcomes.push(away, away, away);
    await sendDue(world, { ...ASK, holder: 'one' });
    world.outside.outcomes.length = 0;
  }
  expect(arrived().different).toBe(0);
  const rows = await world.db<{ state: string; attempts: number }[]>`select state, attempts from effect where kind = 'send'`;
  expect(rows.map((row) => [row.state, row.attempts])).toEqual(rows.map(() => ['planned', 0]));
  expect(await troubles(world)).toMatchObject([
    { says: 'The mail relay cannot be reached (it does not answer). Mail waits and keeps its order.' },
  ]);
  await slotsDue(world);
  await testWorker(world).drain();
  expect(arrived()).toEqual({ different: 3, twice: 0 });
  expect(await troubles(world)).toEqual([]);
});
