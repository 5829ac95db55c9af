/**
 * What the domain of a mailbox says of its mails, and a key of its own to sign them with. Promises: the private half is kept sealed and
 * leaves nowhere; nothing is signed before the domain knows the key.
 */
import { generateKeyPair, randomBytes } from 'node:crypto';
import { promisify } from 'node:util';
import { z } from 'zod';
import { domainLines, domainLineSchema, domainOf, keyRecord, type DomainLine } from '../../core/sending';
import type { Instant } from '../../core/base';
import type { Signer } from '../ports';
import { insertAudit } from '../access/store/audit';
import { seal, unseal } from '../platform/seal';
import { found, type Actor, type World } from '../platform/world';
import {
  dropSigningKey as forgetKey,
  mailboxRoutes,
  noteKeyKnown,
  putDomainSeen,
  putSigningKey,
  type KeyRow,
  type RouteRow,
} from './store/mailboxes';

const seenSchema = z.object({ at: z.number(), lines: z.array(domainLineSchema) });

export interface DomainView {
  /** null: never looked at */
  readonly seen: { readonly at: Instant; readonly lines: readonly DomainLine[] } | null;
  /** null: Millrace signs nothing */
  readonly key: {
    readonly selector: string;
    readonly known: boolean;
    readonly record: { readonly name: string; readonly text: string };
  } | null;
}
export function domainView(row: RouteRow | undefined): DomainView {
  const key = row?.key ?? null;
  return {
    seen: seenSchema.safeParse(row?.domainSeen).data ?? null,
    key: row && key ? { selector: key.selector, known: key.known, record: keyRecord(domainOf(row.address), key) } : null,
  };
}

const rowOf = async (world: World, name: string): Promise<RouteRow> =>
  found(
    (await mailboxRoutes(world.db)).find((row) => row.name === name),
    `the mailbox “${name}”`,
  );

const signerIn = (world: World, { address }: RouteRow, key: KeyRow): Signer => ({
  domain: domainOf(address),
  selector: key.selector,
  privateKey: unseal(world.secret, key.secret),
});
/** What signs a mailbox's mails: a key that its domain knows; null: nothing. */
export const signerOf = (world: World, row: RouteRow | undefined): Signer | null =>
  row?.key?.known === true ? signerIn(world, row, row.key) : null;

/** A key for a mailbox; one of before is gone. */
export async function makeSigningKey(world: World, actor: Actor, name: string): Promise<void> {
  const row = await rowOf(world, name);
  const pair = await promisify(generateKeyPair)('rsa', {
    modulusLength: 2048,
    publicKeyEncoding: { type: 'spki', format: 'der' },
    privateKeyEncoding: { type: 'pkcs8', format: 'pem' },
  });
  const key = { selector: `mr${randomBytes(3).toString('hex')}`, publicKey: pair.publicKey.toString('base64'), known: false };
  await world.db.begin(async (tx) => {
    await putSigningKey(tx, row.name, { ...key, secret: seal(world.secret, pair.privateKey) });
    await audit(world, actor, tx, 'made a key to sign with', { mailbox: name, selector: key.selector });
  });
}
export async function dropSigningKey(world: World, actor: Actor, name: string): Promise<void> {
  const row = await rowOf(world, name);
  const key = found(row.key ?? undefined, 'a key of this mailbox');
  await world.db.begin(async (tx) => {
    await forgetKey(tx, row.name);
    await audit(world, actor, tx, 'threw a key to sign with away', { mailbox: name, selector: key.selector });
  });
}
const audit = async (
  world: World,
  actor: Actor,
  tx: Parameters<typeof insertAudit>[0],
  what: string,
  detail: Readonly<Record<string, string>>,
) => insertAudit(tx, { at: await world.clock.now(), userId: actor.userId, what, detail });

/** Looks at a letter of the mailbox as a reader's server would, and keeps what was found; a key that the domain knows is used from now on. */
export async function lookAtDomain(
  world: World,
  name: string,
  from: { readonly host: string | null; readonly letter: (signer: Signer | null) => Promise<Uint8Array> },
): Promise<void> {
  const row = await rowOf(world, name);
  const { key } = row;
  const raw = await from.letter(key && signerIn(world, row, key));
  const facts = await world.mail.prove(raw, row.address, from.host).catch((error: unknown) => {
    // What a domain says is advice: a mailbox is checked without it.
    world.log.warn('a domain could not be looked at', { mailbox: name, error: String(error) });
    return undefined;
  });
  if (facts === undefined) return;
  await putDomainSeen(world.db, name, { at: await world.clock.now(), lines: domainLines(facts, key) });
  if (key && facts.dkim !== 'temperror') await noteKeyKnown(world.db, name, key.selector, facts.dkim === 'pass');
}
