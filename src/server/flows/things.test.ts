import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { addDoNotContact } from '../messages/store/do-not-contact';
import { createFlow, flows, flow, saveDraft, startOn } from './flows';
import { loadLibrary } from './library';
import { createPerson, people } from '../records/records';
import { release } from './releases';
import {
  keepNeverSaid,
  keepStatements,
  keepThing,
  makeThing,
  neverSaid,
  renameThing,
  retireThing,
  statements,
  thing,
  things,
} from './things';
import { tryThing } from './try-things';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
beforeEach(async () => {
  ({ world, ines } = await demoWorld({ crm: true }));
});
afterEach(() => world.close());

const named = async (kind: 'scorecard' | 'template' | 'plan' | 'pipeline', name: string) => {
  const found = (await things(world, kind)).find((entry) => entry.name === name);
  if (!found) throw new Error(`no ${kind} ${name}`);
  return thing(world, found.id);
};
type Card = Extract<Awaited<ReturnType<typeof thing>>['body'], { criteria: unknown }>;
const card = async (): Promise<Awaited<ReturnType<typeof thing>> & { readonly body: Card }> =>
  (await named('scorecard', 'Grower fit')) as never;
const withPoints = (body: Card, points: number): Card => ({
  ...body,
  criteria: body.criteria.map((each, i) => (i === 0 ? { ...each, levels: each.levels.map((level) => ({ ...level, points })) } : each)),
});

describe('the life of a named thing', () => {
  test('is changed in versions, and an older one is had back', async () => {
    const first = await card();
    const second = await keepThing(world, ines, first.id, { body: withPoints(first.body, 5), base: first.no, says: 'less for area' });
    expect(second).toMatchObject({ no: first.no + 1, savedBy: 'Ines Okafor-Brandt' });
    expect(second.versions.map((version) => version.says)).toEqual(['less for area', 'as it came']);
    const third = await keepThing(world, ines, first.id, { body: second.versions[1]?.body, base: second.no, says: '' });
    expect(third.body).toEqual(first.body);
    expect(third.versions).toHaveLength(3);
  });

  test('who keeps over another’s change is told, and nothing is lost', async () => {
    const { id, body, no } = await card();
    await keepThing(world, ines, id, { body: withPoints(body, 5), base: no, says: '' });
    await expect(keepThing(world, ines, id, { body: withPoints(body, 7), base: no, says: '' })).rejects.toThrow(
      'Ines Okafor-Brandt kept version 2 meanwhile',
    );
    expect((await card()).body.criteria[0]?.levels[0]?.points).toBe(5);
  });

  test('with an error it is not kept, and the place is said', async () => {
    const { id, body, no } = await card();
    const wrong = { ...body, disqualifiers: [{ text: 'x', when: 'company.nothing = 1' }] };
    await expect(keepThing(world, ines, id, { body: wrong, base: no, says: '' })).rejects.toMatchObject({
      kind: 'not valid',
      detail: { problems: [{ at: 'disqualifiers.0.when' }] },
    });
    expect((await card()).no).toBe(no);
  });

  test('live flows go on with the version they were released with, and are said to be behind', async () => {
    const { id, body, no, uses } = await card();
    expect(uses.filter((use) => use.kind === 'flow').length).toBeGreaterThan(0);
    expect(uses.some((use) => use.behind)).toBe(false);
    const after = await keepThing(world, ines, id, { body: withPoints(body, 5), base: no, says: '' });
    expect(after.uses.every((use) => use.behind)).toBe(true);
    const user = (await flows(world, 0)).find((entry) => entry.name === after.uses[0]?.name);
    await release(world, ines, user?.id ?? '');
    expect((await card()).uses.find((use) => use.name === user?.name)?.behind).toBe(false);
  });

  test('a new name is followed by drafts and plans; what is live keeps the old one', async () => {
    const text = await named('template', 'First contact');
    const users = text.uses.filter((use) => use.kind === 'flow').map((use) => use.name);
    const renamed = await renameThing(world, ines, text.id, 'Opening words');
    expect(renamed.versions[0]?.says).toBe('renamed from First contact');
    expect(renamed.uses.map((use) => use.name)).toEqual(expect.arrayContaining([...users, 'First contact']));
    const plan = (await named('plan', 'First contact')).body as { readonly touches: readonly { readonly template: string }[] };
    expect(plan.touches[0]?.template).toBe('Opening words');
    for (const entry of await flows(world, 0))
      if (users.includes(entry.name)) expect((await flow(world, entry.id)).draftText).not.toMatch(/write email "First contact"/);
    await expect(renameThing(world, ines, text.id, 'Last note')).rejects.toThrow('there is a text “Last note” already');
  });

  test('a draft that was saved meanwhile follows all the same', async () => {
    const { id, uses } = await card();
    const entry = (await flows(world, 0)).find((each) => each.name === uses[0]?.name);
    const before = await flow(world, entry?.id ?? '');
    await saveDraft(world, ines, before.id, { text: before.draftText, base: before.draftNo });
    await renameThing(world, ines, id, 'Best growers');
    expect((await flow(world, before.id)).draftText).toContain('"Best growers"');
  });

  test('is copied, begun anew, retired and taken back', async () => {
    const { id, body } = await card();
    const copy = await makeThing(world, ines, { kind: 'scorecard', name: 'Second fit', from: id });
    expect(copy).toMatchObject({ no: 1, body: { ...body, name: 'Second fit' }, uses: [] });
    await expect(makeThing(world, ines, { kind: 'scorecard', name: 'Second fit' })).rejects.toThrow(
      'there is a scorecard “Second fit” already',
    );
    await expect(makeThing(world, ines, { kind: 'plan', name: 'X', from: id })).rejects.toThrow('a scorecard cannot become a plan');
    for (const kind of ['scorecard', 'template', 'plan'] as const)
      expect((await makeThing(world, ines, { kind, name: 'New' })).problems).toEqual([]);
    await retireThing(world, ines, copy.id, true);
    expect((await loadLibrary(world.db)).scorecards.map((each) => each.name)).not.toContain('Second fit');
    expect((await retireThing(world, ines, copy.id, false)).retired).toBe(false);
  });
});

