/** Holding back, ending, moving, limits of a release, budgets and shut connections: on a real database with a worker. */
import { stableId } from '../../core/base';
import { demoWorld, slotsDue, testWorker, type TestWorld } from '../../testing/world';
import { WorldFailure } from '../ports';
import { connect } from '../db';
import { nextSendDue } from '../messages/store/effects';
import { freeSlot, reserve, settleSpend, spentOn, takeSlot } from './store/control';
import { endAll, goOn, moveTrips, pauseFlow } from './control';
import { startOn } from '../flows/flows';
import { trip, trips } from '../desk/overview';
import { createCompany, createPerson } from '../records/records';
import { type ReleaseAsk } from '../flows/releases';
import { decideReview, desk } from '../desk/reviews';
import { notices } from './tell';
import type { Actor } from '../platform/world';
import { madeFlow, peopleWithFirms, redrafted } from '../../testing/flows';

const DAY = 86_400_000;
/** Nothing leaves before the next morning. */
const EVENING = Date.parse('2026-11-24T18:00:00Z');
let world: TestWorld;
let ines: Actor;
beforeEach(async () => {
  ({ world, ines } = await demoWorld());
});
afterEach(() => world.close());

const drain = () => testWorker(world).drain();
const made = (lines: string, ask?: ReleaseAsk) => madeFlow(world, ines, lines, ask);
const redraft = (id: string, change: (text: string) => string, ask?: ReleaseAsk) => redrafted(world, ines, id, change, ask);
const people = (count: number, more?: (i: number) => Readonly<Record<string, string>>) => peopleWithFirms(world, ines, count, more);
const states = async (flowId: string): Promise<string[]> =>
  (await trips(world, { flowId, limit: 100 })).items.map((row) => row.state).sort();

test('a flow that rests does nothing, and goes on where it was', async () => {
  const id = await made('wait 1 day\nnote "on"\n');
  await startOn(world, ines, id, await people(3));
  await drain();
  expect(await pauseFlow(world, ines, id, true)).toEqual({ trips: 3 });
  world.now += 2 * DAY;
  await startOn(world, ines, id, await people(1));
  await drain();
  expect(await states(id)).toEqual(['ready', 'waiting', 'waiting', 'waiting']);
  expect(await pauseFlow(world, ines, id, false)).toEqual({ trips: 4 });
  await drain();
  expect(await states(id)).toEqual(['done', 'done', 'done', 'waiting']);
});

test('planned mail of a resting flow stays, and goes when the flow does', async () => {
  const id = await made('keep when email != null\nwrite email "Second look" as m\nask "north" to approve m\nsend m\n');
  const firm = await createCompany(world, ines, { values: { name: 'Oakmere Glass' }, source: 'hand' });
  const mara = await createPerson(world, ines, {
    values: { name: 'Mara Quill', email: 'm@oakmere-glass.example' },
    companyId: firm.id,
    source: 'hand',
  });
  world.now = EVENING;
  await startOn(world, ines, id, [mara.id]);
  await drain();
  for (const review of (await desk(world)).reviews) await decideReview(world, ines, review.id, { does: 'approve' });
  await drain();
  // The trip itself is done: what rests is its mail.
  expect(await pauseFlow(world, ines, id, true)).toEqual({ trips: 0 });
  world.now += DAY;
  await drain();
  expect(world.outside.mails).toEqual([]);
  await pauseFlow(world, ines, id, false);
  await drain();
  // Its time has passed, and it is evening again: it takes its turn in the morning.
  expect(world.outside.mails).toEqual([]);
  await slotsDue(world);
  await drain();
  expect(world.outside.mails).toHaveLength(1);
});

test('after a long rest touches leave in office hours, two minutes apart, and keep their distance', async () => {
  const id = await made('write email "First contact" as m\nask "north" to approve m\nfollow up with "First contact"\n');
  const ids = await people(6, (i) => ({ email: `p${i}@f${i}.example` }));
  world.now = EVENING;
  await startOn(world, ines, id, ids);
  await drain();
  for (const review of (await desk(world)).reviews) await decideReview(world, ines, review.id, { does: 'approve' });
  await drain();
  await pauseFlow(world, ines, id, true);
  // All three touches of everybody are overdue, at midnight.
  world.now = Date.parse('2026-12-12T23:00:00Z');
  await pauseFlow(world, ines, id, false);
  for (let step = 0; step < 200 && world.outside.mails.length < 18; step++) {
    await drain();
    const next = await nextSendDue(world.db, world.now);
    if (next !== null) world.now = Math.max(world.now, next);
  }
  const times = world.outside.mails.map((mail) => mail.date).sort((a, b) => a - b);
  expect(times).toHaveLength(18);
  for (let i = 1; i < times.length; i++) expect((times[i] ?? 0) - (times[i - 1] ?? 0)).toBeGreaterThanOrEqual(120_000);
  for (const at of times) {
    expect([1, 2, 3, 4, 5]).toContain(new Date(at).getUTCDay());
    expect(new Date(at).getUTCHours()).toBeGreaterThanOrEqual(8);
    expect(new Date(at).getUTCHours()).toBeLessThan(17);
  }
  for (let i = 0; i < 6; i++) {
    const own = world.outside.mails.filter((mail) => mail.to.address === `p${i}@f${i}.example`).map((mail) => mail.date);
    expect(own).toHaveLength(3);
    expect(own[1]! - own[0]!).toBeGreaterThanOrEqual(2 * DAY);
    expect(own[2]! - own[1]!).toBeGreaterThanOrEqual(2 * DAY);
  }
});

