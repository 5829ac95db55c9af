/** Flows as files: out, and in again to another workspace. */
import { zipSync, strToU8 } from 'fflate';
import { demoWorld, testWorld, type TestWorld } from '../../testing/world';
import { flowFile, lookAtFlowFile, takeInFlow } from './bundles';
import { createFlow, flows } from './flows';
import { loadLibrary } from './library';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
beforeAll(async () => {
  ({ world, ines } = await demoWorld());
});
afterAll(() => world.close());

const bytesOf = (content: string | Uint8Array): Uint8Array => (typeof content === 'string' ? strToU8(content) : content);
const fairFlow = async () => (await flows(world, 0)).find((row) => row.name === 'Trade-fair visitors')!;

test('text, tree and picture carry the flow’s name and its content', async () => {
  const { id, draftText } = await fairFlow();
  expect(await flowFile(world, id, 'text')).toEqual({
    name: 'Trade-fair visitors.race',
    type: 'text/plain; charset=utf-8',
    content: draftText,
  });
  expect(JSON.parse(String((await flowFile(world, id, 'tree')).content))).toMatchObject({ name: 'Trade-fair visitors', about: 'person' });
  expect((await flowFile(world, id, 'picture')).content).toMatch(/^<svg /);
});

test('a bundle is the same bytes each time, and enters an empty workspace with what it carries', async () => {
  const { id } = await fairFlow();
  const file = await flowFile(world, id, 'bundle');
  expect((await flowFile(world, id, 'bundle')).content).toEqual(file.content);
  const other = await testWorld();
  try {
    const view = await lookAtFlowFile(other, { name: file.name, bytes: bytesOf(file.content) });
    expect(view).toMatchObject({ name: 'Trade-fair visitors', freeName: 'Trade-fair visitors' });
    expect(view.matches.filter((match) => match.carried).every((match) => match.choice.does === 'bring')).toBe(true);
    expect(await flows(other, 0)).toEqual([]);
    expect((await loadLibrary(other.db)).scorecards).toEqual([]);

    const actor = { userId: null, name: 'test' };
    const made = await takeInFlow(other, actor, { bundle: view.bundle, choices: {}, name: 'Fair, ours' });
    expect(made).toMatchObject({ name: 'Fair, ours', liveVersionId: null });
    const library = await loadLibrary(other.db);
    const before = await loadLibrary(world.db);
    expect(library.scorecards).toEqual(before.scorecards.filter((card) => card.name === 'Grower fit'));
    expect(library.plans.map((plan) => plan.name)).toEqual(['First contact']);

    // A second time everything is there already: nothing more is made.
    const again = await lookAtFlowFile(other, { name: file.name, bytes: bytesOf(file.content) });
    expect(new Set(again.matches.filter((match) => match.carried).map((match) => match.state))).toEqual(new Set(['same']));
    await expect(takeInFlow(other, actor, { bundle: again.bundle, choices: {}, name: 'Fair, ours' })).rejects.toThrow(
      'there is a flow named',
    );
    expect(await loadLibrary(other.db)).toEqual(library);
  } finally {
    await other.close();
  }
});

test('plain text comes in too, under a free name, with any line ends', async () => {
  const { draftText } = await fairFlow();
  const view = await lookAtFlowFile(world, { name: 'x.race', bytes: strToU8(draftText.replace(/\n/g, '\r\n')) });
  expect(view.freeName).toBe('Trade-fair visitors 2');
  const made = await takeInFlow(world, ines, { bundle: view.bundle, choices: {}, name: view.freeName });
  expect(made.draftText).toBe(draftText.replace('"Trade-fair visitors"', '"Trade-fair visitors 2"'));
});

const zip = (files: Record<string, string>): Uint8Array =>
  zipSync(Object.fromEntries(Object.entries(files).map(([path, text]) => [path, strToU8(text)])));
const FORMAT = '{"format":"millrace flow bundle 1"}';
const FLOW = 'flow "Z"\nabout person\n\ntake in from hand\n';
test.each([
  ['empty', new Uint8Array(), 'x is empty'],
  ['binary', new Uint8Array([0x89, 0x50, 0xff, 0x00]), 'x is neither flow text (UTF-8) nor a bundle'],
  ['no flow', strToU8('hello\n'), 'x holds no flow: its first line would be flow "Name"'],
  ['a damaged ZIP', zip({ 'flow.race': FLOW }).slice(0, 40), 'x is a damaged ZIP file'],
  ['a ZIP of something else', zip({ 'a.txt': 'a' }), 'x is a ZIP file, but no flow bundle'],
  ['a bundle of another format', zip({ 'flow.race': FLOW, 'bundle.json': '{"format":"other 9"}' }), 'x: format: Invalid input'],
  [
    'a thing that is no JSON',
    zip({ 'flow.race': FLOW, 'bundle.json': FORMAT, 'things/1.json': '{' }),
    'x: things/1.json is not a JSON object',
  ],
  [
    'a thing with a fault',
    zip({ 'flow.race': FLOW, 'bundle.json': FORMAT, 'things/1.json': '{"kind":"scorecard","name":"S","body":{"name":"S"}}' }),
    'x: things/1.json: body.',
  ],
  [
    'a ZIP that unpacks to too much',
    zip({ 'flow.race': FLOW, 'bundle.json': FORMAT, 'things/1.json': ' '.repeat(9_000_000) }),
    'x: this document unpacks to more',
  ],
  ['too large', new Uint8Array(3_000_000).fill(97), 'x is larger than 2 MB'],
])('%s is refused with what is wrong', async (_what, bytes, says) => {
  await expect(lookAtFlowFile(world, { name: 'x', bytes })).rejects.toThrow(says);
});

test('a thing made by somebody meanwhile is not written over, and then nothing at all is made', async () => {
  const { id } = await fairFlow();
  const file = await flowFile(world, id, 'bundle');
  const other = await testWorld();
  try {
    const { bundle } = await lookAtFlowFile(other, { name: 'x', bytes: bytesOf(file.content) });
    await other.db`insert into library_item (kind, name, body) values ('pipeline', 'Glasshouse sales', '{"name":"Glasshouse sales","stages":["Ours"]}')`;
    const choices = { 'pipeline Glasshouse sales': { does: 'bring', name: 'Glasshouse sales' } } as const;
    await expect(takeInFlow(other, { userId: null, name: 'test' }, { bundle, choices, name: 'A' })).rejects.toThrow(
      'there is one named “Glasshouse sales” here already',
    );
    expect(await flows(other, 0)).toEqual([]);
    expect((await loadLibrary(other.db)).scorecards).toEqual([]);
  } finally {
    await other.close();
  }
});

test('a flow made twice under one name is refused as it was before', async () => {
  await expect(createFlow(world, ines, 'flow "Trade-fair visitors"\nabout person\n\ntake in from hand\n')).rejects.toThrow(
    'there is a flow named',
  );
});
