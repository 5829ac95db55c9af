/**
 * Named things made, changed and kept: one life for scorecards, texts, plans, pipelines and agreed answers. Promises: every version stays and can be had back;
 * live flows go on with the version they were released with; a new name is followed by drafts and plans. Refuses: a thing with
 * errors, and keeping over somebody else's change.
 */
import { z } from 'zod';
import type { ThingSummary, ThingUse, ThingView } from '../../api';
import { plural } from '../../core/base';
import { statementSchema, type Statement } from '../../core/answers';
import { libraryParts, type Library, type Pipeline } from '../../core/flow/check';
import {
  beginningOf,
  isThingKind,
  namedIn,
  problemsOf,
  renamedIn,
  stagesRenamedIn,
  thingBody,
  type Thing,
  type ThingKind,
} from '../../core/things';
import type { Tx } from '../db';
import { listFlows, versionsOf } from './store/flows';
import { dealsByStage, moveStage, renamePipeline } from '../records/store/deals';
import { providerSchema } from '../../core/lookup';
import { listProviders } from '../workspace/store/providers';
import { getSetting, putSetting } from '../platform/store/settings';
import {
  findThing,
  insertThing,
  keepThing as keepVersion,
  listThings,
  retireThing as putRetired,
  thingNameTaken,
  thingVersions,
  type ThingRow,
} from './store/things';
import { insertAudit } from '../access/store/audit';
import { channelOf, isByHand, textsOf, type FollowUpPlan } from '../../core/writer';
import { saveDraft } from './flows';
import { loadLibrary } from './library';
import { found, Refusal, type Actor, type World } from '../platform/world';

const VERSIONS = 40;
export const THING_WORDS: Readonly<Record<ThingKind, string>> = {
  scorecard: 'scorecard',
  template: 'text',
  plan: 'plan',
  pipeline: 'pipeline',
  answer: 'agreed answer',
  chain: 'lookup chain',
};

/** What the business says of itself. */
/** What the business never says, in no text, answer or edited message. */
export async function neverSaid(tx: Tx): Promise<readonly string[]> {
  const kept = z.array(z.string()).safeParse(await getSetting(tx, NEVER_SAID));
  return kept.success ? kept.data : [];
}
const NEVER_SAID = 'never said';
export async function keepNeverSaid(world: World, actor: Actor, items: readonly string[]): Promise<readonly string[]> {
  const phrases = [...new Set(items.map((item) => item.trim()).filter((item) => item !== ''))];
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    await putSetting(tx, NEVER_SAID, phrases);
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'changed what is never said', detail: { phrases: phrases.length } });
  });
  return phrases;
}

export async function statements(tx: Tx): Promise<readonly Statement[]> {
  return z
    .array(statementSchema)
    .catch([])
    .parse(await getSetting(tx, 'statements'));
}
export async function keepStatements(world: World, actor: Actor, items: readonly Statement[]): Promise<readonly Statement[]> {
  const twice = items.find((item, i) => items.findIndex((other) => other.id === item.id) !== i);
  if (twice) throw new Refusal('not valid', `two statements are kept as “${twice.id}”`);
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    await putSetting(tx, 'statements', items);
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: 'changed what the business says of itself',
      detail: { statements: items.length },
    });
  });
  return statements(world.db);
}

interface Users {
  readonly library: Library & { readonly providers: readonly string[] };
  readonly said: readonly Statement[];
  readonly plans: readonly { readonly id: string; readonly plan: FollowUpPlan }[];
  readonly flows: readonly {
    readonly id: string;
    readonly name: string;
    readonly draft: string;
    readonly live: string | null;
    readonly held: unknown;
  }[];
}
/** The library with what things speak of besides: lookup services. */
export async function thingLibrary(tx: Tx): Promise<Users['library']> {
  const [library, providers] = await Promise.all([loadLibrary(tx), listProviders(tx)]);
  const asked = providers.filter((row) => providerSchema.safeParse(row.body).data?.finds === 'value');
  return { ...library, providers: asked.map((row) => row.name) };
}
async function usersOf(tx: Tx): Promise<Users> {
  const [library, said, flows, plans] = await Promise.all([thingLibrary(tx), statements(tx), listFlows(tx), listThings(tx, 'plan')]);
  const live = new Map(
    (
      await versionsOf(
        tx,
        flows.flatMap((flow) => flow.liveVersionId ?? []),
      )
    ).map((version) => [version.id, version]),
  );
  return {
    library,
    said,
    plans: plans.filter((row) => !row.retired).flatMap((row) => libraryParts([row]).plans.map((plan) => ({ id: row.id, plan }))),
    flows: flows.map((flow) => {
      const version = live.get(flow.liveVersionId ?? '');
      return { id: flow.id, name: flow.name, draft: flow.draftText, live: version?.text ?? null, held: version?.library };
    }),
  };
}

