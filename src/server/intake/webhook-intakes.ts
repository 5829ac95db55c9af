/** Webhooks as doors: an address and a secret of their own, an example received, its values matched to fields. */
import { createHash, randomBytes, timingSafeEqual } from 'node:crypto';
import { z } from 'zod';
import { cleanJson, cleanText, stableId, type Instant, type Json, type JsonObject } from '../../core/base';
import {
  answerName,
  flatten,
  guessPayload,
  payloadMatchingSchema,
  payloadRow,
  planRows,
  readRow,
  type PayloadMatching,
} from '../../core/intake';
import { isSigned } from '../net';
import { putLibrary } from '../flows/store/flows';
import {
  entriesOf,
  findEntry,
  findIntake,
  insertEntry,
  insertIntake,
  intakeAt,
  listIntakes,
  settleEntry,
  updateIntake,
  type EntryRow,
  type IntakeRow,
} from './store/intakes';
import { insertAudit } from '../access/store/audit';
import { loadCatalogue } from '../records/fields';
import { flowsTaking, takeInEntry } from './entries';
import { seal, unseal } from '../platform/seal';
import { reasonOf } from './set-aside-one';
import { BARS, knownFor } from './take-in';
import { found, Refusal, workspace, type Actor, type World } from '../platform/world';

const PAGE = 100;
const UNMATCHED = 'not matched yet: match the example, then bring it again';

const bodySchema = z.object({
  matching: payloadMatchingSchema,
  /** values of the last example received, by path; null before the first */
  sample: z.record(z.string(), z.string()).nullable(),
  /** digest of the token that senders without signatures show */
  tokenHash: z.string(),
});
type Body = z.infer<typeof bodySchema>;

export interface WebhookIntakeView {
  readonly id: string;
  readonly name: string;
  readonly slug: string;
  readonly isOn: boolean;
  readonly lastAt: Instant | null;
  readonly taken: number;
  readonly refused: number;
  readonly matching: PayloadMatching;
  readonly sample: Readonly<Record<string, string>> | null;
  readonly flows: readonly string[];
}

async function viewOf(world: World, row: IntakeRow): Promise<WebhookIntakeView> {
  const { id, name, slug, isOn, lastAt, taken, refused } = row;
  const { matching, sample } = bodySchema.parse(row.body);
  return {
    id,
    name,
    slug,
    isOn,
    lastAt,
    taken,
    refused,
    matching,
    sample,
    flows: (await flowsTaking(world.db, 'webhook', name)).map((flow) => flow.flowName),
  };
}

export async function webhookIntakes(world: World): Promise<readonly WebhookIntakeView[]> {
  return Promise.all((await listIntakes(world.db)).filter((row) => row.kind === 'webhook').map((row) => viewOf(world, row)));
}
export async function webhookIntake(world: World, id: string): Promise<WebhookIntakeView & { readonly entries: readonly EntryRow[] }> {
  return { ...(await viewOf(world, await rowOf(world, id))), entries: await entriesOf(world.db, id, PAGE) };
}
async function rowOf(world: World, id: string): Promise<IntakeRow> {
  const row = found(await findIntake(world.db, id), 'this address');
  if (row.kind !== 'webhook') throw new Refusal('not found', 'this address does not exist');
  return row;
}

const digest = (token: string): string => createHash('sha256').update(token).digest('base64url');

/** Makes an address. Its secret and its token are told this once and never again. */
export async function createWebhookIntake(
  world: World,
  actor: Actor,
  name: string,
): Promise<{ readonly id: string; readonly secret: string; readonly token: string }> {
  const id = world.newId();
  const secret = `whsec_${randomBytes(24).toString('base64')}`;
  const token = randomBytes(24).toString('base64url');
  const body: Body = { matching: [], sample: null, tokenHash: digest(token) };
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    const slug = randomBytes(9).toString('hex');
    const made = await insertIntake(
      tx,
      { id, kind: 'webhook', name, slug, body, secret: seal(world.secret, secret), userId: actor.userId },
      now,
    );
    if (!made) throw new Refusal('conflict', `“${name}” is the name of another intake`);
    await putLibrary(tx, 'intake', name, { kind: 'webhook', name });
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'made a webhook address', detail: { name } });
  });
  return { id, secret, token };
}

