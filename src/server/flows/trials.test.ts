/** Trials, forecasts, what a draft would change, and the way back to an older version: on a real database with a worker. */
import { demoWorld, goodSite, testWorker, type TestWorld } from '../../testing/world';
import { flow, saveDraft, startOn, startTrial, trial } from './flows';
import { personPage } from '../records/records';
import { forecastAndReal, forecastDraft, history, returnTo, whatWouldChange, type ReleaseAsk } from './releases';
import type { Actor } from '../platform/world';
import { madeFlow, peopleWithFirms, redrafted } from '../../testing/flows';

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

test('a trial spends no more than it may', async () => {
  world.outside.provider = () => ({ value: 'x@y.example', confidence: 0.9, tookMs: 1 });
  const id = await made('look up email with "Work e-mail"\n');
  const trialId = await startTrial(world, ines, id, { recordIds: await people(3), limitMicro: 1_000 });
  await drain();
  const view = await trial(world, id, trialId);
  expect(view).toMatchObject({ limitMicro: 1_000, costMicro: 0 });
  expect(view?.trips.map((entry) => entry.why)).toEqual(Array.from({ length: 3 }, () => 'what a trial may spend is used up'));
});

test('a trial after a trial asks outside only what has changed, says so, and asks everything when it is to run afresh', async () => {
  world.outside.provider = () => ({ value: 'someone@f0.example', confidence: 0.9, tookMs: 1 });
  const ids = await people(2);
  goodSite(world.outside, 'f0.example');
  goodSite(world.outside, 'f1.example');
  const text = (question: string): string =>
    `read company from website as research\n  expansion: yes/no "${question}"\nlook up email with "Work e-mail"\n`;
  const id = await made(text('Was an expansion announced?'));
  const tryOut = async (afresh = false) => {
    const [fetched, asked] = [world.outside.fetched, world.outside.asked.length];
    const trialId = await startTrial(world, ines, id, { recordIds: ids, afresh });
    await drain();
    const view = await trial(world, id, trialId);
    expect(view?.trips.map((entry) => entry.state)).toEqual(['done', 'done']);
    return {
      reused: view?.reused,
      pages: world.outside.fetched - fetched,
      questions: world.outside.asked.length - asked,
      found: view?.trips.map((entry) => entry.journal.find((line) => line.verb === 'read')?.says),
    };
  };
  const first = await tryOut();
  expect(first).toMatchObject({ reused: 0, pages: 2 });
  expect(first.questions).toBeGreaterThanOrEqual(2);
  expect(await tryOut()).toEqual({
    reused: 4,
    pages: 0,
    questions: 0,
    found: first.found?.map((says) => `${says ?? ''} · as read before`),
  });
  // Another question is another reading; the pages are still there, and lookups are as they were.
  const row = await flow(world, id);
  await saveDraft(world, ines, id, {
    text: row.draftText.replace('Was an expansion announced?', 'Is there an expansion?'),
    base: row.draftNo,
  });
  expect(await tryOut()).toMatchObject({ reused: 2, pages: 0, questions: 0 });
  expect(await tryOut()).toMatchObject({ reused: 4 });
  expect(await tryOut(true)).toMatchObject({ reused: 0, pages: 2, questions: first.questions });
});

test('a forecast is kept with its release and set against what came about', async () => {
  const id = await made('keep when company.heated_area >= 3\nnote "large"\n');
  await startOn(world, ines, id, await people(6));
  await drain();
  const draft = await forecastDraft(world, id, { records: 600 });
  expect(draft.from).toEqual({ trials: 0, trips: 6 });
  expect(draft.through.mid).toBeGreaterThan(250);
  expect(draft.through.mid).toBeLessThan(520);
  await redraft(id, (text) => text, { forecastFor: 6 });
  await startOn(world, ines, id, await people(6));
  await drain();
  const judged = await forecastAndReal(world, id);
  expect(judged).toMatchObject({ no: 2, records: 6 });
  expect(judged?.lines.map((line) => [line.real, line.held])).toEqual([
    [6, true],
    [6, true],
    [4, true],
  ]);
});

test('what would change: the draft against the live version, with what was read then', async () => {
  const id = await made('keep when company.heated_area >= 3\nnote "large"\n');
  await startOn(world, ines, id, await people(6));
  await drain();
  const row = await flow(world, id);
  await saveDraft(world, ines, id, { text: row.draftText.replace('>= 3', '>= 5'), base: row.draftNo });
  const changes = await whatWouldChange(world, id, 100);
  const kinds = changes?.trips.map((entry) => entry.kind) ?? [];
  expect(kinds.filter((kind) => kind === 'same')).toHaveLength(4);
  expect(changes?.trips.filter((entry) => entry.kind === 'other way')).toMatchObject([
    { beforeSays: 'kept', afterSays: 'not kept' },
    { beforeSays: 'kept', afterSays: 'not kept' },
  ]);
});

test('an older version is live again in one step; its text and history stay', async () => {
  const id = await made('note "one"\n');
  await redraft(id, (text) => text.replace('"one"', '"two"'));
  const [, first] = await history(world, id);
  expect(await returnTo(world, ines, id, first?.id ?? '')).toEqual(expect.objectContaining({ no: 3 }));
  const [someone = ''] = await people(1);
  await startOn(world, ines, id, [someone]);
  await drain();
  expect((await personPage(world, someone)).happened.map((entry) => entry.says)).toContain('one');
  expect((await flow(world, id)).draftText).toContain('"two"');
  await expect(returnTo(world, ines, id, (await flow(world, id)).liveVersionId ?? '')).rejects.toThrow('live already');
});
