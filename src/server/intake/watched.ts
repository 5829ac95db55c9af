/**
 * Doors that are looked at again and again: mailboxes and calendars. Promises: nothing there is changed; the same mail or meeting
 * is taken in once; a door that cannot be looked at says why and is tried again, ever more rarely.
 */
import type { Instant } from '../../core/base';
import { WATCHED_ANSWERS, watchedSchema, type WatchedSettings } from '../../core/intake';
import { WorldFailure } from '../ports';
import { putLibrary } from '../flows/store/flows';
import {
  claimLook,
  endLook,
  entriesOf,
  filesOf,
  findEntry,
  findIntake,
  insertIntake,
  listIntakes,
  lookSoon,
  putSecret,
  updateIntake,
  type EntryRow,
  type IntakeRow,
  type StoredFile,
} from './store/intakes';
import { LeaseLost } from '../platform/store/lease';
import { insertAudit } from '../access/store/audit';
import { wakeWorkers } from '../platform/store/wake';
import { roleOf } from '../access/access';
import { proofOf } from '../access/grants';
import { lookAtCalendar, meetingEntry, previewCalendar } from './calendar-intakes';
import { flowsTaking, takeInEntry, type Preview } from './entries';
import { lookAtMailbox, mailEntry, previewMailbox } from './mailbox-intakes';
import { seal, unseal } from '../platform/seal';
import { found, Refusal, type Actor, type World } from '../platform/world';

const EVERY_MS = { mailbox: 20_000, calendar: 60_000 } as const;
const AT_MOST_MS = 30 * 60_000;
const LEASE_MS = 120_000;
const PAGE = 100;

export interface WatchedView {
  readonly id: string;
  readonly name: string;
  readonly isOn: boolean;
  readonly lastAt: Instant | null;
  readonly lookedAt: Instant | null;
  readonly problem: string | null;
  readonly taken: number;
  readonly refused: number;
  readonly settings: WatchedSettings;
  readonly flows: readonly string[];
}
export interface WatchedEntry extends EntryRow {
  readonly files: readonly StoredFile[];
}

const isWatched = (row: IntakeRow): boolean => row.kind === 'mailbox' || row.kind === 'calendar';

async function viewOf(world: World, row: IntakeRow): Promise<WatchedView> {
  const { id, name, isOn, lastAt, lookedAt, problem, taken, refused } = row;
  const flows = (await flowsTaking(world.db, row.kind, name)).map((flow) => flow.flowName);
  return { id, name, isOn, lastAt, lookedAt, problem, taken, refused, settings: watchedSchema.parse(row.body), flows };
}
async function rowOf(world: World, id: string): Promise<IntakeRow> {
  const row = found(await findIntake(world.db, id), 'this door');
  if (!isWatched(row)) throw new Refusal('not found', 'this door is no mailbox and no calendar');
  return row;
}

export async function watchedDoors(world: World): Promise<readonly WatchedView[]> {
  return Promise.all((await listIntakes(world.db)).filter(isWatched).map((row) => viewOf(world, row)));
}
export async function watchedDoor(world: World, id: string): Promise<WatchedView & { readonly entries: readonly WatchedEntry[] }> {
  const view = await viewOf(world, await rowOf(world, id));
  const rows = await entriesOf(world.db, id, PAGE);
  const files = await filesOf(
    world.db,
    rows.map((row) => row.id),
  );
  return { ...view, entries: rows.map((row) => ({ ...row, files: files.filter((file) => file.entryId === row.id) })) };
}

/** How flows know such a door. */
export const watchedIntake = (name: string, kind: WatchedSettings['kind']) => ({
  kind,
  name,
  answers: WATCHED_ANSWERS[kind].map((id) => ({ id, type: 'text' as const })),
});