describe('tried before it is kept', () => {
  test('a scorecard says who would change band, and counts what is unknown', async () => {
    const { id, body } = await card();
    const same = await tryThing(world, { kind: 'scorecard', id, body });
    expect(same.card?.moved.n).toBe(0);
    expect(same.card?.of).toBe(same.card?.all);
    const sum = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0);
    expect(sum(same.card?.bins ?? [])).toBe(same.card?.of);
    expect(sum((same.card?.bands ?? []).map((band) => band.n))).toBe(same.card?.of);
    for (const each of same.card?.criteria ?? []) expect(each.holds + each.part + each.unknown + each.fails).toBe(same.card?.of);
    const higher = await tryThing(world, {
      kind: 'scorecard',
      id,
      body: {
        ...body,
        bands: [
          { name: 'hot', from: 1 },
          { name: 'cold', from: 0 },
        ],
      },
    });
    expect(higher.card?.moved.n).toBeGreaterThan(0);
    expect((await card()).no).toBe(1);
  });

  test('a text shows readers that differ, and what stops whom', async () => {
    const { body, id } = await named('template', 'First contact');
    const before = (await tryThing(world, { kind: 'template', id, body })).text;
    expect(before?.readers.length).toBeGreaterThan(1);
    expect(before?.of).toBeGreaterThan(before?.passed ?? 0);
    const passing = before?.readers.find((reader) => reader.passed);
    expect(passing?.restsOn?.field).toBeTruthy();
    const email = (await world.db<{ email: string }[]>`select email from person where id = ${passing?.id ?? ''}`)[0]?.email ?? '';
    await addDoNotContact(world.db, email, 'asked', 0);
    const after = (await tryThing(world, { kind: 'template', id, body })).text;
    expect(after?.passed).toBe((before?.passed ?? 0) - 1);
    expect(after?.failed.some((each) => each.id === 'do not contact')).toBe(true);
  });

  test('a plan says its days, working days only', async () => {
    const { body } = await named('plan', 'First contact');
    const { plan } = await tryThing(world, { kind: 'plan', body });
    const days = (plan?.touches ?? []).map((touch) => new Date(touch.at).getUTCDay());
    expect(days.length).toBeGreaterThan(1);
    expect(days.every((day) => day > 0 && day < 6)).toBe(true);
  });
});

test('statements are kept, and stand behind what texts say', async () => {
  const { id, body, problems } = await named('template', 'First contact');
  expect(problems).toEqual([]);
  await keepStatements(world, ines, []);
  expect(await statements(world.db)).toEqual([]);
  expect((await tryThing(world, { kind: 'template', id, body })).problems[0]?.says).toContain('no statement of ours stands behind');
  const one = { id: 'a', says: 'x', by: '', proof: '' };
  await expect(keepStatements(world, ines, [one, one])).rejects.toThrow('two statements are kept as “a”');
});

