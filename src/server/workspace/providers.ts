/**
 * Lookup services described by data. Promises: a key is kept sealed, shown to nobody, and kept for the protocol, host and port it was typed for; a description is tried
 * on one record before it is kept, for nothing. Refuses: removing one that a chain asks.
 */
import { setTimeout as sleep } from 'node:timers/promises';
import { z } from 'zod';
import type { ProviderTrial, ProviderView } from '../../api';
import {
  answerIn,
  beginning,
  doorOf,
  isPointedAt,
  lookupValues,
  nextCall,
  placesIn,
  providerProblems,
  providerSchema,
  searchValues,
  usable,
  type Provider,
  type SlotValues,
} from '../../core/lookup';
import { plural } from '../../core/base';
import { companySite } from '../../core/match';
import { WorldFailure } from '../ports';
import { hitsIn } from '../../core/intake';
import { askService, type Answered, type Service } from './ask-service';
import { dropProvider, findProvider, listProviders, putProvider, putProviderCheck, type ProviderRow } from './store/providers';
import { findCompany, findPerson, pagePeople } from '../records/store/records';
import { insertAudit } from '../access/store/audit';
import type { Tx } from '../db';
import { loadLibrary } from '../flows/library';
import { seal, unseal } from '../platform/seal';
import { found, Refusal, type Actor, type World } from '../platform/world';

const checkedSchema = z.object({ ok: z.boolean(), says: z.string(), at: z.number() }).nullable().catch(null);

function described(row: ProviderRow): Provider | undefined {
  return providerSchema.safeParse(row.body).data;
}

export async function providers(world: World): Promise<readonly ProviderView[]> {
  const [rows, { chains }] = await Promise.all([listProviders(world.db), loadLibrary(world.db)]);
  return rows.flatMap((row): ProviderView[] => {
    const provider = described(row);
    if (!provider) return [];
    const checked = checkedSchema.parse(row.checked);
    const usedBy = chains.filter((chain) => chain.providers.some((entry) => entry.name === row.name)).map((chain) => chain.name);
    return [{ provider, hasSecret: row.secret !== null, usedBy, checked }];
  });
}

/** Services that find people or companies, with what a page of answers costs. */
export const searchServices = async (world: World): Promise<readonly Pick<Provider, 'name' | 'priceMicro'>[]> =>
  (await listProviders(world.db)).flatMap((row) => {
    const provider = described(row);
    return provider?.finds === 'records' ? [{ name: row.name, priceMicro: provider.priceMicro }] : [];
  });

function refuseProblems(provider: Provider): void {
  const problems = providerProblems(provider);
  const [first] = problems;
  if (first) throw new Refusal('not valid', first.says, { problems });
}

/** Keeps a description. A key that is not typed again stays, unless the host is another one: it was given for that host. */
export async function keepProvider(
  world: World,
  actor: Actor,
  ask: { readonly provider: Provider; readonly secret?: string | undefined },
): Promise<readonly ProviderView[]> {
  refuseProblems(ask.provider);
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    const before = await findProvider(tx, ask.provider.name);
    const was = before && described(before);
    const moved = was !== undefined && doorOf(was.url) !== doorOf(ask.provider.url);
    const secret = ask.secret === undefined ? (moved ? null : undefined) : ask.secret === '' ? null : seal(world.secret, ask.secret);
    await putProvider(tx, { name: ask.provider.name, body: ask.provider, ...(secret !== undefined && { secret }) }, now);
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: before ? 'changed a lookup connection' : 'described a lookup connection',
      detail: { name: ask.provider.name, host: doorOf(ask.provider.url) },
    });
  });
  return providers(world);
}

export async function removeProvider(world: World, actor: Actor, name: string): Promise<readonly ProviderView[]> {
  const view = (await providers(world)).find((entry) => entry.provider.name === name);
  if (view && view.usedBy.length > 0)
    throw new Refusal('conflict', `${view.usedBy.map((chain) => `“${chain}”`).join(', ')} asks it: take it out there first`);
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    found((await dropProvider(tx, name)) || undefined, 'this connection');
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'removed a lookup connection', detail: { name } });
  });
  return providers(world);
}

/** A service as it is described, with its key; undefined: nothing describes it. */
export async function describedService(world: World, tx: Tx, name: string): Promise<Service | undefined> {
  const row = await findProvider(tx, name);
  const provider = row && described(row);
  return row && provider && { provider, secret: row.secret === null ? '' : unseal(world.secret, row.secret) };
}

const SHOWN = 6_000;
/** So long is an answer waited for that comes later. */
const WAITED_MS = 12_000;

