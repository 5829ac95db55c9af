/**
 * A made-up business within one's own workspace: its records, a flow as a draft, and what that names. Promises: nothing of one's
 * own is written over, what came is written down, and one step takes all of it away again, with what became of it. Refuses: a
 * second one beside it.
 */
import type { ExampleView } from '../../api';
import { freeName, plural } from '../../core/base';
import { matchBundle, settleBundle, type Bundle, type Choice, type Match } from '../../core/flow/bundle';
import { libraryItemSchema, type LibraryItem } from '../../core/flow/check';
import { parseFlow, quote } from '../../core/flow/syntax';

import { THING_KINDS } from '../../core/things';
import { insertAudit } from '../access/store/audit';
import { takeInFlow } from '../flows/bundles';
import { loadLibrary } from '../flows/library';
import { listFlows } from '../flows/store/flows';
import { listThings } from '../flows/store/things';
import { THING_WORDS, things } from '../flows/things';
import { found, Refusal, workspace, type Actor, type World } from '../platform/world';
import { recountLines } from '../trips/store/line-counts';
import { dropField, listFields } from '../records/store/fields';
import { CAME_KINDS, exampleHere, putExampleHere, type ExampleHere as Here } from './example-here';
import { seedCrm, workspaceSeedSchema } from './seed';
import { eraseAll, holdingsOf, tripsOf } from './store/erase';
import { addressesOf, dropExample, flowsOfTrips, isFilledElsewhere, partFromExample, tripsOfFlows } from './store/example';
import { keepTeam, dropTeam, teams } from './teams';

const CAME_WORDS = { ...THING_WORDS, intake: 'list' } as const;

async function readExample(world: World, name: string) {
  found((await world.examples.list()).includes(name) || undefined, `the example “${name}”`);
  const { workspace: described, ...files } = await world.examples.read(name);
  const seed = workspaceSeedSchema.parse(described);
  const items = [...seed.library, ...seed.fields.map((body) => ({ kind: 'field', name: `${body.record}.${body.key}`, body }))];
  const carried = items.map((item): LibraryItem => libraryItemSchema.parse(item));
  return { ...files, title: seed.workspace.name, country: seed.workspace.defaultCountry, about: seed.example?.about ?? '', carried };
}

/** Which examples there are, and which is here. */
export async function examples(world: World): Promise<ExampleView> {
  const [names, here, own] = await Promise.all([world.examples.list(), exampleHere(world.db), workspace(world.db)]);
  const all = await Promise.all(
    names.map(async (name) => {
      const { title, about, companies, people } = await readExample(world, name);
      return { name, title, about, companies: companies.length, people: people.length };
    }),
  );
  // A workspace that was made of one is no place to look round in it.
  const offers = all.filter(({ title }) => title !== own.name);
  return { offers, here: here ? await shown(world, here) : null };
}

async function shown(world: World, here: Here): Promise<NonNullable<ExampleView['here']>> {
  const flows = (await listFlows(world.db)).filter((flow) => here.flows.includes(flow.id));
  const { stays } = await partedFrom(world, here);
  return {
    title: here.title,
    since: here.since,
    flows: flows.map(({ id, name }) => ({ id, name })),
    goes: [
      plural(here.companies.length, 'company', 'companies'),
      plural(here.people.length, 'person', 'people'),
      ...flows.map(({ name }) => `the flow “${name}” with its trips`),
      ...here.things.map(({ kind, name }) => `the ${CAME_WORDS[kind]} “${name}”`),
    ],
    stays: [...stays],
  };
}

/** Takes an example in: what has the name of something of one's own comes under another. */
export async function beginExample(world: World, actor: Actor, name: string): Promise<ExampleView> {
  const before = await exampleHere(world.db);
  if (before) throw new Refusal('conflict', `the example of ${before.title} is here: remove it first`);
  const example = await readExample(world, name);
  const now = await world.clock.now();
  const bundle: Bundle = { format: 'millrace flow bundle 1', text: example.flow, things: example.carried };
  // Each part is written down as it comes: what broke off midway can be taken away like what is whole.
  let here: Here = { name, title: example.title, since: now, flows: [], things: [], fields: [], teams: [], companies: [], people: [] };
  const teamNames = await missingTeams(world, actor, bundle);
  here = { ...here, teams: [...teamNames] };
  await putExampleHere(world.db, here);
  await makeTeams(world, actor, teamNames);
  here = { ...here, ...(await takeInItsFlow(world, actor, bundle, example.title)) };
  await putExampleHere(world.db, here);
  const card = { sourceRef: `example: ${example.title}`, prefix: `example ${name}` };
  await seedCrm(world, example, example.country, card, async (tx, records) => {
    await putExampleHere(tx, { ...here, companies: [...records.companies], people: [...records.people] });
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'began with an example', detail: { example: example.title } });
  });
  return examples(world);
}