describe('a pipeline', () => {
  const stagesOf = async (): Promise<Record<string, number>> =>
    Object.fromEntries(
      (await world.db<{ stage: string; n: number }[]>`select stage, count(*)::int as n from deal group by stage`).map((row) => [
        row.stage,
        row.n,
      ]),
    );

  test('a stage with another name keeps its deals and how long they stood there; drafts follow, live flows go on', async () => {
    const { id: flowId } = await createFlow(
      world,
      ines,
      'flow "Opens"\nabout person\n\ntake in from hand\nopen deal in "Glasshouse sales" at "Qualified" as d\nmove d to "Proposal"\n',
    );
    await release(world, ines, flowId);
    const before = await stagesOf();
    const pipeline = await named('pipeline', 'Glasshouse sales');
    expect(pipeline.uses.map((use) => use.name)).toContain('Opens');
    const since = await world.db`select id, stage_since from deal where stage = 'Proposal' order by id`;
    world.now += 86_400_000;
    await keepThing(world, ines, pipeline.id, {
      body: { name: 'Glasshouse sales', stages: ['Qualified', 'Meeting', 'Offer', 'Won', 'Lost'] },
      base: pipeline.no,
      says: '',
      moves: { Proposal: { to: 'Offer', renamed: true } },
    });
    expect((await stagesOf()).Offer).toBe(before.Proposal);
    expect(await world.db`select id, stage_since from deal where stage = 'Offer' order by id`).toEqual(since);
    expect((await flow(world, flowId)).draftText).toContain('move d to "Offer"');
    const [someone] = (await people(world, { limit: 1 })).items;
    await startOn(world, ines, flowId, [someone?.id ?? '']);
    await testWorker(world).drain();
    expect((await stagesOf()).Offer).toBe((before.Proposal ?? 0) + 1);
    expect((await stagesOf()).Proposal).toBeUndefined();
  });

  test('deals of a stage that goes have to go somewhere; nothing is kept until that is said', async () => {
    const pipeline = await named('pipeline', 'Glasshouse sales');
    const before = await stagesOf();
    const body = { name: 'Glasshouse sales', stages: ['Qualified', 'Proposal', 'Won', 'Lost'] };
    await expect(keepThing(world, ines, pipeline.id, { body, base: pipeline.no, says: '' })).rejects.toMatchObject({
      kind: 'conflict',
      detail: { deals: { Meeting: before.Meeting } },
    });
    expect((await named('pipeline', 'Glasshouse sales')).no).toBe(pipeline.no);
    await keepThing(world, ines, pipeline.id, {
      body,
      base: pipeline.no,
      says: '',
      moves: { Meeting: { to: 'Qualified', renamed: false } },
    });
    expect((await stagesOf()).Qualified).toBe((before.Qualified ?? 0) + (before.Meeting ?? 0));
  });

  test('a new name is followed by its deals; stages are checked', async () => {
    const pipeline = await named('pipeline', 'Glasshouse sales');
    await renameThing(world, ines, pipeline.id, 'House sales');
    expect(await world.db`select distinct pipeline from deal`).toEqual([{ pipeline: 'House sales' }]);
    const trial = await tryThing(world, { kind: 'pipeline', id: pipeline.id, body: { name: 'House sales', stages: ['Won', 'won', ''] } });
    expect(trial.problems.map((problem) => problem.at)).toEqual(['stages.1', 'stages.2']);
    expect(trial.pipeline?.deals).toEqual(await stagesOf());
  });
});

test('what is never said holds texts on trial, kept once each, and the audit says so', async () => {
  expect(await neverSaid(world.db)).toContain('cheapest');
  expect(await keepNeverSaid(world, ines, [' bay by bay ', 'bay by bay', '', 'autumn fair'])).toEqual(['bay by bay', 'autumn fair']);
  await createPerson(world, ines, { values: { name: 'Mara Quill', email: 'm.quill@oakmere-glass.example' }, source: 'api' });
  const { body } = await named('template', 'First contact');
  const { text } = await tryThing(world, { kind: 'template', body });
  expect(text?.failed.map(({ id }) => id)).toContain('may not say');
  expect(text?.readers[0]?.wrong.map(({ says }) => says)).toContain('it says “bay by bay”, which we never say');
});
