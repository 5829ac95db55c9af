/**
 * The key that seals secrets and signs links. Promises: a key that does not fit is told before anything is sealed with it, and
 * nothing is written over; when the key changes, what it sealed is sealed anew, and links that went out before still open.
 */
import { randomBytes } from 'node:crypto';
import type { Tx } from '../db';
import { anySent, putSealed, sealedSecrets } from './store/keys';
import { getSetting, putSetting } from '../platform/store/settings';
import { insertAudit } from '../access/store/audit';
import { seal, unseal } from '../platform/seal';
import type { World } from '../platform/world';

const CHECK = 'key check';
const OLD = 'old keys';
const WORDS = 'this was sealed with the key of this workspace';
/** So many keys of before are kept, for links in mails. */
const OLD_MAX = 12;

export type KeyState = 'fits' | 'wrong';

const opens = (secret: string, sealed: string): boolean => {
  try {
    unseal(secret, sealed);
    return true;
  } catch {
    return false;
  }
};

/** Whether the key is the one that this workspace's secrets are sealed with; a workspace without any takes it as its own. */
export async function keyState(world: World): Promise<KeyState> {
  const check = await getSetting(world.db, CHECK);
  if (typeof check === 'string') return opens(world.secret, check) ? 'fits' : 'wrong';
  const sealed = await sealedSecrets(world.db);
  return sealed.every((entry) => opens(world.secret, entry.sealed)) ? 'fits' : 'wrong';
}

/**
 * Makes the key good for this workspace: takes it where none was before, and moves what was sealed with `before` (a key of an
 * earlier installation) to it, once. Gives `wrong`, and changes nothing, when neither fits.
 */
export async function settleKey(world: World, before: string | null): Promise<KeyState | 'moved'> {
  const state = await keyState(world);
  if (state === 'fits') {
    if ((await getSetting(world.db, CHECK)) !== undefined) return state;
    await putSetting(world.db, CHECK, seal(world.secret, WORDS));
    // An installation that had no secret to seal has signed links with its old key all the same.
    if (before !== null && before !== world.secret && (await anySent(world.db)))
      await putSetting(world.db, OLD, [seal(world.secret, before)]);
    return state;
  }
  if (before === null || !(await fitsAll(world.db, before))) return 'wrong';
  await moveKey(world, before, world.secret);
  return 'moved';
}

async function fitsAll(tx: Tx, secret: string): Promise<boolean> {
  const check = await getSetting(tx, CHECK);
  if (typeof check === 'string' && !opens(secret, check)) return false;
  return (await sealedSecrets(tx)).every((entry) => opens(secret, entry.sealed));
}

/** Seals everything anew. All or nothing. */
export async function moveKey(world: World, from: string, to: string): Promise<number> {
  const now = await world.clock.now();
  return world.db.begin(async (tx) => {
    const sealed = await sealedSecrets(tx);
    for (const entry of sealed) await putSealed(tx, { ...entry, sealed: seal(to, unseal(from, entry.sealed)) });
    const old = await oldSecrets(tx, from);
    await putSetting(
      tx,
      OLD,
      [from, ...old].slice(0, OLD_MAX).map((secret) => seal(to, secret)),
    );
    await putSetting(tx, CHECK, seal(to, WORDS));
    await insertAudit(tx, { at: now, userId: null, what: 'changed the key', detail: { secrets: sealed.length } });
    return sealed.length;
  });
}

async function oldSecrets(tx: Tx, secret: string): Promise<readonly string[]> {
  const kept = await getSetting(tx, OLD);
  return Array.isArray(kept)
    ? kept.flatMap((entry) => (typeof entry === 'string' && opens(secret, entry) ? [unseal(secret, entry)] : []))
    : [];
}

/** The key and those before it: what a link may have been signed with. */
export async function signingSecrets(world: World): Promise<readonly string[]> {
  return [world.secret, ...(await oldSecrets(world.db, world.secret))];
}

export const newKey = (): string => randomBytes(32).toString('base64url');
