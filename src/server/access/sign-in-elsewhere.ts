/**
 * Signing in at a service and coming back. Promises: what began in one browser ends there, within ten minutes; somebody is let in by
 * an address only where the service says that it is theirs, and after that by what the service knows them by.
 */
import { z } from 'zod';
import { scopesOf, type RefusalKey } from '../../core/sign-in';
import { seal, unseal } from '../platform/seal';
import type { Actor, World } from '../platform/world';
import { WorldFailure } from '../ports';
import { openSession, type OpenedSession } from './access';
import { keepGrant } from './grants';
import { backTo, serviceOf, signInServices } from './sign-in-services';
import { userByEmail } from './store/access';
import { insertAudit } from './store/audit';
import { linkedUser, putLink } from './store/sign-in';

export const UNDERWAY_SECONDS = 600;
const underwaySchema = z.object({
  service: z.string(),
  /** null: a person comes in; else the mailbox that is signed in, and who does it */
  mailbox: z.object({ account: z.string(), by: z.string() }).nullable(),
  state: z.string(),
  nonce: z.string(),
  verifier: z.string(),
  until: z.number(),
});

/** Real time, whatever the demo's clock says: a browser keeps what it was given by the real one. */
const realNow = (): number => performance.timeOrigin + performance.now();

/** Why somebody stays outside; its words are in the core. */
export class NotLetIn extends Error {
  constructor(readonly why: RefusalKey) {
    super(why);
  }
}

/** Where somebody is sent, and what their browser keeps meanwhile, sealed. */
export async function beginElsewhere(
  world: World,
  ask: { readonly service: string; readonly mailbox: { readonly account: string; readonly by: string } | null },
): Promise<{ readonly url: string; readonly kept: string }> {
  const known = await serviceOf(world, ask.service);
  if (!known) throw new NotLetIn('gone');
  const { service, server } = known;
  const scopes = ask.mailbox === null ? [] : scopesOf(service);
  if (ask.mailbox === null ? !service.forPeople : scopes.length === 0) throw new NotLetIn('gone');
  try {
    const account = ask.mailbox?.account ?? null;
    const { url, underway } = await world.signIns.begin(server, { backTo: backTo(world), scopes, account });
    const kept = { service: ask.service, mailbox: ask.mailbox, ...underway, until: realNow() + UNDERWAY_SECONDS * 1000 };
    return { url, kept: seal(world.secret, JSON.stringify(kept)) };
  } catch (error) {
    if (error instanceof WorldFailure) throw new NotLetIn('away');
    throw error;
  }
}

/** What was kept, when it is ours and still good. */
function underwayOf(world: World, kept: string | undefined): z.infer<typeof underwaySchema> {
  try {
    const read = underwaySchema.parse(JSON.parse(unseal(world.secret, kept ?? '')));
    if (read.until > realNow()) return read;
  } catch {
    // Sealed by nobody here, or cut: the same as too late.
  }
  throw new NotLetIn('late');
}

export type EndedElsewhere =
  | { readonly kind: 'person'; readonly session: OpenedSession }
  | { readonly kind: 'mailbox'; readonly account: string; readonly wanted: string };

/** Somebody came back; `by` is who is signed in here in that browser. Throws `NotLetIn`. */
export async function endElsewhere(
  world: World,
  ask: { readonly kept: string | undefined; readonly search: string; readonly by: Actor | undefined; readonly address: string },
): Promise<EndedElsewhere> {
  const underway = underwayOf(world, ask.kept);
  const known = await serviceOf(world, underway.service);
  if (!known) throw new NotLetIn('gone');
  const back = await world.signIns.end(known.server, { url: `${backTo(world)}${ask.search}`, underway }).catch((error: unknown): never => {
    if (error instanceof WorldFailure) throw new NotLetIn(error.code === 'unreachable' ? 'away' : 'declined');
    throw error;
  });
  const { service, mailbox } = underway;
  if (mailbox === null) return { kind: 'person', session: await letIn(world, service, back, ask.address) };
  if (ask.by?.userId !== mailbox.by) throw new NotLetIn('late');
  const account = back.email ?? mailbox.account.toLowerCase();
  await keepGrant(world, { service, account }, back.tokens);
  await insertAudit(world.db, {
    at: await world.clock.now(),
    userId: mailbox.by,
    what: 'signed a mailbox in',
    detail: { account, at: service },
  });
  return { kind: 'mailbox', account, wanted: mailbox.account.toLowerCase() };
}

async function letIn(
  world: World,
  service: string,
  who: { readonly subject: string; readonly email: string | null; readonly emailVerified: boolean },
  address: string,
): Promise<OpenedSession> {
  const linked = await linkedUser(world.db, service, who.subject);
  if (linked) return openSession(world, linked, { from: address, by: service });
  if (who.email === null || !who.emailVerified) throw new NotLetIn('unproven');
  const user = await userByEmail(world.db, who.email);
  if (!user) throw new NotLetIn('nobody');
  await putLink(world.db, { service, subject: who.subject, userId: user.id });
  return openSession(world, user, { from: address, by: service });
}

/** Services that people come in by, for the door. */
export async function doorServices(world: World): Promise<readonly string[]> {
  return (await signInServices(world)).filter(({ service }) => service.forPeople).map(({ service }) => service.name);
}
