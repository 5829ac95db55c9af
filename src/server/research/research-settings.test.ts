import { demoWorld, type TestWorld } from '../../testing/world';
import { standingQuestions } from './questions';
import { researchSettings, saveResearchSettings } from './research-settings';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;

beforeEach(async () => {
  ({ world, ines } = await demoWorld());
});
afterEach(() => world.close());

test('a question more, and a source less, from then on', async () => {
  const before = await researchSettings(world);
  const after = await saveResearchSettings(world, ines, {
    sources: before.sources.map((source) => ({ ...source, off: source.name === 'jobs' })),
    questions: [...before.questions, { id: 'lamps', type: 'yes/no', wording: 'Do they use lamps?' }],
  });
  expect(after.sources.filter((source) => source.off).map((source) => source.name)).toEqual(['jobs']);
  expect((await standingQuestions(world.db)).at(-1)).toMatchObject({ id: { text: 'lamps' }, type: { kind: 'yes/no' } });
});

test('a question that cannot be read, or is there twice, is refused by its name and nothing is changed', async () => {
  const before = await researchSettings(world);
  const ask = (id: string, type: string) =>
    saveResearchSettings(world, ines, { ...before, questions: [...before.questions, { id, type, wording: 'What?' }] });
  await expect(ask('two words', 'text')).rejects.toThrow('“two words” cannot be asked');
  await expect(ask('lamps', 'colour')).rejects.toThrow('“lamps” cannot be asked');
  await expect(ask(before.questions[0]?.id ?? '', 'text')).rejects.toThrow('two questions are called');
  expect(await researchSettings(world)).toEqual(before);
});
