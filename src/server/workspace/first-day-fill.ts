/** Gaps of the first day's letter, filled by what somebody types: understood, said back, and kept where it belongs. */
import {
  addCriterion,
  GOOD_CARD,
  readAsked,
  readGood,
  readPlace,
  readStages,
  sellsText,
  type Asked,
  type Sells,
} from '../../core/first-day';
import { scorecardSchema } from '../../core/score';
import { listThings } from '../flows/store/things';
import { keepStatements, keepThing, makeThing, statements, thing } from '../flows/things';
import { Refusal, workspace, type Actor, type World } from '../platform/world';
import { makeField } from '../records/change-fields';
import { loadCatalogue } from '../records/fields';
import { researchSettings, saveResearchSettings } from '../research/research-settings';
import { firstDay, SELLS_STATEMENT, type FirstDay } from './first-day';
import { keepWorkspace } from './workspace-settings';

export type Fill =
  { readonly gap: 'name' | 'where' | 'zone' | 'stages' | 'asked' | 'good'; readonly text: string } | ({ readonly gap: 'sells' } & Sells);

/** What a gap's text is understood as, before it is kept: one reading, or several to choose from. */
export interface FillReading {
  readonly ok: boolean;
  /** what it is understood as, or why it is not */
  readonly says: readonly string[];
}

export async function readFill(world: World, fill: Fill): Promise<FillReading> {
  const no = (why: string): FillReading => ({ ok: false, says: [why] });
  const yes = (...says: readonly string[]): FillReading => ({ ok: true, says });
  switch (fill.gap) {
    case 'where': {
      const read = readPlace(fill.text);
      return read.ok ? yes(`${countryName(read.country)}, by the clock of ${read.zone}`) : no(read.why);
    }
    case 'stages': {
      const read = readStages(fill.text);
      return read.ok ? yes(read.stages.join(' → ')) : no(read.why);
    }
    case 'asked': {
      const read = readAsked(fill.text);
      return read.ok ? yes(`“${read.asked.wording}” ${read.asked.typeText}, kept as ${read.asked.key}`) : no(read.why);
    }
    case 'good': {
      const read = readGood(fill.text, await loadCatalogue(world.db));
      return read.ok ? yes(...read.feel) : no(read.why);
    }
    case 'sells':
      return sellsText(fill) === '' ? no('nothing is said yet') : yes(sellsText(fill));
    case 'name':
    case 'zone':
      return fill.text.trim() === '' ? no('nothing is typed') : yes(fill.text.trim());
  }
}

const countryName = (code: string): string => new Intl.DisplayNames('en', { type: 'region' }).of(code) ?? code;

/** Keeps what a gap says. What cannot be understood is refused with what is missing, and nothing is changed. */
export async function fillFirstDay(world: World, actor: Actor, fill: Fill): Promise<FirstDay> {
  const read = await readFill(world, fill);
  if (!read.ok && fill.gap !== 'sells') throw new Refusal('not valid', read.says[0] ?? 'this cannot be understood');
  // Where words may mean several things, nothing is chosen: what is meant is sent as it stands there.
  if (read.ok && read.says.length > 1) throw new Refusal('not valid', `may mean ${read.says.join(', or ')}: choose one of them`);
  const space = await workspace(world.db);
  switch (fill.gap) {
    case 'name':
      await keepWorkspace(world, actor, { ...space, name: fill.text });
      break;
    case 'zone':
      await keepWorkspace(world, actor, { ...space, zone: fill.text });
      break;
    case 'where': {
      const place = readPlace(fill.text);
      if (place.ok) await keepWorkspace(world, actor, { ...space, defaultCountry: place.country, zone: place.zone });
      break;
    }
    case 'sells':
      await keepSells(world, actor, sellsText(fill));
      break;
    case 'stages': {
      const stages = readStages(fill.text);
      if (stages.ok) await keepStages(world, actor, stages.stages);
      break;
    }
    case 'asked': {
      const asked = readAsked(fill.text);
      if (asked.ok) await keepAsked(world, actor, asked.asked);
      break;
    }
    case 'good':
      await keepGood(world, actor, fill.text, read.says[0] ?? '');
  }
  return firstDay(world);
}

async function keepSells(world: World, actor: Actor, says: string): Promise<void> {
  const others = (await statements(world.db)).filter(({ id }) => id !== SELLS_STATEMENT);
  await keepStatements(world, actor, says === '' ? others : [{ id: SELLS_STATEMENT, says, by: actor.name, proof: '' }, ...others]);
}

async function keepStages(world: World, actor: Actor, stages: readonly string[]): Promise<void> {
  const row = (await listThings(world.db, 'pipeline')).find((entry) => !entry.retired);
  if (!row) {
    await makeThing(world, actor, { kind: 'pipeline', name: 'Sales', body: { name: 'Sales', stages } });
    return;
  }
  const { no } = await thing(world, row.id);
  await keepThing(world, actor, row.id, { body: { name: row.name, stages }, base: no, says: 'from the letter of the first day' });
}

/** A question and the field its answers go into; a field that is there already is used as it is. */
async function keepAsked(world: World, actor: Actor, { key, label, type, unit, typeText, wording }: Asked): Promise<void> {
  const settings = await researchSettings(world);
  if (settings.questions.some(({ id }) => id === key)) throw new Refusal('conflict', `${label} is asked already`);
  const fields = await loadCatalogue(world.db);
  if (!fields.of('company', key))
    await makeField(world, actor, {
      record: 'company',
      key,
      label,
      type,
      ...(unit === undefined ? {} : { unit }),
      group: 'Asked',
      sample: '',
      words: [],
    });
  await saveResearchSettings(world, actor, { ...settings, questions: [...settings.questions, { id: key, type: typeText, wording }] });
}

/** One more thing that a good one has, on the letter's own scorecard. */
async function keepGood(world: World, actor: Actor, text: string, when: string): Promise<void> {
  const row = (await listThings(world.db, 'scorecard')).find((entry) => entry.name === GOOD_CARD && !entry.retired);
  if (!row) {
    await makeThing(world, actor, { kind: 'scorecard', name: GOOD_CARD, body: addCriterion(undefined, text, when) });
    return;
  }
  const kept = await thing(world, row.id);
  const card = scorecardSchema.parse(kept.body);
  if (card.criteria.some((criterion) => criterion.levels.some((level) => level.when === when)))
    throw new Refusal('conflict', 'a good one has that already');
  await keepThing(world, actor, row.id, { body: addCriterion(card, text, when), base: kept.no, says: `a good one: ${text}` });
}
