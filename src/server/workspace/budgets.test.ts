/** What may be spent in a month: over flows, providers and trials, told at four fifths, waited for at its end. */
import { stableId } from '../../core/base';
import { madeFlow, peopleWithFirms } from '../../testing/flows';
import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { trips } from '../desk/overview';
import { startOn } from '../flows/flows';
import type { Actor } from '../platform/world';
import { notices } from '../trips/tell';
import { budgetsView, keepBudget } from './budgets';

const RUUD: Actor = { userId: stableId('user', 'ruud@thornwick.example'), name: 'Ruud' };
let world: TestWorld;
let ines: Actor;
beforeEach(async () => {
  ({ world, ines } = await demoWorld());
  // An answer is paid for only when there is one: the first provider, at 2 cents, knows everybody here.
  world.outside.provider = (question) => ({
    value: `${question.personName.replace(' ', '.').toLowerCase()}@${question.host ?? ''}`,
    confidence: 0.9,
    tookMs: 1,
  });
});
afterEach(() => world.close());

const drain = () => testWorker(world).drain();
const flowOf = () => madeFlow(world, ines, 'look up email with "Work e-mail"\nnote "found"\n');
const states = async (flowId: string): Promise<string[]> =>
  (await trips(world, { flowId, limit: 100 })).items.map((row) => row.state).sort();
const lineOf = async (kind: string, id = '') => (await budgetsView(world)).items.find((line) => line.kind === kind && line.id === id);
const told = async (): Promise<readonly string[]> => (await notices(world, RUUD)).map((notice) => notice.text).sort();

test('with a limit or without, spending is counted: together, by provider, by flow', async () => {
  const id = await flowOf();
  await startOn(world, ines, id, await peopleWithFirms(world, ines, 3));
  await drain();
  const view = await budgetsView(world);
  expect(view.month).toBe('2026-11-01');
  const all = await lineOf('all');
  expect(all).toMatchObject({ limitMicro: 25_000_000, reservedMicro: 0 });
  expect(await lineOf('flow', id)).toMatchObject({ limitMicro: null });
  expect(all?.spentMicro).toBeGreaterThan(0);
  expect((await lineOf('flow', id))?.spentMicro).toBe(all?.spentMicro);
  const byProvider = view.items.filter(({ kind }) => kind === 'provider').reduce((sum, line) => sum + line.spentMicro, 0);
  expect(byProvider).toBe(all?.spentMicro);
  expect(await told()).toEqual([]);
});

test('above a month’s budget trips wait for the next month; owners are told at four fifths and at its end, once each', async () => {
  const id = await flowOf();
  await keepBudget(world, RUUD, { kind: 'flow', id, limitMicro: 100_000 });
  await startOn(world, ines, id, await peopleWithFirms(world, ines, 8));
  await drain();
  const line = await lineOf('flow', id);
  expect((line?.spentMicro ?? 0) + (line?.reservedMicro ?? 0)).toBeLessThanOrEqual(100_000);
  expect((await states(id)).filter((state) => state !== 'done').length).toBeGreaterThan(0);
  expect(await told()).toEqual([
    'four fifths of the flow’s budget for this month are gone',
    'the flow’s budget for this month is used up: trips wait until next month and nothing is lost',
  ]);
  // The next day changes nothing, the next month does.
  world.now += 86_400_000;
  await drain();
  expect((await states(id)).filter((state) => state !== 'done').length).toBeGreaterThan(0);
  world.now = Date.parse('2026-12-01T01:00:00Z');
  await drain();
  expect((await lineOf('flow', id))?.spentMicro).toBeGreaterThan(0);
  world.now = Date.parse('2027-01-01T01:00:00Z');
  await drain();
  expect(await states(id)).toEqual(Array.from({ length: 8 }, () => 'done'));
});

test('the budget of everything holds over flows; one that is taken away holds nothing', async () => {
  const [one, two] = [await flowOf(), await madeFlow(world, ines, 'look up email with "Work e-mail"\nnote "again"\n', {}, 'Another')];
  await keepBudget(world, RUUD, { kind: 'all', id: '', limitMicro: 40_000 });
  await startOn(world, ines, one, await peopleWithFirms(world, ines, 2));
  await startOn(world, ines, two, await peopleWithFirms(world, ines, 2, (i) => ({ name: `Other Reader${i}` })));
  await drain();
  const all = await lineOf('all');
  expect((all?.spentMicro ?? 0) + (all?.reservedMicro ?? 0)).toBeLessThanOrEqual(40_000);
  await keepBudget(world, RUUD, { kind: 'all', id: '', limitMicro: null });
  expect(await lineOf('all')).toMatchObject({ limitMicro: null });
});

test('a budget is for something there is, and who changed it stands in the audit', async () => {
  await expect(keepBudget(world, RUUD, { kind: 'provider', id: 'Nobody', limitMicro: 1 })).rejects.toThrow(
    'what this budget is for does not exist',
  );
  const provider = (await budgetsView(world)).items.find(({ kind }) => kind === 'provider');
  await keepBudget(world, RUUD, { kind: 'provider', id: provider?.id ?? '', limitMicro: 5_000_000 });
  expect((await lineOf('provider', provider?.id))?.limitMicro).toBe(5_000_000);
  await keepBudget(world, RUUD, { kind: 'provider', id: provider?.id ?? '', limitMicro: null });
  expect((await lineOf('provider', provider?.id))?.limitMicro).toBeNull();
  const rows = await world.db<{ detail: object }[]>`select detail from audit where what = 'changed a budget' order by at, id`;
  expect(rows.map((row) => row.detail)).toContainEqual({ for: provider?.label, month: 5 });
});
