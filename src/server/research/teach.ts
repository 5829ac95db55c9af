/** A question seen, changed and taught: what it answers on sites read before, and on them after the change. */
import type { FactValue } from '../../core/fields';
import { answerTypeText } from '../../core/flow/syntax';
import { ordinaryIn } from '../../core/reader';
import { alike, MODEL, type Learnt, type Outcome, type Place } from '../../core/reader/learning';
import { cachedPagesOf, getSetting, putSetting } from '../platform/store/settings';
import { sitesRead, sitesUnread, type SiteRow } from './store/research';
import { insertAudit } from '../access/store/audit';
import { askedWith, type Knowledge } from './asked';
import { boxed } from '../flows/flow-text';
import { keptQuestions, questionOf, standingQuestionsSchema, type StandingQuestion } from './questions';
import { found, Refusal, type Actor, type World } from '../platform/world';

/** So many sites are read again at every change, and so many pages of each. */
const SITES = 40;
const PAGES = 12;
const UNREAD = 10;

/** What may be changed of a question on its page. */
export interface QuestionDraft {
  readonly words: readonly string[];
  readonly not: readonly string[];
  readonly least: number | null;
  readonly months: number | null;
  readonly optionWords: Readonly<Record<string, readonly string[]>>;
  readonly shown: NonNullable<StandingQuestion['shown']>;
  readonly leftOut: readonly string[];
}

export interface TaughtSite {
  readonly host: string;
  readonly companyId: string;
  readonly name: string;
  readonly known: FactValue;
  readonly knownFrom: string | null;
  readonly before: FactValue;
  readonly after: FactValue;
  readonly was: Outcome;
  readonly is: Outcome;
}

export interface QuestionView {
  readonly id: string;
  readonly type: string;
  readonly wording: string;
  readonly options: readonly string[];
  readonly usualLeast: number;
  readonly draft: QuestionDraft;
  readonly learnt: readonly Learnt[];
  readonly sites: readonly TaughtSite[];
  /** of the site that is shown, surest first */
  readonly host: string | null;
  readonly places: readonly Place[];
  /** recorded answers that would be gained, changed and lost when the sites are read again */
  readonly gained: number;
  readonly changed: number;
  readonly lost: number;
  /** companies whose site nobody has read, those whose answer is known first */
  readonly unread: readonly { readonly id: string; readonly name: string; readonly isKnown: boolean }[];
  readonly mayUndo: boolean;
}

const knowledge = ({ options, optionWords, words, not, months, least, learnt }: StandingQuestion): Knowledge => ({
  options,
  optionWords,
  words,
  not,
  months,
  least,
  learnt,
});

const draftOf = (question: StandingQuestion): QuestionDraft => ({
  words: question.words ?? [],
  not: question.not ?? [],
  least: question.least ?? null,
  months: question.months ?? null,
  optionWords: question.optionWords ?? {},
  shown: question.shown ?? [],
  leftOut: question.leftOut ?? [],
});

/** The question with what it answers now; with a draft, with what it would answer. `host`: whose pages to show. */
export async function tryQuestion(
  world: World,
  id: string,
  ask: { readonly draft?: QuestionDraft | undefined; readonly host?: string | null | undefined },
): Promise<QuestionView> {
  const question = await keptQuestion(world, id);
  const parsed = questionOf(question);
  if (!parsed) throw new Refusal('not valid', `the question “${id}” has a type that cannot be read: ${question.type}`);
  const draft = ask.draft ?? draftOf(question);
  const rows = await sitesRead(world.db, id, SITES);
  const host = rows.some((row) => row.host === ask.host) ? (ask.host ?? null) : (rows[0]?.host ?? null);
  const plain = { id, type: parsed.type, wording: question.wording };
  const before = askedWith(plain, knowledge(question), world.dictionary);
  const after = askedWith(plain, knowledgeIn(question, draft), world.dictionary);
  const sites = await passagesOf(world, rows);
  const tried = await boxed(
    world.box.run('tried', {
      before,
      draft: after,
      shown: draft.shown,
      leftOut: draft.leftOut,
      sites,
      ordinary: ordinaryIn(
        sites.flatMap(({ passages }) => passages),
        world.dictionary,
      ),
      host,
      now: await world.clock.now(),
    }),
  );
  const byHost = new Map(tried.sites.map((site) => [site.host, site]));
  return {
    id,
    type: before.type.kind === 'choice' ? 'one of several' : answerTypeText(before.type),
    wording: question.wording,
    options: before.type.kind === 'choice' ? before.type.options : [],
    usualLeast: MODEL.least,
    draft,
    learnt: tried.learnt,
    sites: rows.flatMap(({ companyId, name, host: of, known, knownFrom }) => {
      const site = byHost.get(of);
      return site ? [{ companyId, name, known, knownFrom, ...site }] : [];
    }),
    host,
    places: tried.places,
    ...whatWouldChange(rows, byHost),
    unread: await unreadOf(world, id, rows),
    mayUndo: (await beforeLast(world, id)) !== undefined,
  };
}

