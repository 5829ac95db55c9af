/**
 * What a named thing would do as it is written, before it is kept: scores of the records there are, what readers would get, days.
 * Promises: nothing is changed. A thing with errors is tried as far as it goes.
 */
import type { CardTrial, TextReader, TextTrial, ThingTrial } from '../../api';
import type { Fact } from '../../core/facts';
import type { FeelScope } from '../../core/feel';
import { compileScorecard, type Scorecard } from '../../core/score';
import { problemsOf, thingBody, type Thing, type ThingKind } from '../../core/things';
import { channelOf, composeMessage, reachOf, type Composed, type MessageTemplate } from '../../core/writer';
import { factsOf } from '../records/store/facts';
import { recentLines } from '../messages/store/messages';
import { listMailboxes } from '../messages/store/mailboxes';
import { doNotContactAmong } from '../messages/store/do-not-contact';
import { countRecords, loadViews } from '../records/store/records';
import { dealsByStage } from '../records/store/deals';
import { findThing, sampleReaders, sampleViews } from './store/things';
import { currentFacts, LAST_LINES } from '../trips/requests/compose';
import { neverSaid, statements, THING_WORDS, thingLibrary } from './things';
import { waysTo } from '../messages/ways';
import { tryPlan } from './try-plan';
import { Refusal, type World } from '../platform/world';

/** So many records are scored for a preview; of more, a sample that is the same every time. */
const SCORED = 2000;
const BINS = 40;
const MOVED = 8;
const READERS = 300;
const SHOWN = 5;
const NAMES = 6;

export async function tryThing(
  world: World,
  ask: { readonly kind: ThingKind; readonly id?: string | undefined; readonly body: unknown },
): Promise<ThingTrial> {
  const read = thingBody(ask.kind, ask.body);
  if (!('thing' in read)) throw new Refusal('not valid', `this is no ${THING_WORDS[ask.kind]}: ${read.says}`, { at: read.at });
  const { thing } = read;
  const [library, said, row] = await Promise.all([
    thingLibrary(world.db),
    statements(world.db),
    ask.id === undefined ? undefined : findThing(world.db, ask.id),
  ]);
  const before = row && thingBody(thing.kind, row.body);
  return {
    problems: [...problemsOf(thing, library, said)],
    card: thing.kind === 'scorecard' ? await tryCard(world, thing.body, before && 'thing' in before ? before.thing : undefined) : null,
    text: thing.kind === 'template' ? await tryText(world, thing.body) : null,
    plan: thing.kind === 'plan' ? await tryPlan(world, thing.body, library.templates) : null,
    pipeline: thing.kind === 'pipeline' ? { deals: await dealsByStage(world.db, row?.name ?? thing.body.name) } : null,
  };
}

async function tryCard(world: World, card: Scorecard, before: Thing | undefined): Promise<CardTrial> {
  const [views, counts] = await Promise.all([sampleViews(world.db, card.target, SCORED), countRecords(world.db)]);
  const score = compileScorecard(card);
  const scoredBefore = before?.kind === 'scorecard' ? compileScorecard(before.body) : score;
  const names = [...new Set([...card.bands].sort((a, b) => b.from - a.from).map((band) => band.name)), 'out'];
  const bands = new Map(names.map((name) => [name, { name, n: 0, was: 0 }]));
  const criteria = card.criteria.map(({ id }) => ({ id, holds: 0, part: 0, unknown: 0, fails: 0 }));
  const out = card.disqualifiers.map(() => 0);
  const bins = new Array<number>(BINS).fill(0);
  const moved: CardTrial['moved']['first'][number][] = [];
  let most = 0;
  for (const view of views) {
    const scope: FeelScope = { ...(view.person as FeelScope), company: view.company as FeelScope | null };
    const now = score(scope);
    const was = scoredBefore(scope);
    most = now.of;
    const bin = Math.min(BINS - 1, Math.floor((now.points / Math.max(1, now.of)) * BINS));
    bins[bin] = (bins[bin] ?? 0) + 1;
    bands.set(now.band, { name: now.band, was: bands.get(now.band)?.was ?? 0, n: (bands.get(now.band)?.n ?? 0) + 1 });
    bands.set(was.band, { name: was.band, n: bands.get(was.band)?.n ?? 0, was: (bands.get(was.band)?.was ?? 0) + 1 });
    for (const [i, working] of now.working.entries()) {
      const counted = criteria[i];
      if (counted) counted[working.state] += 1;
    }
    for (const text of now.disqualifiedBy) {
      const i = card.disqualifiers.findIndex((entry) => entry.text === text);
      if (i >= 0) out[i] = (out[i] ?? 0) + 1;
    }
    if (now.band !== was.band) moved.push({ id: view.id, name: view.name, points: now.points, was: was.band, now: now.band, why: now.why });
  }
  return {
    of: views.length,
    all: card.target === 'company' ? counts.companies : counts.people,
    most,
    bands: [...bands.values()],
    bins,
    criteria,
    out,
    moved: { n: moved.length, first: moved.sort((a, b) => b.points - a.points).slice(0, MOVED) },
  };
}

export interface Read {
  readonly id: string;
  readonly name: string;
  readonly company: string | null;
  readonly composed: Composed;
}

