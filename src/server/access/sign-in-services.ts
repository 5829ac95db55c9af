/**
 * Sign-in services: described, changed, removed, and what mailboxes were given there. Promises: a secret is kept sealed and for the
 * service it was typed for; a description is read before it is kept. Refuses: removing one that a mailbox signs in by.
 */
import type { SignInServiceView } from '../../api';
import { scopesOf, serviceProblems, signInServiceSchema, type SignInService } from '../../core/sign-in';
import { seal, unseal } from '../platform/seal';
import { found, Refusal, type Actor, type World } from '../platform/world';
import { WorldFailure, type SignInServer } from '../ports';
import { insertAudit } from './store/audit';
import { dropGrant, dropService, forgetService, listGrants, listServices, putService, type ServiceRow } from './store/sign-in';

const described = (row: ServiceRow): SignInService | undefined => signInServiceSchema.safeParse(row.body).data;

/** Where services send people back to. It is typed there. */
export const backTo = (world: World): string => `${world.publicUrl}/session/back`;

/** Everything about them, for their page. */
export const signInView = async (world: World) => ({ items: await signInServices(world), backTo: backTo(world) });

export async function signInServices(world: World): Promise<readonly SignInServiceView[]> {
  const [rows, grants] = await Promise.all([listServices(world.db), listGrants(world.db)]);
  return rows.flatMap((row): SignInServiceView[] => {
    const service = described(row);
    if (!service) return [];
    const accounts = grants.filter((grant) => grant.service === row.name).map(({ service: _, ...grant }) => grant);
    return [{ service, hasSecret: row.secret !== null, usedBy: [...row.usedBy], accounts }];
  });
}

/** Those that open mailboxes, and who is signed in at each. */
export const mailServices = (views: readonly SignInServiceView[]) =>
  views
    .filter(({ service }) => scopesOf(service).length > 0)
    .map(({ service, accounts }) => ({
      name: service.name,
      accounts: accounts.map(({ account, problem }) => ({ account, problem })),
    }));

/** A service by its name, as it is described and as it is asked. */
export async function serviceOf(
  world: World,
  name: string,
): Promise<{ readonly service: SignInService; readonly server: SignInServer } | undefined> {
  const row = (await listServices(world.db)).find((entry) => entry.name === name);
  const service = row && described(row);
  if (!row || !service) return undefined;
  return { service, server: serverOf(service, row.secret === null ? null : unseal(world.secret, row.secret)) };
}

const serverOf = ({ issuer, clientId, privateNetwork }: SignInService, secret: string | null): SignInServer => ({
  issuer,
  clientId,
  secret,
  privateNetwork,
});
const otherThan = (a: SignInService, b: SignInService): boolean => a.issuer !== b.issuer || a.clientId !== b.clientId;

/** Keeps a description that could be read. Where it names another service than before, what was given there ends. */
export async function keepSignInService(
  world: World,
  actor: Actor,
  ask: { readonly service: SignInService; readonly secret?: string | undefined },
): Promise<void> {
  const { service } = ask;
  const problems = serviceProblems(service);
  if (problems[0]) throw new Refusal('not valid', problems[0].says, { problems });
  const kept = await serviceOf(world, service.name);
  const isAnother = kept !== undefined && otherThan(kept.service, service);
  const secret = ask.secret === undefined ? (isAnother ? null : (kept?.server.secret ?? null)) : ask.secret === '' ? null : ask.secret;
  const row = (await listServices(world.db)).find((entry) => entry.name === service.name);
  if (row && row.usedBy.length > 0 && scopesOf(service).length === 0)
    throw new Refusal('conflict', `${row.usedBy.join(', ')} signs in by it: without scopes it could not any more`);
  try {
    await world.signIns.look(serverOf(service, secret));
  } catch (error) {
    if (error instanceof WorldFailure) throw new Refusal('not valid', error.message, { problems: [{ at: 'issuer', says: error.message }] });
    throw error;
  }
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    if (isAnother) await forgetService(tx, service.name);
    await putService(tx, { name: service.name, body: service, secret: secret === null ? null : seal(world.secret, secret) }, now);
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: kept ? 'changed a sign-in service' : 'described a sign-in service',
      detail: {
        name: service.name,
        issuer: service.issuer,
        people: service.forPeople,
        ...(ask.secret !== undefined && { secret: 'changed' }),
      },
    });
  });
}

export async function removeSignInService(world: World, actor: Actor, name: string): Promise<void> {
  const view = (await signInServices(world)).find((entry) => entry.service.name === name);
  if (view && view.usedBy.length > 0) throw new Refusal('conflict', `${view.usedBy.join(', ')} signs in by it: change that first`);
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    found((await dropService(tx, name)) || undefined, 'this sign-in service');
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'removed a sign-in service', detail: { name } });
  });
}

/** Forgets what a mailbox was given: it opens nothing here any more. */
export async function endGrant(world: World, actor: Actor, id: string): Promise<void> {
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    const { service, account } = found(await dropGrant(tx, id), 'this account');
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'signed a mailbox out', detail: { account, at: service } });
  });
}