/** Keeps the matching; entries that waited for it can be brought again. */
export async function saveWebhookIntake(
  world: World,
  id: string,
  ask: { readonly matching: PayloadMatching; readonly isOn: boolean },
): Promise<WebhookIntakeView> {
  const row = await rowOf(world, id);
  const body = bodySchema.parse(row.body);
  const twice = ask.matching.find(
    ({ target }, i) => target !== 'note' && target !== 'leave out' && ask.matching.findIndex((other) => other.target === target) !== i,
  );
  if (twice) throw new Refusal('not valid', `two values are taken as ${twice.target}: one of them must be left out`);
  await world.db.begin(async (tx) => {
    await updateIntake(tx, id, { body: { ...body, matching: ask.matching }, isOn: ask.isOn });
    await putLibrary(tx, 'intake', row.name, {
      kind: 'webhook',
      name: row.name,
      answers: [...new Set(ask.matching.map(({ path }) => answerName(path)))].map((name) => ({ id: name, type: 'text' })),
    });
  });
  return viewOf(world, await rowOf(world, id));
}

export interface Posted {
  readonly body: string;
  readonly id: string | null;
  readonly seconds: number;
  readonly signatures: string | null;
  readonly token: string | null;
}

/** Takes what somebody posts: signed after Standard Webhooks, or plain JSON with the token. The same id, or without one the same body, is the same entry. */
export async function receiveWebhook(
  world: World,
  slug: string,
  posted: Posted,
): Promise<{ readonly entry: number; readonly taken: boolean; readonly says: string }> {
  const row = await intakeAt(world.db, slug);
  if (row?.kind !== 'webhook' || !row.isOn) throw new Refusal('not found', 'nothing is taken in at this address');
  const body = bodySchema.parse(row.body);
  const now = await world.clock.now();
  if (!isAllowed(world, row, body, posted, now))
    throw new Refusal('not allowed', 'the signature or token does not fit, or the message is older than five minutes');
  const json = parsed(posted.body);
  if (json === undefined) throw new Refusal('not valid', 'the body is no JSON');
  const values = flatten(json);
  if (Object.keys(values).length === 0) throw new Refusal('not valid', 'the body holds no value');
  const key = posted.id === null ? stableId(posted.body) : cleanText(posted.id);
  const id = stableId('entry', row.id, posted.id === null ? posted.body : key);
  const answers = answersOf(values);
  const entry = { id, intakeId: row.id, key, raw: values, answers, state: 'refused' as const };
  try {
    return await keepPosted(world, row, body, entry, now);
  } catch (error) {
    // What cannot be made into a record stays as it came, with its reason: the sender need not send it again, and the next goes on.
    const why = reasonOf(world, error);
    const no = await world.db.begin((tx) => insertEntry(tx, { ...entry, why }, now));
    return { entry: no ?? (await findEntry(world.db, id))?.no ?? 0, taken: false, says: why };
  }
}

async function keepPosted(
  world: World,
  row: IntakeRow,
  body: Body,
  entry: Omit<Parameters<typeof insertEntry>[1], 'why'>,
  now: Instant,
): Promise<{ readonly entry: number; readonly taken: boolean; readonly says: string }> {
  const { id, raw: values, answers } = entry;
  return world.db.begin(async (tx) => {
    const no = await insertEntry(tx, { ...entry, why: UNMATCHED }, now);
    if (no === undefined) return { entry: (await findEntry(tx, id))?.no ?? 0, taken: true, says: 'known already' };
    if (body.matching.length === 0) {
      await updateIntake(tx, row.id, { body: { ...body, sample: values }, isOn: row.isOn });
      return { entry: no, taken: false, says: 'kept as the example' };
    }
    const { personId, why } = await takeInEntry(
      tx,
      { id, no, intake: row, raw: values, answers, ...payloadRow(values, body.matching) },
      now,
    );
    return { entry: no, taken: personId !== null, says: why };
  });
}