async function tryText(world: World, text: MessageTemplate): Promise<TextTrial> {
  const readers = await sampleReaders(world.db, READERS);
  const [read, counts] = await Promise.all([readBy(world, text, readers), countRecords(world.db)]);
  return {
    of: read.length,
    isSample: readers.length === READERS,
    all: counts.people,
    passed: read.filter(({ composed }) => composed.passed).length,
    failed: failures(read),
    restsOn: (text.personal?.fields ?? []).map((field) => ({
      field,
      n: read.filter(({ composed }) => composed.factsUsed[0]?.field === field).length,
    })),
    wordings: [null, ...(text.wordings ?? []).keys()].map((at) => read.filter(({ composed }) => composed.wording === at).length),
    without: without(read),
    readers: chosenToDiffer(read).map(shown),
  };
}

/** A text as each of these people would get it now. */
export async function readBy(
  world: World,
  text: MessageTemplate,
  readers: readonly { readonly id: string; readonly companyId: string | null }[],
): Promise<readonly Read[]> {
  const { db } = world;
  const ids = readers.flatMap((reader) => [reader.id, ...(reader.companyId === null ? [] : [reader.companyId])]);
  const [views, facts, lines, [mailbox], neverSay] = await Promise.all([
    loadViews(
      db,
      readers.map((reader) => reader.id),
    ),
    factsOf(db, ids, text.personal?.fields),
    recentLines(db, text.name, LAST_LINES),
    listMailboxes(db),
    neverSaid(db),
  ]);
  const barred = await doNotContactAmong(
    db,
    [...views.values()].flatMap(({ person }) => waysTo(person)),
  );
  const byRecord = new Map<string, Fact[]>();
  for (const fact of facts) byRecord.set(fact.record.id, [...(byRecord.get(fact.record.id) ?? []), fact]);
  const signs = mailbox?.displayName ?? '';
  const read: Read[] = [];
  for (const { id, companyId } of readers) {
    const view = views.get(id);
    if (!view) continue;
    const composed = composeMessage({
      template: text,
      scope: {
        ...(view.person as FeelScope),
        company: view.company,
        sender: { name: signs, first_name: signs.split(' ')[0] ?? '' },
      },
      recipient: { name: view.person.name, reach: reachOf(channelOf(text), view.person, view.company) },
      facts: currentFacts([...(byRecord.get(id) ?? []), ...(companyId === null ? [] : (byRecord.get(companyId) ?? []))]),
      recentLines: lines,
      doNotContact: waysTo(view.person).some((way) => barred.has(way)),
      neverSay,
      seed: id,
    });
    read.push({ id, name: view.person.name, company: typeof view.company?.name === 'string' ? view.company.name : null, composed });
  }
  return read;
}

/** Readers who get it in a language that is not theirs, most first. */
function without(read: readonly Read[]): TextTrial['without'] {
  const by = new Map<string, number>();
  for (const { composed } of read)
    if (composed.fallback !== null && composed.reads !== null) by.set(composed.reads, (by.get(composed.reads) ?? 0) + 1);
  return [...by].map(([language, n]) => ({ language, n })).sort((a, b) => b.n - a.n);
}

/** What is wrong with a message, each thing once: a personal line without a fact is an empty slot too. */
function wrongOf(composed: Composed): Composed['checks'] {
  const wrong = composed.checks.filter((check) => !check.ok);
  return wrong.some((check) => check.id === 'fact missing')
    ? wrong.filter((check) => check.id !== 'slot left' || !check.says.includes('{personal line}'))
    : wrong;
}

/** What stops whom, most first. */
function failures(read: readonly Read[]): TextTrial['failed'] {
  const by = new Map<string, string[]>();
  for (const { name, composed } of read) for (const check of wrongOf(composed)) by.set(check.id, [...(by.get(check.id) ?? []), name]);
  return [...by].map(([id, names]) => ({ id, n: names.length, names: names.slice(0, NAMES) })).sort((a, b) => b.n - a.n);
}

/** One reader for each wording, kind of fact and kind of failure, then whoever comes next. */
function chosenToDiffer(read: readonly Read[]): readonly Read[] {
  const seen = new Set<string>();
  const kindOf = ({ composed }: Read): string =>
    composed.passed ? `${composed.wording ?? ''} rests on ${composed.factsUsed[0]?.field ?? 'nothing'}` : (wrongOf(composed)[0]?.id ?? '');
  const firstOf = (kind: (reader: Read) => string): readonly Read[] =>
    read.filter((reader) => {
      const own = kind(reader);
      if (seen.has(own)) return false;
      seen.add(own);
      return true;
    });
  const worded = firstOf(({ composed }) => `wording ${composed.wording ?? ''}`);
  const different = [...worded, ...firstOf(kindOf).filter((reader) => !worded.includes(reader))];
  return [...different, ...read.filter((reader) => !different.includes(reader))].slice(0, SHOWN);
}

function shown({ id, name, company, composed }: Read): TextReader {
  const [fact] = composed.factsUsed;
  return {
    id,
    name,
    company,
    subject: composed.subject,
    body: composed.body,
    line: composed.personalLine,
    language: composed.language,
    wording: composed.wording,
    fallback: composed.fallback,
    restsOn: fact ? { field: fact.field, quote: fact.quote ?? null, url: fact.url ?? null, source: fact.source } : null,
    passed: composed.passed,
    wrong: wrongOf(composed).map((check) => ({ id: check.id, says: check.says })),
  };
}