test.each([
  ['put to rest', pauseFlow, 'ready', ['take in: taken in from hand', 'look up: nothing usable from 2 providers']],
  [
    'ended',
    endAll,
    'stopped',
    ['take in: taken in from hand', 'look up: nothing usable from 2 providers', 'note: ended with all others by Ines Okafor-Brandt'],
  ],
])('trips that a worker has in hand while their flow is %s do not go on to the next line', async (_, strike, state, lines) => {
  world.outside.provider = async () => {
    await strike(world, ines, id, true);
    return { value: null, confidence: 0, tookMs: 1 };
  };
  const id = await made('look up email with "Work e-mail"\nnote "on"\n');
  await startOn(world, ines, id, await people(1));
  await drain();
  const [row] = (await trips(world, { flowId: id })).items;
  expect((await trip(world, row?.id ?? '')).journal.map((entry) => `${entry.verb}: ${entry.says}`)).toEqual(lines);
  expect(row?.state).toBe(state);
});

test('however many start at once, no more begin at first than a release lets', async () => {
  const id = await made('note "on"\n', { firstN: 5 });
  const ids = await people(24);
  await Promise.all(Array.from({ length: 6 }, (_, i) => startOn(world, ines, id, ids.slice(i * 4, i * 4 + 4))));
  await drain();
  expect(await states(id)).toEqual([...Array.from({ length: 5 }, () => 'done'), ...Array.from({ length: 19 }, () => 'ready')]);
});

test('trips that begin in the very moment in which a flow is put to rest rest too', async () => {
  const id = await made('note "on"\n');
  const ids = await people(24);
  await Promise.all([
    ...Array.from({ length: 4 }, (_, i) => startOn(world, ines, id, ids.slice(i * 4, i * 4 + 4))),
    pauseFlow(world, ines, id, true),
    startOn(world, ines, id, ids.slice(16, 20)),
    startOn(world, ines, id, ids.slice(20)),
  ]);
  await drain();
  expect(await states(id)).toEqual(ids.map(() => 'ready'));
});

test('ending all trips closes what is asked and drops what has not left', async () => {
  const id = await made(
    'keep when email != null\nwrite email "First contact" as m\nask "north" to approve m\nfollow up with "First contact"\n',
  );
  const firm = await createCompany(world, ines, {
    values: { name: 'Oakmere Glass', main_crop: 'tomato', heated_area: '4.2' },
    source: 'hand',
  });
  const ids = await Promise.all(
    ['Mara Quill', 'Piet Aalders'].map(
      async (name) =>
        (
          await createPerson(world, ines, {
            values: { name, email: `${name[0] ?? ''}@oakmere-glass.example` },
            companyId: firm.id,
            source: 'hand',
          })
        ).id,
    ),
  );
  world.now = EVENING;
  await startOn(world, ines, id, ids);
  await drain();
  const [first] = (await desk(world)).reviews;
  await decideReview(world, ines, first?.id ?? '', { does: 'approve' });
  await drain();
  expect(await endAll(world, ines, id)).toEqual({ trips: 2 });
  await drain();
  expect(await states(id)).toEqual(['stopped', 'stopped']);
  expect((await desk(world)).reviews).toEqual([]);
  world.now += 30 * DAY;
  await drain();
  expect(world.outside.mails).toEqual([]);
  const [row] = (await trips(world, { flowId: id })).items;
  expect((await trip(world, row?.id ?? '')).journal.at(-1)).toMatchObject({
    outcome: 'stopped',
    says: 'ended with all others by Ines Okafor-Brandt',
  });
});