const heldSchema = z.object({
  scorecards: z.array(z.looseObject({ name: z.string() })).default([]),
  templates: z.array(z.looseObject({ name: z.string() })).default([]),
  plans: z.array(z.looseObject({ name: z.string() })).default([]),
  pipelines: z.array(z.looseObject({ name: z.string() })).default([]),
  chains: z.array(z.looseObject({ name: z.string() })).default([]),
});
const PARTS = { scorecard: 'scorecards', template: 'templates', plan: 'plans', pipeline: 'pipelines', chain: 'chains' } as const;
/** The same thing, whatever order its parts were written in. */
const inOrder = (value: unknown): string =>
  JSON.stringify(value, (_, part: unknown) =>
    typeof part === 'object' && part !== null && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
      : part,
  );

function usesOf(thing: Thing, { plans, flows }: Users): readonly ThingUse[] {
  // Answers are taken by what people write, not named by flows.
  if (thing.kind === 'answer') return [];
  const { kind, body } = thing;
  const inPlans = kind === 'template' ? plans.filter(({ plan }) => plan.touches.some((touch) => textsOf(touch).includes(body.name))) : [];
  return [
    ...flows.flatMap((flow): ThingUse[] => {
      const held = heldSchema.safeParse(flow.held).data?.[PARTS[kind]].find((item) => item.name === body.name);
      const inLive = flow.live !== null && namedIn(flow.live, kind).includes(body.name);
      if (!inLive && !namedIn(flow.draft, kind).includes(body.name)) return [];
      const read = held === undefined ? undefined : thingBody(kind, held);
      const behind = inLive && read !== undefined && 'thing' in read && inOrder(read.thing.body) !== inOrder(body);
      return [{ kind: 'flow', name: flow.name, href: `/flows/${flow.id}`, behind }];
    }),
    ...inPlans.map(({ id, plan }): ThingUse => ({ kind: 'plan', name: plan.name, href: `/messages/plans/${id}`, behind: false })),
  ];
}

function readRow(row: ThingRow): Thing {
  const read = isThingKind(row.kind) ? thingBody(row.kind, row.body) : undefined;
  if (!read || !('thing' in read)) throw new Error(`${row.kind} “${row.name}” does not fit its shape`);
  return read.thing;
}

function summaryOf(row: ThingRow, thing: Thing, users: Users): ThingSummary {
  const { id, name, no, retired, savedBy } = row;
  return {
    id,
    kind: thing.kind,
    name,
    no,
    retired,
    savedAt: row.savedAt,
    savedBy,
    uses: [...usesOf(thing, users)],
    problems: [...problemsOf(thing, users.library, users.said)],
  };
}

export async function things(world: World, kind: ThingKind): Promise<ThingSummary[]> {
  const [rows, users] = await Promise.all([listThings(world.db, kind), usersOf(world.db)]);
  return rows.map((row) => summaryOf(row, readRow(row), users));
}

export async function thing(world: World, id: string): Promise<ThingView> {
  const kept = await findThing(world.db, id);
  // Fields and doors are kept beside them, and are none.
  const row = found(kept && isThingKind(kept.kind) ? kept : undefined, 'such thing');
  const read = readRow(row);
  const [users, versions] = await Promise.all([usersOf(world.db), thingVersions(world.db, id, VERSIONS)]);
  return {
    ...summaryOf(row, read, users),
    body: read.body,
    versions: versions.flatMap((version) => {
      const body = thingBody(read.kind, version.body);
      return 'thing' in body ? [{ ...version, body: body.thing.body }] : [];
    }),
  };
}