/** Connects a mailbox or calendar; flows can take in from it by its name. It is off until it is switched on. */
export async function createWatched(
  world: World,
  actor: Actor,
  ask: { readonly name: string; readonly settings: WatchedSettings; readonly password: string; readonly isOn: boolean },
): Promise<{ readonly id: string }> {
  await mayConnect(world, actor, undefined, ask.settings);
  const id = world.newId();
  const now = await world.clock.now();
  const { kind } = ask.settings;
  await world.db.begin(async (tx) => {
    const made = await insertIntake(
      tx,
      {
        id,
        kind,
        name: ask.name,
        slug: `${kind}-${id}`,
        body: ask.settings,
        secret: seal(world.secret, ask.password),
        userId: actor.userId,
      },
      now,
    );
    if (!made) throw new Refusal('conflict', `“${ask.name}” is the name of another intake`);
    await updateIntake(tx, id, { body: ask.settings, isOn: ask.isOn });
    if (ask.isOn) await lookSoon(tx, id, false);
    await putLibrary(tx, 'intake', ask.name, watchedIntake(ask.name, kind));
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: `connected a ${kind}`,
      detail: { name: ask.name, at: connectionOf(ask.settings) },
    });
    await wakeWorkers(tx);
  });
  return { id };
}

/** Changes a door; without a password the old one stays. Where it looks elsewhere than before, it begins anew there. */
export async function saveWatched(
  world: World,
  actor: Actor,
  id: string,
  ask: { readonly settings: WatchedSettings; readonly password: string | null; readonly isOn: boolean },
): Promise<WatchedView> {
  const row = await rowOf(world, id);
  if (ask.settings.kind !== row.kind) throw new Refusal('not valid', `this door is a ${row.kind}`);
  const before = watchedSchema.parse(row.body);
  if (ask.password === null) sameConnection(before, ask.settings);
  await mayConnect(world, actor, before, ask.settings);
  await world.db.begin(async (tx) => {
    await updateIntake(tx, id, { body: ask.settings, isOn: ask.isOn });
    if (ask.password !== null) await putSecret(tx, id, seal(world.secret, ask.password));
    await lookSoon(tx, id, placeOf(before) !== placeOf(ask.settings));
    await insertAudit(tx, {
      at: await world.clock.now(),
      userId: actor.userId,
      what: ask.isOn ? `changed a ${row.kind}` : `switched a ${row.kind} off`,
      detail: {
        name: row.name,
        at: connectionOf(ask.settings),
        ...(connectionOf(before) !== connectionOf(ask.settings) && { before: connectionOf(before) }),
        ...(ask.password !== null && { password: 'changed' }),
      },
    });
    await wakeWorkers(tx);
  });
  return viewOf(world, await rowOf(world, id));
}

/** What a password was stored for: host, port and protocol. */
function connectionOf(settings: WatchedSettings): string {
  if (settings.kind === 'mailbox')
    return `${settings.host.toLowerCase()}:${settings.port}, ${settings.secure ? 'TLS' : 'no TLS'}, ${settings.user}${settings.service === null ? '' : ` by ${settings.service}`}`;
  return URL.canParse(settings.url) ? `${new URL(settings.url).origin}, ${settings.user}` : settings.url;
}

/**
 * A server in our own network, and one that is shown the token of a sign-in service, is let in by the owner, for the connection it is
 * said for; who changes that connection is the owner again.
 */
async function mayConnect(world: World, actor: Actor, before: WatchedSettings | undefined, after: WatchedSettings): Promise<void> {
  const shownToken = after.kind === 'mailbox' && after.service !== null;
  if (!after.privateNetwork && !shownToken) return;
  const isSame = before !== undefined && connectionOf(before) === connectionOf(after);
  if (isSame && (before.privateNetwork || !after.privateNetwork)) return;
  if (actor.userId !== null && (await roleOf(world, actor.userId)) === 'owner') return;
  throw new Refusal(
    'not allowed',
    after.privateNetwork
      ? 'a server in our own network is let in by the owner only'
      : 'which server a mailbox of a sign-in service is opened at is said by the owner only',
  );
}

