import { textBlocks } from '../../core/formats';
import { demoWorld, START, type TestWorld } from '../../testing/world';
import { keepPage } from '../platform/store/settings';
import { auditPage } from '../access/audit';
import { createCompany } from '../records/records';
import { researchSettings, saveResearchSettings } from './research-settings';
import { keepQuestion, tryQuestion, undoQuestion, type QuestionDraft } from './teach';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
const NO_DRAFT: QuestionDraft = { words: [], not: [], least: null, shown: [], leftOut: [], months: null, optionWords: {} };

/** A company whose site was read, and what it says of itself when asked. */
async function site(host: string, text: string, sites: number | null): Promise<void> {
  await createCompany(world, ines, {
    values: { name: host.split('.')[0] ?? host, website: host, ...(sites === null ? {} : { sites }) },
    source: 'hand',
  });
  await keepPage(world.db, {
    url: `http://${host}/`,
    status: 200,
    title: host,
    language: 'en',
    published: null,
    blocks: textBlocks(text),
    links: [],
    fetchedAt: START,
  });
}

beforeEach(async () => {
  ({ world, ines } = await demoWorld());
  const research = await researchSettings(world);
  await saveResearchSettings(world, ines, {
    ...research,
    questions: [{ id: 'sites', type: 'number in depots', wording: 'How many depots do they keep?', words: [] }],
  });
  await site('amber-freight.example', 'We keep seven depots. Our neighbours keep nine depots.', 7);
  await site('birch-haulage.example', 'We run four yards between the coast and the hills.', 4);
  await site('cedar-lines.example', 'Nothing of the kind is said here.', null);
});
afterEach(() => world.close());

test('a question shows what it answers on sites read before, and against what is known', async () => {
  const view = await tryQuestion(world, 'sites', {});
  expect(view.sites.map(({ host, known, after, is }) => [host, known, after, is])).toEqual([
    ['amber-freight.example', 7, 7, 'right'],
    ['birch-haulage.example', 4, null, 'missing'],
    ['cedar-lines.example', null, null, 'unknown'],
  ]);
  expect(view.host).toBe('amber-freight.example');
  expect(view.places[0]).toMatchObject({ value: 7, url: 'http://amber-freight.example/' });
  expect(view.mayUndo).toBe(false);
});

test('a word more finds what was missed; nothing is kept by trying', async () => {
  const view = await tryQuestion(world, 'sites', { draft: { ...NO_DRAFT, words: ['yards'] }, host: 'birch-haulage.example' });
  expect(view.sites.find(({ host }) => host === 'birch-haulage.example')).toMatchObject({
    before: null,
    after: 4,
    was: 'missing',
    is: 'right',
  });
  expect(view.gained).toBe(2);
  expect(view.places[0]).toMatchObject({ value: 4, before: 0 });
  expect((await tryQuestion(world, 'sites', {})).draft.words).toEqual([]);
});

test('kept, it is used from then on, stands in the audit, and can be had back', async () => {
  const kept = await keepQuestion(world, ines, 'sites', { ...NO_DRAFT, words: ['yards'], least: 0.5 });
  expect(kept.draft).toMatchObject({ words: ['yards'], least: 0.5 });
  expect(kept.sites.find(({ host }) => host === 'birch-haulage.example')).toMatchObject({ before: 4, after: 4, is: 'right' });
  expect(kept.mayUndo).toBe(true);
  const [entry] = (await auditPage(world, {})).items;
  expect(entry?.what).toBe('changed what is known of the question “How many depots do they keep?”');
  const back = await undoQuestion(world, ines, 'sites');
  expect(back.draft.words).toEqual([]);
  expect(back.mayUndo).toBe(false);
  await expect(undoQuestion(world, ines, 'sites')).rejects.toThrow('does not exist');
});

test('who saves only names, types and wordings throws no word away', async () => {
  await keepQuestion(world, ines, 'sites', { ...NO_DRAFT, words: ['yards'] });
  const research = await researchSettings(world);
  await saveResearchSettings(world, ines, {
    ...research,
    questions: research.questions.map(({ id, type, wording }) => ({ id, type, wording })),
  });
  expect((await tryQuestion(world, 'sites', {})).draft.words).toEqual(['yards']);
});

test('an answer shown is kept with what it taught', async () => {
  const [place] = (await tryQuestion(world, 'sites', { draft: { ...NO_DRAFT, words: ['yards'] }, host: 'birch-haulage.example' })).places;
  const shown = [{ host: 'birch-haulage.example', value: place?.value ?? 0, says: place?.says ?? '', verdict: 'this' as const }];
  const kept = await keepQuestion(world, ines, 'sites', { ...NO_DRAFT, words: ['yards'], shown });
  expect(kept.draft.shown).toEqual(shown);
  for (const { weight } of kept.learnt) expect(Math.abs(weight)).toBeLessThanOrEqual(1);
});

test('a question that is none is told', async () => {
  await expect(tryQuestion(world, 'towers', {})).rejects.toThrow('the question “towers” does not exist');
});

test('other words for an option and an oldest statement are kept, and can be taken off again', async () => {
  const research = await researchSettings(world);
  await saveResearchSettings(world, ines, {
    ...research,
    questions: [{ id: 'goods', type: 'text', wording: 'What do they carry most?', options: ['grain', 'timber'] }],
  });
  const words = { ...NO_DRAFT, months: 24, optionWords: { grain: ['corn'], timber: [] } };
  const tried = await tryQuestion(world, 'goods', { draft: words });
  expect(tried.options).toEqual(['grain', 'timber']);
  const kept = await keepQuestion(world, ines, 'goods', words);
  expect(kept.draft).toMatchObject({ months: 24, optionWords: { grain: ['corn'] } });
  expect((await keepQuestion(world, ines, 'goods', NO_DRAFT)).draft).toMatchObject({ months: null, optionWords: {} });
});

test('why a wrong pick is wrong is learnt, and none of its words', async () => {
  await site('dale-carriers.example', 'Our partner keeps twenty depots. The depots are dry.', null);
  const says = 'Our partner keeps twenty depots.';
  const shown = [{ host: 'dale-carriers.example', value: 20, says, verdict: 'not' as const, reason: 'others’' }];
  const tried = await tryQuestion(world, 'sites', { draft: { ...NO_DRAFT, words: ['depots'], shown }, host: 'dale-carriers.example' });
  expect(tried.learnt).toEqual([{ phrase: 'others’', weight: -1, isStanding: true }]);
  const place = tried.places.find((each) => each.value === 20);
  expect(place?.after).toBeLessThan(place?.before ?? 0);
});

test('sites nobody has read are offered: those whose answer is known; where nothing is known or read, any', async () => {
  await createCompany(world, ines, { values: { name: 'elm', website: 'elm-lines.example' }, source: 'hand' });
  await createCompany(world, ines, { values: { name: 'fir', website: 'fir-lines.example', sites: 3 }, source: 'hand' });
  expect((await tryQuestion(world, 'sites', {})).unread.map(({ name, isKnown }) => [name, isKnown])).toEqual([['fir', true]]);
  await world.db`delete from page`;
  expect((await tryQuestion(world, 'sites', {})).unread.map(({ isKnown }) => isKnown)).toEqual([true, true, true]);
  await world.db`delete from fact where field = 'sites'`;
  const { unread } = await tryQuestion(world, 'sites', {});
  expect(unread.map(({ name, isKnown }) => [name, isKnown])).toContainEqual(['elm', false]);
  expect(unread).toHaveLength(5);
});