/** The flow as a draft, with the things and fields it brings. */
async function takeInItsFlow(
  world: World,
  actor: Actor,
  bundle: Bundle,
  title: string,
): Promise<Pick<Here, 'flows' | 'things' | 'fields'>> {
  const library = await loadLibrary(world.db);
  const choices = Object.fromEntries(matchBundle(bundle, library).map((match) => [match.key, choiceOf(match)]));
  const settled = settleBundle(bundle, library, choices);
  if (!settled.ok) throw new Refusal('conflict', settled.problems.map(({ message }) => message).join('; '));
  const flowName = freeName(
    parseFlow(settled.text).tree.name?.text ?? title,
    (await listFlows(world.db)).map((flow) => flow.name),
  );
  const flow = await takeInFlow(world, actor, { bundle, choices, name: flowName });
  return {
    flows: [flow.id],
    things: await madeThings(world, settled.make),
    fields: settled.make.flatMap((item) => (item.kind === 'field' ? [{ record: item.body.record, key: item.body.key }] : [])),
  };
}

/** One's own comes first: what differs comes under a name that is free, what only exists in a workspace is one's own. */
function choiceOf(match: Match): Choice {
  if (match.state === 'differs' && match.kind !== 'field') return { does: 'bring', name: match.free };
  const [own] = match.here;
  return match.state === 'missing' && !match.carried && match.kind === 'connection' && own !== undefined
    ? { does: 'use', name: own }
    : match.choice;
}

/** Teams that the flow names and nobody has made; without a person to be in them, none is made. */
async function missingTeams(world: World, actor: Actor, bundle: Bundle): Promise<readonly string[]> {
  if (actor.userId === null) return [];
  const matches = matchBundle(bundle, await loadLibrary(world.db));
  return matches.filter(({ kind, state }) => kind === 'team' && state === 'missing').map((match) => match.name);
}
async function makeTeams(world: World, actor: Actor, names: readonly string[]): Promise<void> {
  for (const name of names) await keepTeam(world, actor, name, { isNew: true, members: [{ id: actor.userId ?? '', weight: 1 }] });
}

async function madeThings(world: World, make: readonly LibraryItem[]): Promise<Here['things']> {
  const rows = await Promise.all(CAME_KINDS.map(async (kind) => (await listThings(world.db, kind)).map((row) => ({ ...row, kind }))));
  return rows
    .flat()
    .filter((row) => make.some((item) => item.kind === row.kind && item.name === row.name))
    .map(({ kind, id, name }) => ({ kind, id, name }));
}

/** What of the example is used by something of one's own, and stays with it. */
async function partedFrom(world: World, here: Here): Promise<{ readonly things: readonly string[]; readonly stays: readonly string[] }> {
  const all = (await Promise.all(THING_KINDS.map((kind) => things(world, kind)))).flat();
  const others = (await listFlows(world.db)).filter((flow) => !here.flows.includes(flow.id));
  const inUse = here.things.flatMap(({ kind, id, name }) => {
    const uses =
      kind === 'intake'
        ? others.filter((flow) => flow.draftText.includes(quote(name)))
        : (all.find((thing) => thing.id === id)?.uses ?? []).filter(
            (use) => !here.flows.some((flow) => use.href.endsWith(flow)) && !here.things.some((thing) => use.href.endsWith(thing.id)),
          );
    return uses.length === 0
      ? []
      : [{ id, says: `“${name}”, which ${uses.map((use) => use.name).join(' and ')} ${uses.length === 1 ? 'uses' : 'use'}` }];
  });
  const kept = new Set(inUse.map(({ id }) => id));
  return { things: here.things.filter(({ id }) => !kept.has(id)).map(({ id }) => id), stays: inUse.map(({ says }) => says) };
}

/** Takes the example away, with its trips, mails, deals and facts; what one's own uses of it stays. */
export async function removeExample(world: World, actor: Actor): Promise<ExampleView> {
  const here = found(await exampleHere(world.db), 'an example in this workspace');
  const parted = await partedFrom(world, here);
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    const [emails, mine] = await Promise.all([addressesOf(tx, here.people), tripsOf(tx, here.people)]);
    const { leaving } = await holdingsOf(tx, here.people, emails);
    if (leaving > 0)
      throw new Refusal(
        'conflict',
        'a mail of the example is leaving right now, or nobody knows whether it left: settle that on the desk first',
      );
    const trips = [...new Set([...mine, ...(await tripsOfFlows(tx, here.flows))])];
    const rows = { people: here.people, companies: here.companies, flows: here.flows, things: parted.things };
    const otherFlows = (await flowsOfTrips(tx, trips)).filter((id) => !here.flows.includes(id));
    await partFromExample(tx, rows);
    if (here.people.length > 0) await eraseAll(tx, here.people, trips, emails);
    await dropExample(tx, rows, trips);
    await recountLines(tx, otherFlows);
    const own = await listFields(tx);
    for (const { record, key } of here.fields)
      if (
        parted.stays.length === 0 &&
        own.some((field) => field.record === record && field.key === key) &&
        !(await isFilledElsewhere(tx, key, [...here.companies, ...here.people]))
      )
        await dropField(tx, record, key);
    await putExampleHere(tx, null);
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: 'removed the example',
      detail: { example: here.title, stays: parted.stays },
    });
  });
  await dropItsTeams(world, actor, here);
  return examples(world);
}

/** Teams that came with it, and that no flow of one's own names. */
async function dropItsTeams(world: World, actor: Actor, here: Here): Promise<void> {
  const known = new Set((await teams(world)).map((team) => team.name));
  for (const name of here.teams.filter((team) => known.has(team)))
    await dropTeam(world, actor, name).catch((error: unknown) => {
      if (!(error instanceof Refusal)) throw error;
    });
}