/** A stored password goes nowhere but where it was stored for; a sign-in service is asked for the account that is meant. */
function sameConnection(before: WatchedSettings, after: WatchedSettings): void {
  if (after.kind === 'mailbox' && after.service !== null) return;
  if (connectionOf(before) !== connectionOf(after))
    throw new Refusal('not valid', `the password was kept for ${connectionOf(before)}: type it again for ${connectionOf(after)}`);
}

const passwordOf = (world: World, sealed: string | null): string => (sealed === null ? '' : unseal(world.secret, sealed));
const placeOf = (settings: WatchedSettings): string =>
  settings.kind === 'mailbox' ? `${settings.user} ${settings.host} ${settings.port} ${settings.rule.folder}` : settings.url;

/** Has a door looked at now instead of at its time. */
export async function lookNow(world: World, id: string): Promise<WatchedView> {
  const row = await rowOf(world, id);
  if (!row.isOn) throw new Refusal('conflict', 'this door is off');
  await lookSoon(world.db, id, false);
  await wakeWorkers(world.db);
  return viewOf(world, row);
}

/** Looks with these settings and keeps nothing: what is there, and what would become of each. */
export async function previewWatched(
  world: World,
  actor: Actor,
  ask: { readonly id: string | null; readonly settings: WatchedSettings; readonly password: string | null },
): Promise<readonly Preview[]> {
  const row = ask.id === null ? undefined : await rowOf(world, ask.id);
  await mayConnect(world, actor, row && watchedSchema.parse(row.body), ask.settings);
  if (row && ask.password === null) sameConnection(watchedSchema.parse(row.body), ask.settings);
  const secret = ask.password === null ? (row?.secret ?? null) : seal(world.secret, ask.password);
  try {
    return ask.settings.kind === 'mailbox'
      ? await previewMailbox(world, ask.settings, await proofOf(world, ask.settings, secret))
      : await previewCalendar(world, ask.settings, passwordOf(world, secret));
  } catch (error) {
    if (error instanceof WorldFailure) throw new Refusal('conflict', error.message);
    throw error;
  }
}

/** Looks at a door that is due. Returns how many new things there were. */
export async function lookAtDoors(world: World): Promise<number> {
  const now = await world.clock.now();
  const row = await claimLook(world.db, now, LEASE_MS);
  if (!row) return 0;
  const settings = watchedSchema.parse(row.body);
  const end = { everyMs: EVERY_MS[settings.kind], maxMs: AT_MOST_MS };
  try {
    const look =
      settings.kind === 'mailbox'
        ? await lookAtMailbox(world, row, settings, await proofOf(world, settings, row.secret))
        : await lookAtCalendar(world, row, settings, passwordOf(world, row.secret));
    await endLook(
      world.db,
      row,
      { ...end, cursor: look.cursor, nextAt: look.nextAt, problem: null, ...(look.more && { everyMs: 0 }) },
      now,
    );
    return look.fresh;
  } catch (error) {
    if (error instanceof LeaseLost) throw error;
    if (!(error instanceof WorldFailure)) world.log.error('a door broke', { door: row.id, error: String(error) });
    const problem = error instanceof WorldFailure ? error.message : 'something broke inside Millrace';
    await endLook(world.db, row, { ...end, cursor: null, nextAt: null, problem }, now);
    return 0;
  }
}

/** Brings a refused entry again with name or address mended. */
export async function mendArrival(
  world: World,
  entryId: string,
  raw: Readonly<Record<string, string>>,
): Promise<{ readonly ok: boolean; readonly why: string }> {
  const entry = found(await findEntry(world.db, entryId), 'this entry');
  if (entry.state === 'taken') throw new Refusal('conflict', 'this entry has been taken in already');
  const intake = await rowOf(world, entry.intakeId);
  const mended = { ...entry.raw, ...raw };
  const row = intake.kind === 'mailbox' ? mailEntry(mended) : meetingEntry(mended);
  const now = await world.clock.now();
  const answers = { ...entry.answers, ...row.answers };
  const end = await world.db.begin((tx) => takeInEntry(tx, { ...row, id: entry.id, no: entry.no, intake, raw: mended, answers }, now));
  return { ok: end.personId !== null, why: end.why };
}