/** What was sent, read as its kind and named as it shall be; refused with the place of the first error. */
async function accepted(tx: Tx, kind: ThingKind, body: unknown, name: string): Promise<Thing> {
  const read = thingBody(kind, body);
  if (!('thing' in read)) throw new Refusal('not valid', `this is no ${THING_WORDS[kind]}: ${read.says}`, { at: read.at });
  const named = { kind, body: { ...read.thing.body, name } } as Thing;
  const [library, said] = await Promise.all([thingLibrary(tx), statements(tx)]);
  const wrong = problemsOf(named, library, said).filter((problem) => problem.weight === 'error');
  if (wrong[0])
    throw new Refusal('not valid', wrong.length === 1 ? wrong[0].says : `${wrong[0].says} (and ${wrong.length - 1} more)`, {
      problems: wrong,
    });
  return named;
}

/** Makes a thing: a copy of another, of a body, or a beginning to be filled. */
export async function makeThing(
  world: World,
  actor: Actor,
  ask: { readonly kind: ThingKind; readonly name: string; readonly from?: string | undefined; readonly body?: unknown },
): Promise<ThingView> {
  const now = await world.clock.now();
  const id = world.newId();
  await world.db.begin(async (tx) => {
    const library = await thingLibrary(tx);
    const source = ask.from === undefined ? undefined : readRow(found(await findThing(tx, ask.from), 'such thing'));
    if (source && source.kind !== ask.kind)
      throw new Refusal('not valid', `a ${THING_WORDS[source.kind]} cannot become a ${THING_WORDS[ask.kind]}`);
    const body =
      ask.body ??
      source?.body ??
      beginningOf(ask.kind, ask.name, {
        mailboxes: library.connections,
        // A plan begins with what is approved: a mail.
        texts: library.templates.filter((text) => !isByHand(channelOf(text))).map((text) => text.name),
        providers: library.providers,
      }).body;
    const made = await accepted(tx, ask.kind, body, ask.name);
    const says = source ? `a copy of ${source.body.name}` : 'made';
    if (!(await insertThing(tx, { id, kind: ask.kind, name: ask.name, body: made.body }, { says, userId: actor.userId, at: now })))
      throw new Refusal('conflict', `there is a ${THING_WORDS[ask.kind]} “${ask.name}” already`);
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: `made the ${THING_WORDS[ask.kind]} “${ask.name}”`,
      detail: { thingId: id },
    });
  });
  return thing(world, id);
}

/** Keeps a change as a new version, if it is still the one it began from. */
export async function keepThing(
  world: World,
  actor: Actor,
  id: string,
  ask: { readonly body: unknown; readonly base: number; readonly says: string; readonly moves?: StageMoves },
): Promise<ThingView> {
  const now = await world.clock.now();
  const moves = ask.moves ?? {};
  let pipeline: string | undefined;
  await world.db.begin(async (tx) => {
    const row = found(await findThing(tx, id), 'such thing');
    const before = readRow(row);
    const { kind } = before;
    const kept = await accepted(tx, kind, ask.body, row.name);
    const { body } = kept;
    if (before.kind === 'pipeline' && kept.kind === 'pipeline') {
      pipeline = row.name;
      await moveDeals(tx, { before: before.body, after: kept.body, moves }, now);
    }
    const no = await keepVersion(
      tx,
      { id, name: row.name, body, base: ask.base },
      { says: ask.says === '' ? 'changed' : ask.says, userId: actor.userId, at: now },
    );
    if (no === undefined)
      throw new Refusal('conflict', `${row.savedBy ?? 'somebody'} kept version ${row.no} meanwhile: what you wrote is still here`, {
        no: row.no,
      });
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: `changed the ${THING_WORDS[kind]} “${row.name}”`,
      detail: { thingId: id, version: no },
    });
  });
  const names = new Map(Object.entries(moves).flatMap(([from, { to, renamed }]) => (renamed ? [[from, to] as const] : [])));
  if (pipeline !== undefined && names.size > 0) await inDrafts(world, actor, (text) => stagesRenamedIn(text, pipeline ?? '', names));
  return thing(world, id);
}

/** What becomes of the deals at stages that are gone: `renamed` when the stage only has another name. */
export type StageMoves = Readonly<Record<string, { readonly to: string; readonly renamed: boolean }>>;

