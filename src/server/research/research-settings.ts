/** Where research looks, and what is asked of every company: as the workspace has set it up. */
import { SOURCE_NAMES } from '../ports';
import { getSetting, putSetting } from '../platform/store/settings';
import { insertAudit } from '../access/store/audit';
import { questionOf, standingQuestionsSchema, usualQuestions, type StandingQuestion } from './questions';
import { sourceSettings, type SourceSetting } from '../trips/requests/sources';
import { Refusal, type Actor, type World } from '../platform/world';

export interface ResearchSettings {
  readonly sources: readonly SourceSetting[];
  readonly questions: readonly StandingQuestion[];
}

export async function researchSettings(world: World): Promise<ResearchSettings> {
  const kept = standingQuestionsSchema.safeParse(await getSetting(world.db, 'questions'));
  const sources = await sourceSettings(world);
  const all = SOURCE_NAMES.map(
    (name) => sources.find((source) => source.name === name) ?? { name, label: name, priceMicro: 0, atOnce: 4, off: true },
  );
  return { sources: all, questions: kept.success ? kept.data : usualQuestions() };
}

/** Keeps the settings; a question that cannot be read is refused by its name, and nothing is changed. */
export async function saveResearchSettings(world: World, actor: Actor, ask: ResearchSettings): Promise<ResearchSettings> {
  for (const question of ask.questions)
    if (!questionOf(question))
      throw new Refusal(
        'not valid',
        `the question “${question.id}” cannot be asked: its name is one word, its type for example number in ha, year, yes/no, text, list`,
      );
  const twice = ask.questions.find((question, i) => ask.questions.findIndex((other) => other.id === question.id) !== i);
  if (twice) throw new Refusal('not valid', `two questions are called “${twice.id}”`);
  const before = new Map((await researchSettings(world)).questions.map((question) => [question.id, question]));
  // Who sends only name, type and wording does not mean to throw away what is known of the question.
  const questions = ask.questions.map((question) => ({ ...before.get(question.id), ...question }));
  await world.db.begin(async (tx) => {
    await putSetting(tx, 'sources', ask.sources);
    await putSetting(tx, 'questions', questions);
    await insertAudit(tx, {
      at: await world.clock.now(),
      userId: actor.userId,
      what: 'changed what research asks and where',
      detail: { questions: ask.questions.length },
    });
  });
  return researchSettings(world);
}