test('trips under way are moved where the marks match, and finish on theirs where they do not', async () => {
  const id = await made('wait 1 day\nnote "old end"\n');
  await startOn(world, ines, id, await people(2));
  await drain();
  await redraft(id, (text) => text.replace('note "old end"', 'note "new end"\nset status = "seen"'), { underWay: 'move' });
  world.now += DAY;
  await drain();
  const [row] = (await trips(world, { flowId: id })).items;
  expect(row?.versionNo).toBe(2);
  expect((await trip(world, row?.id ?? '')).journal.map((entry) => entry.says)).toContain('new end');
  await redraft(id, (text) => text.replace(/^wait 1 day.*$/m, 'wait 2 days'));
  await startOn(world, ines, id, await people(1));
  await drain();
  await redraft(id, (text) => text.replace(/^wait 2 days.*\n/m, ''));
  await redraft(id, (text) => text.replace(/^note "new end".*\n/m, ''));
  expect(await moveTrips(world, ines, id)).toEqual({ moved: 0, stayed: 1 });
});

test('the first ones begin, a person is asked, and the others go on', async () => {
  const id = await made('note "through"\n', { firstN: 2 });
  await startOn(world, ines, id, await people(5));
  await drain();
  expect(await states(id)).toEqual(['done', 'done', 'ready', 'ready', 'ready']);
  const [waiting] = (await desk(world)).firsts;
  expect(waiting).toMatchObject({ flowName: 'T', firstN: 2, held: 3, done: 2, open: 0 });
  expect(await goOn(world, ines, waiting?.versionId ?? '')).toEqual({ trips: 3 });
  await drain();
  expect(await states(id)).toEqual(['done', 'done', 'done', 'done', 'done']);
  await expect(goOn(world, ines, waiting?.versionId ?? '')).rejects.toThrow('nobody waits behind this release');
});

test('so many begin a day, none before the start', async () => {
  const id = await made('note "through"\n', { dailyLimit: 2, startAt: '2026-11-24T15:00' });
  await startOn(world, ines, id, await people(5));
  const done: number[] = [];
  for (const at of ['2026-11-24T14:59:00Z', '2026-11-24T15:00:00Z', '2026-11-25T00:00:00Z', '2026-11-26T00:00:00Z']) {
    world.now = Date.parse(at);
    await drain();
    done.push((await states(id)).filter((state) => state === 'done').length);
  }
  expect(done).toEqual([0, 2, 4, 5]);
});

test('a used-up budget makes trips wait until tomorrow, tells the owner once, and loses nothing', async () => {
  // An answer is paid for only when there is one: both providers know everybody here.
  world.outside.provider = (question) => ({
    value: `${question.personName.replace(' ', '.').toLowerCase()}@${question.host ?? ''}`,
    confidence: 0.9,
    tookMs: 1,
  });
  const id = await made('look up email with "Work e-mail"\nnote "found"\n', { dayBudgetMicro: 45_000 });
  await startOn(world, ines, id, await people(4));
  await drain();
  const owner: Actor = { userId: stableId('user', 'ruud@thornwick.example'), name: 'Ruud' };
  expect((await states(id)).filter((state) => state === 'done').length).toBeLessThanOrEqual(2);
  const spent = await spentOn(world.db, `flow ${id}`, '2026-11-24');
  expect(spent).toBeLessThanOrEqual(45_000);
  expect((await notices(world, owner)).map((notice) => notice.text).sort()).toEqual([
    'four fifths of the flow’s budget for today are gone',
    'the flow’s budget for today is used up: trips wait until tomorrow and nothing is lost',
  ]);
  for (let day = 1; day <= 3; day++) {
    world.now = Date.parse('2026-11-24T00:00:00Z') + day * DAY;
    await drain();
  }
  expect(await states(id)).toEqual(['done', 'done', 'done', 'done']);
});

test('money is settled on the day it was set aside, and given back when the provider refuses for good', async () => {
  const said = [new WorldFailure('busy', 'come back later', true, 20 * 3_600_000), new WorldFailure('refused', 'refused', false)];
  world.outside.provider = () => said.shift() ?? { value: null, confidence: 0, tookMs: 1 };
  const id = await made('look up email with "Work e-mail"\n', { dayBudgetMicro: 100_000 });
  await startOn(world, ines, id, await people(1));
  await drain();
  expect(await spentOn(world.db, `flow ${id}`, '2026-11-24')).toBe(20_000);
  world.now += DAY;
  await drain();
  expect(await states(id)).toEqual(['done']);
  expect(await spentOn(world.db, `flow ${id}`, '2026-11-24')).toBe(0);
  expect(await spentOn(world.db, `flow ${id}`, '2026-11-25')).toBe(0);
});