/** What is known of a question with what a draft says in place of what was kept. */
const knowledgeIn = (question: Parameters<typeof knowledge>[0], draft: QuestionDraft) => ({
  ...knowledge(question),
  words: draft.words,
  not: draft.not,
  least: draft.least ?? undefined,
  months: draft.months ?? undefined,
  optionWords: wordsFor(draft),
  learnt: undefined,
});

/** The pages of sites as they were read before. */
const passagesOf = (world: World, rows: readonly SiteRow[]) =>
  Promise.all(
    rows.map(async ({ host, known }) => ({
      host,
      known,
      passages: (await cachedPagesOf(world.db, host, 0))
        .slice(0, PAGES)
        .map(({ url, title, published, blocks }) => ({ url, title, published, blocks })),
    })),
  );

/** Sites to read next: those whose answer is known; where none is and nothing was read at all, any. */
async function unreadOf(world: World, id: string, rows: readonly SiteRow[]): Promise<QuestionView['unread']> {
  if (rows.filter((row) => row.known !== null).length >= UNREAD) return [];
  const unread = await sitesUnread(world.db, id, UNREAD);
  const known = unread.filter(({ isKnown }) => isKnown);
  return known.length > 0 || rows.length > 0 ? known : unread;
}

function whatWouldChange(
  rows: readonly SiteRow[],
  after: ReadonlyMap<string, { readonly after: FactValue }>,
): { readonly gained: number; readonly changed: number; readonly lost: number } {
  const count = { gained: 0, changed: 0, lost: 0 };
  for (const row of rows) {
    const value = after.get(row.host)?.after ?? null;
    if (row.read === null && value !== null) count.gained += 1;
    else if (row.read !== null && value === null) count.lost += 1;
    else if (row.read !== null && value !== null && !alike(row.read, value)) count.changed += 1;
  }
  return count;
}

async function keptQuestion(world: World, id: string): Promise<StandingQuestion> {
  return found(
    (await keptQuestions(world.db)).find((question) => question.id === id),
    `the question “${id}”`,
  );
}

const BEFORE = 'questions before';
async function beforeLast(world: World, id: string): Promise<StandingQuestion | undefined> {
  const kept = standingQuestionsSchema.safeParse(await getSetting(world.db, BEFORE));
  return kept.success ? kept.data.find((question) => question.id === id) : undefined;
}

/** Keeps what was changed and what the examples teach. How it was before can be had back once. */
export async function keepQuestion(world: World, actor: Actor, id: string, draft: QuestionDraft): Promise<QuestionView> {
  const before = await keptQuestion(world, id);
  const { learnt } = await tryQuestion(world, id, { draft });
  const { least: _least, months: _months, optionWords: _words, ...rest } = before;
  const after: StandingQuestion = {
    ...rest,
    words: [...draft.words],
    not: [...draft.not],
    ...(draft.least === null ? {} : { least: draft.least }),
    ...(draft.months === null ? {} : { months: draft.months }),
    ...(wordsFor(draft) === undefined ? {} : { optionWords: wordsFor(draft) }),
    shown: [...draft.shown],
    leftOut: [...draft.leftOut],
    learnt: [...learnt],
  };
  await put(world, actor, id, after, before, `changed what is known of the question “${before.wording}”`);
  return tryQuestion(world, id, {});
}

/** Other words for options; an option without any goes by its name and what a dictionary calls it. */
function wordsFor(draft: QuestionDraft): Record<string, string[]> | undefined {
  const given = Object.entries(draft.optionWords).flatMap(([option, words]) =>
    words.length > 0 ? [[option, [...words]] as [string, string[]]] : [],
  );
  return given.length > 0 ? Object.fromEntries(given) : undefined;
}

/** Brings back how the question was before it was last kept. */
export async function undoQuestion(world: World, actor: Actor, id: string): Promise<QuestionView> {
  const before = found(await beforeLast(world, id), 'a state before this one');
  await put(world, actor, id, before, null, `brought back what was known of the question “${before.wording}”`);
  return tryQuestion(world, id, {});
}

async function put(
  world: World,
  actor: Actor,
  id: string,
  question: StandingQuestion,
  before: StandingQuestion | null,
  what: string,
): Promise<void> {
  await world.db.begin(async (tx) => {
    const all = await keptQuestions(tx);
    const kept = standingQuestionsSchema.safeParse(await getSetting(tx, BEFORE));
    const others = (kept.success ? kept.data : []).filter((entry) => entry.id !== id);
    await putSetting(
      tx,
      'questions',
      all.map((entry) => (entry.id === id ? question : entry)),
    );
    await putSetting(tx, BEFORE, before === null ? others : [...others, before]);
    await insertAudit(tx, {
      at: await world.clock.now(),
      userId: actor.userId,
      what,
      detail: { question: id, words: question.words?.length ?? 0, examples: question.shown?.length ?? 0 },
    });
  });
}
