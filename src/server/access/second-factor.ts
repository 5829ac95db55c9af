/**
 * A second factor: codes of six figures that a phone makes every half-minute (RFC 6238), and codes on paper for the day it is lost.
 * Promises: no code is taken twice; the secret is kept sealed and shown only while it is set up; recovery codes are kept as digests.
 */
import { randomBytes } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';
import QRCode from 'qrcode';
import type { Answer } from '../../api';
import { digest } from './digest';
import { insertAudit } from './store/audit';
import { beginFactor, confirmFactor, endFactor, findFactor, realNow, takeRecovery, takeStep } from './store/second-factor';
import { roleOfUser, userById } from './store/access';
import { getSetting, putSetting } from '../platform/store/settings';
import { seal, unseal } from '../platform/seal';
import { found, Refusal, workspace, type World } from '../platform/world';
import type { Tx } from '../db';

const PERIOD_SECONDS = 30;
/** Clocks of phones may be a half-minute off. */
const WINDOW = 1;
const RECOVERY_CODES = 10;
const REQUIRED = 'second factor required';

type FactorView = Answer<'getSecondFactor'>;
/** Somebody signed in. */
interface Self {
  readonly userId: string;
  readonly name: string;
}

const totp = (secret: string, label = '', issuer = ''): TOTP =>
  new TOTP({ secret: Secret.fromBase32(secret), period: PERIOD_SECONDS, digits: 6, algorithm: 'SHA1', label, issuer });

export async function factorView(world: World, actor: Self): Promise<FactorView> {
  const row = await findFactor(world.db, actor.userId);
  return {
    since: row?.confirmedAt ?? null,
    recoveryLeft: row?.confirmedAt == null ? 0 : row.recoveryLeft,
    required: await isRequired(world.db),
  };
}
const isRequired = async (tx: Tx): Promise<boolean> => (await getSetting(tx, REQUIRED)) === true;

/** A new secret, as a picture for a phone and in letters; nothing is asked for it until a code has been shown. */
export async function beginSecondFactor(world: World, actor: Self): Promise<Answer<'beginSecondFactor'>> {
  const secret = new Secret({ size: 20 }).base32;
  const { email } = found(await userById(world.db, actor.userId), 'this account');
  if (!(await beginFactor(world.db, actor.userId, seal(world.secret, secret))))
    throw new Refusal('conflict', 'a second factor is in use already: switch it off before another is set up');
  const uri = totp(secret, email, (await workspace(world.db)).name).toString();
  return { picture: await QRCode.toString(uri, { type: 'svg', margin: 1 }), key: secret.replace(/(.{4})(?=.)/g, '$1 ') };
}

/** Takes it into use with the first code; gives the recovery codes, once. */
export async function confirmSecondFactor(world: World, actor: Self, code: string): Promise<Answer<'confirmSecondFactor'>> {
  const row = await findFactor(world.db, actor.userId);
  if (!row) throw new Refusal('conflict', 'nothing is being set up: begin first');
  if (row.confirmedAt !== null) throw new Refusal('conflict', 'the second factor is in use already');
  if (!(await fits(world, actor.userId, row.secret, code)))
    throw new Refusal('not valid', 'this is not the code of this moment: look at the phone again, and at its clock');
  return { ...(await renewed(world, actor, 'took a second factor into use')), view: await factorView(world, actor) };
}

/** New recovery codes; those of before are void. */
export async function renewRecoveryCodes(world: World, actor: Self, code: string): Promise<Answer<'renewRecoveryCodes'>> {
  await mustFit(world, actor, code);
  return { ...(await renewed(world, actor, 'made new recovery codes')), view: await factorView(world, actor) };
}

async function renewed(world: World, actor: Self, what: string): Promise<{ readonly codes: readonly string[] }> {
  const codes = Array.from({ length: RECOVERY_CODES }, () => {
    const letters = new Secret({ buffer: new Uint8Array(randomBytes(10)).buffer }).base32.toLowerCase();
    return `${letters.slice(0, 8)}-${letters.slice(8)}`;
  });
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    await confirmFactor(
      tx,
      actor.userId,
      codes.map((code) => digest(plain(code))),
    );
    await insertAudit(tx, { at: now, userId: actor.userId, what, detail: {} });
  });
  return { codes };
}

/** Switches one's own off; it takes a code. */
export async function endSecondFactor(world: World, actor: Self, code: string): Promise<FactorView> {
  await mustFit(world, actor, code);
  await end(world, actor, actor.userId, 'switched off the second factor');
  return factorView(world, actor);
}

/** An owner takes away that of somebody whose phone and codes are lost. */
export async function endFactorOf(world: World, actor: Self, userId: string): Promise<void> {
  found(await roleOfUser(world.db, userId), 'this colleague');
  await end(world, actor, userId, 'took away somebody’s second factor');
}

async function end(world: World, actor: Self, userId: string, what: string): Promise<void> {
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    if (!(await endFactor(tx, userId))) throw new Refusal('conflict', 'there is no second factor');
    await insertAudit(tx, { at: now, userId: actor.userId, what, detail: userId === actor.userId ? {} : { userId } });
  });
}

/** Whether everybody needs one. Who asks for it has one: nobody locks themselves out. */
export async function requireSecondFactor(world: World, actor: Self, required: boolean): Promise<FactorView> {
  const own = await factorView(world, actor);
  if (required && own.since === null)
    throw new Refusal('conflict', 'set up your own second factor first: you would be the first without one');
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    await putSetting(tx, REQUIRED, required);
    const what = required ? 'asked everybody for a second factor' : 'left the second factor to everybody';
    await insertAudit(tx, { at: now, userId: actor.userId, what, detail: {} });
  });
  return { ...own, required };
}

const plain = (code: string): string => code.toLowerCase().replace(/[^a-z0-9]/g, '');

async function mustFit(world: World, actor: Self, code: string): Promise<void> {
  const how = await checkCode(world, actor.userId, code);
  if (how === 'none') throw new Refusal('conflict', 'there is no second factor');
  if (how === 'wrong') throw new Refusal('not valid', 'this is neither the code of this moment nor a recovery code');
}

/** Takes a code of somebody's second factor, or a recovery code; `none`: they have no factor. */
export async function checkCode(world: World, userId: string, code: string): Promise<'none' | 'right' | 'recovery' | 'wrong'> {
  const row = await findFactor(world.db, userId);
  if (row?.confirmedAt == null) return 'none';
  if (await fits(world, userId, row.secret, code)) return 'right';
  return (await takeRecovery(world.db, userId, digest(plain(code)))) ? 'recovery' : 'wrong';
}

async function fits(world: World, userId: string, sealed: string, code: string): Promise<boolean> {
  const at = await realNow(world.db);
  const off = totp(unseal(world.secret, sealed)).validate({ token: code.replace(/\s/g, ''), window: WINDOW, timestamp: at });
  if (off === null) return false;
  return takeStep(world.db, userId, Math.floor(at / 1000 / PERIOD_SECONDS) + off);
}