interface TrialAsk {
  readonly provider: Provider;
  readonly secret?: string | undefined;
  /** a person on record; of a service that finds records, the words to find them by */
  readonly who: string;
}
/** Asks a description about one person, without keeping it and without writing what comes back; the ledger of spending is not touched. */
export async function tryProvider(world: World, ask: TrialAsk): Promise<ProviderTrial> {
  // Where things stand in the answer is pointed at in what comes back: what is missing of it does not stop the asking.
  const stops = providerProblems(ask.provider).filter((problem) => !isPointedAt(problem));
  if (stops[0]) throw new Refusal('not valid', stops[0].says, { problems: stops });
  const about = ask.provider.finds === 'records' ? aboutWords(ask) : await aboutPerson(world, ask);
  const service = { provider: ask.provider, secret: ask.secret ?? (await keptSecret(world, ask.provider)) };
  const now = await world.clock.now();
  const { method, url } = nextCall(ask.provider, { values: about.values, secret: service.secret }, beginning(now));
  const shown = { person: about.name, asks: `${method} ${withoutSecret(url, service.secret)}` };
  try {
    const came = await askedOnce(world, service, about.values);
    const { says, value, confidence } = about.judge(came);
    await putProviderCheck(world.db, ask.provider.name, { ok: came.kind !== 'failed', says, at: now });
    return {
      ...shown,
      ok: came.kind !== 'failed',
      says,
      value,
      confidence,
      collected: came.kind === 'page',
      answer: JSON.stringify(came.answer, null, 1).slice(0, SHOWN),
      places: [...placesIn(came.answer)],
    };
  } catch (error) {
    if (!(error instanceof WorldFailure)) throw error;
    await putProviderCheck(world.db, ask.provider.name, { ok: false, says: error.message, at: now });
    return { ...shown, ok: false, says: error.message, value: null, confidence: 0, collected: false, answer: null, places: [] };
  }
}
const withoutSecret = (text: string, secret: string): string => (secret === '' ? text : text.replaceAll(encodeURIComponent(secret), '…'));

/** The kept key, where the description still goes to the host it was given for. */
async function keptSecret(world: World, provider: Provider): Promise<string> {
  const kept = await findProvider(world.db, provider.name);
  const door = doorOf((kept && described(kept))?.url ?? provider.url);
  return kept?.secret != null && door === doorOf(provider.url) ? unseal(world.secret, kept.secret) : '';
}

/** The first page of an answer; of one that comes later, as far as it is when we stop waiting. */
async function askedOnce(world: World, service: Service, values: SlotValues): Promise<Answered> {
  const until = performance.now() + WAITED_MS;
  let last: Answered | undefined;
  for await (const came of askService(world, service, { values })) {
    last = came;
    if (came.kind !== 'wait' || service.provider.later?.url === '' || performance.now() + came.ms > until) break;
    await sleep(came.ms);
  }
  return last ?? { kind: 'failed', says: 'nothing came back', answer: null };
}

interface Judged {
  readonly says: string;
  readonly value: string | null;
  readonly confidence: number;
}
interface About {
  readonly name: string;
  readonly values: SlotValues;
  readonly judge: (came: Answered) => Judged;
}
const notThere = (came: Answered): Judged => ({
  says: came.kind === 'failed' ? came.says : 'it has not answered yet: what it says so far is below',
  value: null,
  confidence: 0,
});

async function aboutPerson(world: World, { provider, who }: TrialAsk): Promise<About> {
  const [person] = await pagePeople(world.db, { search: who, before: null, limit: 1 });
  if (!person) throw new Refusal('not found', `nobody on record is called “${who}”`);
  const [whole, company] = await Promise.all([
    findPerson(world.db, person.id),
    person.companyId ? findCompany(world.db, person.companyId) : undefined,
  ]);
  const host = companySite(company?.website ?? null);
  const name = whole?.name ?? person.name;
  const judge = (came: Answered): Judged => {
    if (came.kind !== 'page') return notThere(came);
    const answers = came.entries
      .map((entry) => answerIn(provider, entry))
      .flatMap(({ value, confidence }) => (value === null ? [] : [{ value, confidence }]));
    const verdicts = answers.map((answer) => ({ ...answer, verdict: usable({ ...answer, personName: name, companyHost: host }) }));
    const best = verdicts.find(({ verdict }) => verdict.ok) ?? verdicts[0];
    if (!best) return { says: 'it answered, and knows no address', value: null, confidence: 0 };
    const of = verdicts.length > 1 ? `, of ${verdicts.length} in the list` : '';
    return { says: `${best.value}: ${best.verdict.why}${of}`, value: best.value, confidence: best.confidence };
  };
  return { name, values: lookupValues({ field: 'email', personName: name, companyName: company?.name ?? null, host }), judge };
}

function aboutWords({ provider, who }: TrialAsk): About {
  const judge = (came: Answered): Judged => {
    if (came.kind !== 'page') return notThere(came);
    const hits = hitsIn(provider, came.entries);
    const [first] = hits;
    const says = first ? `${plural(hits.length, 'entry', 'entries')}; the first is ${first.name}` : 'it answered, and no entry has a name';
    return { says, value: first?.name ?? null, confidence: 1 };
  };
  return { name: who, values: searchValues({ words: who, title: '', place: '', country: '' }), judge };
}
