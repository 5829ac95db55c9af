/**
 * Lookup services described by data. Promises: a key is kept sealed, shown to nobody, and kept for the protocol, host and port it was typed for; a description is tried
 * on one record before it is kept, for nothing. Refuses: removing one that a chain asks.
 */
import { z } from 'zod';
import type { ProviderTrial, ProviderView } from '../../api';
import {
  answerIn,
  callFor,
  placesIn,
  providerProblems,
  providerSchema,
  usable,
  type LookupQuestion,
  type Provider,
  type ProviderCall,
} from '../../core/lookup';
import { companySite } from '../../core/match';
import { WorldFailure } from '../ports';
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

/** Protocol, host and port: what a key is given for. */
const doorOf = (provider: Provider): string => /^https?:\/\/[^/?#]*/i.exec(provider.url)?.[0].toLowerCase() ?? '';

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
    const moved = was !== undefined && doorOf(was) !== doorOf(ask.provider);
    const secret = ask.secret === undefined ? (moved ? null : undefined) : ask.secret === '' ? null : seal(world.secret, ask.secret);
    await putProvider(tx, { name: ask.provider.name, body: ask.provider, ...(secret !== undefined && { secret }) }, now);
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: before ? 'changed a lookup connection' : 'described a lookup connection',
      detail: { name: ask.provider.name, host: doorOf(ask.provider) },
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

/** The call of a described provider for a question; undefined: nothing describes it. */
export async function describedCall(
  world: World,
  tx: Tx,
  name: string,
  question: LookupQuestion,
): Promise<{ readonly provider: Provider; readonly call: ProviderCall } | undefined> {
  const row = await findProvider(tx, name);
  const provider = row && described(row);
  if (!row || !provider) return undefined;
  return { provider, call: callFor(provider, question, row.secret === null ? '' : unseal(world.secret, row.secret)) };
}

const SHOWN = 6_000;

/** Asks a description about one person, without keeping it and without writing what comes back; the ledger of spending is not touched. */
export async function tryProvider(
  world: World,
  ask: { readonly provider: Provider; readonly secret?: string | undefined; readonly who: string },
): Promise<ProviderTrial> {
  refuseProblems({ ...ask.provider, value: ask.provider.value === '' ? '/' : ask.provider.value });
  const [person] = await pagePeople(world.db, { search: ask.who, before: null, limit: 1 });
  if (!person) throw new Refusal('not found', `nobody on record is called “${ask.who}”`);
  const [whole, company] = await Promise.all([
    findPerson(world.db, person.id),
    person.companyId ? findCompany(world.db, person.companyId) : undefined,
  ]);
  const host = companySite(company?.website ?? null);
  const question = { field: 'email', personName: whole?.name ?? person.name, companyName: company?.name ?? null, host };
  const kept = await findProvider(world.db, ask.provider.name);
  const keptHere =
    kept?.secret != null && doorOf(described(kept) ?? ask.provider) === doorOf(ask.provider) ? unseal(world.secret, kept.secret) : '';
  const call = callFor(ask.provider, question, ask.secret ?? keptHere);
  const now = await world.clock.now();
  const about = { person: question.personName, asks: `${call.method} ${withoutSecret(call.url, ask.secret ?? keptHere)}` };
  try {
    const answer = await world.providers.call(ask.provider.name, call);
    const { value, confidence } = answerIn(ask.provider, answer);
    const verdict = value === null ? null : usable({ value, personName: question.personName, companyHost: host, confidence });
    const says = value === null ? 'it answered, and knows no address' : `${value}: ${verdict?.why ?? ''}`;
    await putProviderCheck(world.db, ask.provider.name, { ok: true, says, at: now });
    return {
      ...about,
      ok: true,
      says,
      value,
      confidence,
      answer: JSON.stringify(answer, null, 1).slice(0, SHOWN),
      places: [...placesIn(answer)],
    };
  } catch (error) {
    if (!(error instanceof WorldFailure)) throw error;
    await putProviderCheck(world.db, ask.provider.name, { ok: false, says: error.message, at: now });
    return { ...about, ok: false, says: error.message, value: null, confidence: 0, answer: null, places: [] };
  }
}
const withoutSecret = (text: string, secret: string): string => (secret === '' ? text : text.replaceAll(encodeURIComponent(secret), '…'));