test('however many reserve at once, the budget is never exceeded', async () => {
  const pool = connect(world.url, { max: 8, name: 'budget test' });
  const ok = await Promise.all(Array.from({ length: 60 }, () => reserve(pool, 'b', '2026-11-24', 7, 100)));
  expect(ok.filter(Boolean)).toHaveLength(14);
  await settleSpend(pool, 'b', '2026-11-24', 7, 2);
  expect(await spentOn(pool, 'b', '2026-11-24')).toBe(14 * 7 - 5);
  expect(await reserve(pool, 'b', '2026-11-24', 7, 100)).toBe(100);
  expect(await reserve(pool, 'b', '2026-11-24', 7, 100)).toBeUndefined();
  expect(await reserve(pool, 'b', '2026-11-24', 7, null)).toBe(107);
  await pool.end({ timeout: 1 });
});

test('a connection takes only so many calls at once, over all workers, and every trip gets its turn', async () => {
  await world.db`update library_item set body = jsonb_set(body, '{providers}', (select jsonb_agg(p || '{"atOnce":2}') from jsonb_array_elements(body->'providers') p)) where kind = 'chain'`;
  const underWay = new Map<string, number>();
  let most = 0;
  world.outside.provider = async (question) => {
    underWay.set(question.provider, (underWay.get(question.provider) ?? 0) + 1);
    most = Math.max(most, ...underWay.values());
    // A call lasts until another has come beside it, as far as one is let.
    for (let i = 0; i < 20 || (most < 2 && i < 5_000); i++) await new Promise(setImmediate);
    underWay.set(question.provider, (underWay.get(question.provider) ?? 1) - 1);
    return { value: null, confidence: 0, tookMs: 1 };
  };
  const id = await made('look up email with "Work e-mail"\n');
  const ids = await people(20);
  await startOn(world, ines, id, ids);
  const second: TestWorld = { ...world };
  for (let round = 0; round < 200 && (await trips(world, { flowId: id, limit: 100 })).items.some((row) => row.state !== 'done'); round++) {
    // Whoever found every place taken comes again a little later.
    world.now += 500;
    second.now = world.now;
    await Promise.all([testWorker(world).drain(), testWorker(second).drain()]);
  }
  expect((await trips(world, { flowId: id, limit: 100 })).items.map((row) => row.state)).toEqual(ids.map(() => 'done'));
  expect(most).toBe(2);
});

test('as many calls as there are places each get one, however they fall together, and the next gets none', async () => {
  const pool = connect(world.url, { max: 8, name: 'slot test' });
  for (let round = 0; round < 25; round++) {
    const takers = Array.from({ length: 4 }, (_, i) => stableId('call', String(round), String(i)));
    // One after the other, as the calls of one worker come, while earlier ones give theirs back.
    const got: boolean[] = [];
    for (const by of takers) got.push(await takeSlot(pool, { name: 'x', slots: 4, leaseMs: 60_000, by }));
    expect(got).toEqual([true, true, true, true]);
    expect(await takeSlot(pool, { name: 'x', slots: 4, leaseMs: 60_000, by: stableId('late') })).toBe(false);
    const held = await pool<{ heldBy: string }[]>`select held_by from connection_slot where name = 'x' order by slot`;
    expect(held.map((row) => row.heldBy)).toEqual(takers);
    await Promise.all(takers.map((by) => freeSlot(pool, 'x', by)));
  }
  await pool.end({ timeout: 1 });
});

test('a place of a call whose worker died is free again after its time', async () => {
  const ask = { name: 'x', slots: 1, leaseMs: 60_000 };
  expect(await takeSlot(world.db, { ...ask, by: stableId('a') })).toBe(true);
  expect(await takeSlot(world.db, { ...ask, by: stableId('b') })).toBe(false);
  await world.db`update connection_slot set held_until = clock_timestamp() - interval '1 second'`;
  expect(await takeSlot(world.db, { ...ask, by: stableId('b') })).toBe(true);
  // The one who died and came back gives nothing away.
  await freeSlot(world.db, 'x', stableId('a'));
  expect(await takeSlot(world.db, { ...ask, by: stableId('c') })).toBe(false);
});

test('a connection that keeps failing is left alone, and trips are held back without being blamed', async () => {
  let asked = 0;
  world.outside.provider = () => {
    asked += 1;
    return new WorldFailure('broken', 'Fernpost answered with an error (500)', true);
  };
  const id = await made('look up email with "Work e-mail"\n');
  await startOn(world, ines, id, await people(12));
  await drain();
  // Calls that had begun at once count; the others find the connection shut.
  const atOnce = asked;
  expect(atOnce).toBeLessThanOrEqual(16);
  const later = await people(3);
  await startOn(world, ines, id, later);
  await drain();
  expect(asked).toBe(atOnce);
  const rows = (await trips(world, { flowId: id, limit: 100 })).items.filter((row) => later.includes(row.personId));
  expect(rows.map((row) => row.says)).toEqual(later.map(() => 'Fernpost keeps failing and is left alone for a while'));
});