/** Deals at a stage that is gone go where it is said; where it is not, nothing is kept. */
async function moveDeals(
  tx: Tx,
  { before, after, moves }: { readonly before: Pipeline; readonly after: Pipeline; readonly moves: StageMoves },
  now: number,
): Promise<void> {
  const deals = await dealsByStage(tx, before.name);
  const lost = Object.fromEntries(
    Object.entries(deals).filter(([stage]) => !after.stages.includes(stage) && !after.stages.includes(moves[stage]?.to ?? '')),
  );
  const [stage] = Object.keys(lost);
  if (stage !== undefined)
    throw new Refusal('conflict', `${plural(lost[stage] ?? 0, 'deal stands', 'deals stand')} at ${stage}: say where they go`, {
      deals: lost,
    });
  for (const [from, move] of Object.entries(moves))
    if (!after.stages.includes(from)) await moveStage(tx, { pipeline: before.name, from, ...move }, now);
}

const TRIES = 3;

/** A new name: a new version of the thing, of the plans that use it, and of the drafts that speak of it. Live versions keep their own copy. */
export async function renameThing(world: World, actor: Actor, id: string, name: string): Promise<ThingView> {
  const now = await world.clock.now();
  const row = found(await findThing(world.db, id), 'such thing');
  const { kind, body } = readRow(row);
  if (name === row.name) return thing(world, id);
  const says = `renamed from ${row.name}`;
  await world.db.begin(async (tx) => {
    if (await thingNameTaken(tx, kind, name, id)) throw new Refusal('conflict', `there is a ${THING_WORDS[kind]} “${name}” already`);
    const kept = await keepVersion(tx, { id, name, body: { ...body, name }, base: row.no }, { says, userId: actor.userId, at: now });
    if (kept === undefined) throw new Refusal('conflict', 'somebody changed it meanwhile: try again');
    if (kind === 'template') await renameInPlans(tx, actor, row.name, name, now);
    if (kind === 'pipeline') await renamePipeline(tx, row.name, name);
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: `renamed the ${THING_WORDS[kind]} “${row.name}” to “${name}”`,
      detail: { thingId: id },
    });
  });
  await inDrafts(world, actor, (text) => renamedIn(text, kind, row.name, name));
  return thing(world, id);
}

async function renameInPlans(tx: Tx, actor: Actor, from: string, to: string, now: number): Promise<void> {
  for (const row of await listThings(tx, 'plan')) {
    const plan = libraryParts([row]).plans[0];
    if (!plan?.touches.some((touch) => textsOf(touch).includes(from))) continue;
    const renamed = (text: string): string => (text === from ? to : text);
    const touches = plan.touches.map(({ otherwise, ...touch }) => ({
      ...touch,
      template: renamed(touch.template),
      ...(otherwise !== undefined && { otherwise: renamed(otherwise) }),
    }));
    await keepVersion(
      tx,
      { id: row.id, name: row.name, body: { ...plan, touches }, base: row.no },
      { says: `${from} is called ${to} now`, userId: actor.userId, at: now },
    );
  }
}

/** Changes what drafts say of a thing. */
async function inDrafts(world: World, actor: Actor, change: (text: string) => string): Promise<void> {
  for (const flow of await listFlows(world.db)) await changeDraft(world, actor, flow.id, change);
}

/** Somebody may be writing in the draft at this moment: it is looked at again then. */
async function changeDraft(world: World, actor: Actor, flowId: string, change: (text: string) => string): Promise<void> {
  for (let i = 0; i < TRIES; i++) {
    const flow = (await listFlows(world.db)).find((entry) => entry.id === flowId);
    if (!flow) return;
    const text = change(flow.draftText);
    if (text === flow.draftText) return;
    try {
      await saveDraft(world, actor, flowId, { text, base: flow.draftNo });
      return;
    } catch (error) {
      if (!(error instanceof Refusal) || error.kind !== 'conflict' || i === TRIES - 1) throw error;
    }
  }
}

/** Takes a thing out of use, or back. What is live keeps its copy; what is used by a draft is said to be. */
export async function retireThing(world: World, actor: Actor, id: string, retired: boolean): Promise<ThingView> {
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    const row = found(await findThing(tx, id), 'such thing');
    const { kind } = readRow(row);
    await putRetired(tx, id, retired);
    const what = `${retired ? 'retired' : 'took back into use'} the ${THING_WORDS[kind]} “${row.name}”`;
    await insertAudit(tx, { at: now, userId: actor.userId, what, detail: { thingId: id } });
  });
  return thing(world, id);
}