function isAllowed(world: World, row: IntakeRow, body: Body, posted: Posted, now: Instant): boolean {
  if (posted.id !== null && posted.signatures !== null && row.secret !== null)
    return isSigned(
      unseal(world.secret, row.secret),
      { id: posted.id, seconds: posted.seconds, body: posted.body, signatures: posted.signatures },
      Math.floor(now / 1000),
    );
  if (posted.token === null) return false;
  const [want, got] = [Buffer.from(body.tokenHash), Buffer.from(digest(posted.token))];
  return want.length === got.length && timingSafeEqual(want, got);
}

function parsed(text: string): Json | undefined {
  try {
    return cleanJson(JSON.parse(text)) as Json;
  } catch {
    return undefined;
  }
}

const answersOf = (values: Readonly<Record<string, string>>): JsonObject =>
  Object.fromEntries(Object.entries(values).map(([path, value]) => [answerName(path), value]));

/** What an example would become, and how its values are matched when nothing is said. Reads only. */
export async function tryWebhook(
  world: World,
  id: string,
  ask: { readonly json: string; readonly matching: PayloadMatching },
): Promise<{
  readonly values: Readonly<Record<string, string>>;
  readonly matching: PayloadMatching;
  readonly becomes: string;
  readonly why: string;
  readonly remarks: readonly string[];
}> {
  await rowOf(world, id);
  const json = parsed(ask.json);
  if (json === undefined) throw new Refusal('not valid', 'this is no JSON: a brace or a quotation mark may be missing');
  const values = flatten(json);
  const fields = await loadCatalogue(world.db);
  const matching = ask.matching.length === 0 ? guessPayload(values, fields) : ask.matching;
  const { cells, columns } = payloadRow(values, matching);
  const { defaultCountry } = await workspace(world.db);
  const reading = readRow(cells, columns, defaultCountry, fields);
  const rows = [{ row: 1, reading }];
  const [plan] = planRows(rows, await knownFor(world.db, id, rows), { importId: id, ...BARS });
  const name = typeof reading.record.person.name === 'string' ? reading.record.person.name : 'nobody';
  return {
    values,
    matching,
    becomes:
      plan?.kind === 'refused' || !plan
        ? 'refused'
        : plan.kind === 'known'
          ? `joins ${plan.otherName ?? 'somebody known'}`
          : `${name}, ${plan.kind}`,
    why: plan?.why ?? '',
    remarks: reading.remarks.map((remark) => `${remark.target}: ${remark.says}`),
  };
}

/** Brings everything refused again under the matching of now. */
export async function bringAgain(world: World, id: string): Promise<{ readonly taken: number; readonly refused: number }> {
  const row = await rowOf(world, id);
  const { matching } = bodySchema.parse(row.body);
  if (matching.length === 0) throw new Refusal('conflict', 'nothing is matched yet');
  const now = await world.clock.now();
  let [taken, refused] = [0, 0];
  for (const entry of (await entriesOf(world.db, id, PAGE)).filter((one) => one.state === 'refused').reverse()) {
    const answers = answersOf(entry.raw);
    const end = await world.db.begin((tx) =>
      takeInEntry(tx, { id: entry.id, no: entry.no, intake: row, raw: entry.raw, answers, ...payloadRow(entry.raw, matching) }, now),
    );
    if (end.personId === null) refused++;
    else taken++;
  }
  return { taken, refused };
}

/** Brings one refused entry again with values mended by hand. */
export async function mendPosted(
  world: World,
  entryId: string,
  raw: Readonly<Record<string, string>>,
): Promise<{ readonly ok: boolean; readonly why: string }> {
  const entry = found(await findEntry(world.db, entryId), 'this entry');
  if (entry.state === 'taken') throw new Refusal('conflict', 'this entry has been taken in already');
  const row = await rowOf(world, entry.intakeId);
  const { matching } = bodySchema.parse(row.body);
  const values = { ...entry.raw, ...raw };
  const now = await world.clock.now();
  const end = await world.db.begin(async (tx) => {
    if (matching.length > 0)
      return takeInEntry(
        tx,
        { id: entry.id, no: entry.no, intake: row, raw: values, answers: answersOf(values), ...payloadRow(values, matching) },
        now,
      );
    await settleEntry(tx, entry.id, { state: 'refused', why: UNMATCHED, personId: null, answers: answersOf(values), raw: values });
    return { personId: null, why: UNMATCHED };
  });
  return { ok: end.personId !== null, why: end.why };
}
