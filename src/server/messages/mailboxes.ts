/**
 * Mailboxes that write: made, changed and checked. Promises: a password is kept sealed, and for the server it was typed for; a
 * check says which step failed and what to do. Refuses: reading mailboxes (they come in as watched doors).
 */
import { z } from 'zod';
import type { Instant } from '../../core/base';
import { dayKey, limitOn, type RampUp } from '../../core/calendar';
import { domainOf } from '../../core/sending';
import { scopesOf } from '../../core/sign-in';
import { cameBackText, standingOf, type CameBack, type Standing } from '../../core/reply';
import type { MailRoute, RouteCheck, Signer } from '../ports';
import { domainView, lookAtDomain, signerOf, type DomainView } from './mail-domain';
import {
  cameBack,
  dropSigningKey,
  listMailboxes,
  mailboxRoutes,
  putMailbox,
  putRoute,
  putRouteCheck,
  type MailboxRow,
} from './store/mailboxes';
import { listThings } from '../flows/store/things';
import { insertAudit } from '../access/store/audit';
import { flowsNaming } from '../flows/naming';
import { proofOf } from '../access/grants';
import { serviceOf } from '../access/sign-in-services';
import { seal } from '../platform/seal';
import { found, Refusal, type Actor, type World } from '../platform/world';

export const routeSchema = z.object({
  host: z.string().trim().min(1).max(253),
  port: z.number().int().min(1).max(65_535),
  tls: z.enum(['from the start', 'after a greeting', 'never']),
  user: z.string().max(320),
  /** the sign-in service that opens it; null: a password */
  service: z.string().max(60).nullable().default(null),
});
export type RouteSettings = z.infer<typeof routeSchema>;

export interface CheckView extends RouteCheck {
  readonly at: Instant;
}
export interface MailboxView extends MailboxRow {
  /** mails it may send today, as it begins */
  readonly limitToday: number;
  readonly replyTo: string | null;
  /** null: by the relay of this installation */
  readonly route: RouteSettings | null;
  readonly hasPassword: boolean;
  readonly checked: CheckView | null;
  /** what became of its last mails */
  readonly back: CameBack & { readonly standing: Standing; readonly says: string };
  /** null: it sends */
  readonly rests: { readonly since: Instant; readonly why: string } | null;
  readonly domain: DomainView;
  /** flows and plans that name it */
  readonly usedBy: readonly string[];
}

const checkSchema = z.object({
  ok: z.boolean(),
  steps: z.array(z.object({ what: z.string(), ok: z.boolean(), says: z.string() })),
  at: z.number(),
});

export async function mailboxViews(world: World): Promise<readonly MailboxView[]> {
  const [boxes, routes, naming, plans] = await Promise.all([
    listMailboxes(world.db),
    mailboxRoutes(world.db),
    flowsNaming(world),
    listThings(world.db, 'plan'),
  ]);
  const now = await world.clock.now();
  const back = new Map(await Promise.all(boxes.map(async ({ name }) => [name, await cameBack(world.db, name)] as const)));
  return boxes.map((box) => {
    const kept = routes.find((entry) => entry.name === box.name);
    const route = routeSchema.safeParse(kept?.route);
    const checked = checkSchema.safeParse(kept?.checked);
    const named = plans.filter((plan) => !plan.retired && (plan.body as { mailbox?: unknown }).mailbox === box.name);
    return {
      ...box,
      limitToday: limitOn(dayKey(now, box.zone), box),
      replyTo: kept?.replyTo ?? null,
      route: route.success ? route.data : null,
      hasPassword: kept?.secret != null,
      checked: checked.success ? checked.data : null,
      domain: domainView(kept),
      back: standing(back.get(box.name) ?? { sent: 0, bounced: 0, complained: 0 }),
      rests: kept?.restsSince == null ? null : { since: kept.restsSince, why: kept.restsWhy ?? '' },
      usedBy: [...naming('connection', box.name), ...named.map((plan) => `plan ${plan.name}`)],
    };
  });
}

/** Addresses that are written from, and whether they send as far as anybody tried. */
export async function sendersHere(world: World): Promise<readonly { readonly address: string; readonly sends: boolean }[]> {
  return (await mailboxRoutes(world.db)).map(({ address, checked }) => ({
    address,
    sends: checkSchema.safeParse(checked).data?.ok !== false,
  }));
}

const standing = (back: CameBack): MailboxView['back'] => ({
  ...back,
  standing: standingOf(back),
  says: cameBackText(back),
});

export interface MailboxAsk {
  readonly isNew: boolean;
  readonly address: string;
  readonly displayName: string;
  readonly zone: string;
  readonly dailyLimit: number;
  readonly personGapDays: number;
  readonly minutesApart: number;
  /** null: as many as it may from the first day */
  readonly rampUp: Omit<RampUp, 'since'> | null;
  readonly signature: string;
  readonly replyTo: string | null;
  readonly route: RouteSettings | null;
  /** null: the one that is kept stays */
  readonly password: string | null;
}

const serverOf = (route: RouteSettings | null): string =>
  route === null
    ? 'the relay'
    : `${route.host.toLowerCase()}:${route.port} ${route.user}${route.service === null ? '' : ` by ${route.service}`}`;

/** Refuses a way that is signed in to by a service which opens no mailboxes, or by nobody in particular. */
async function opensMailboxes(world: World, route: RouteSettings | null): Promise<void> {
  if (route?.service == null) return;
  const known = await serviceOf(world, route.service);
  if (!known) throw new Refusal('not valid', `there is no sign-in service “${route.service}”`);
  if (scopesOf(known.service).length === 0) throw new Refusal('not valid', `“${route.service}” opens no mailboxes: its scopes are missing`);
  if (route.user === '') throw new Refusal('not valid', 'the account that signs in is missing');
}

/** Makes or changes a mailbox. Its way out and its password are the owner's. */
export async function keepMailbox(world: World, actor: Actor, name: string, ask: MailboxAsk): Promise<readonly MailboxView[]> {
  const before = (await mailboxViews(world)).find((box) => box.name === name);
  if (ask.isNew && before) throw new Refusal('conflict', `there is a mailbox “${name}” already`);
  if (!ask.isNew) found(before, `the mailbox “${name}”`);
  const twin = (await listMailboxes(world.db)).find((box) => box.name !== name && box.address.toLowerCase() === ask.address.toLowerCase());
  if (twin) throw new Refusal('conflict', `${ask.address} is the address of “${twin.name}”`);
  await opensMailboxes(world, ask.route);
  const moved = serverOf(before?.route ?? null) !== serverOf(ask.route);
  if (
    moved &&
    before?.hasPassword === true &&
    ask.password === null &&
    ask.route !== null &&
    ask.route.user !== '' &&
    ask.route.service === null
  )
    throw new Refusal('not valid', `the password was kept for ${serverOf(before.route)}: type it again for ${serverOf(ask.route)}`);
  const now = await world.clock.now();
  const password = ask.password === '' || ask.route?.service != null ? null : ask.password;
  await world.db.begin(async (tx) => {
    await putMailbox(tx, {
      name,
      address: ask.address,
      displayName: ask.displayName,
      zone: ask.zone,
      dailyLimit: ask.dailyLimit,
      personGapDays: ask.personGapDays,
      minutesApart: ask.minutesApart,
      rampUp: ask.rampUp && { ...ask.rampUp, since: before?.rampUp?.since ?? dayKey(now, ask.zone) },
      signature: ask.signature.trim(),
    });
    // Another domain knows no key of this one, and what was seen of it is void.
    if (before && domainOf(before.address) !== domainOf(ask.address)) await dropSigningKey(tx, name);
    const keepsSecret = ask.password === null && !moved;
    await putRoute(tx, name, {
      replyTo: ask.replyTo,
      route: ask.route,
      ...(!keepsSecret && { secret: password === null || ask.route === null ? null : seal(world.secret, password) }),
    });
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: ask.isNew ? 'made a mailbox' : 'changed a mailbox',
      detail: { name, address: ask.address, by: serverOf(ask.route), ...(ask.password !== null && { password: 'changed' }) },
    });
  });
  return mailboxViews(world);
}

/** The way out of a mailbox's mails; null: by the relay of this installation. */
export async function routeOf(world: World, which: { readonly name: string } | { readonly address: string }): Promise<MailRoute | null> {
  const kept = (await mailboxRoutes(world.db)).find((entry) =>
    'name' in which ? entry.name === which.name : entry.address.toLowerCase() === which.address.toLowerCase(),
  );
  const route = routeSchema.safeParse(kept?.route);
  if (!route.success) return null;
  const { service, ...way } = route.data;
  return { ...way, proof: await proofOf(world, { service, user: way.user }, kept?.secret ?? null) };
}

/** Goes the mailbox's way step by step, up to a letter from it to itself, and keeps how that went. */
export async function checkMailbox(world: World, actor: Actor, name: string): Promise<readonly MailboxView[]> {
  const box = found(
    (await mailboxViews(world)).find((entry) => entry.name === name),
    `the mailbox “${name}”`,
  );
  const now = await world.clock.now();
  const letter = (signer: Signer | null): Promise<Uint8Array> =>
    world.mail.compose({
      signer,
      from: { name: box.displayName, address: box.address },
      to: { name: box.displayName, address: box.address },
      subject: `${name}: a letter to itself`,
      text: `Millrace wrote this from ${box.address} to itself, to see that mails leave. It can be thrown away.`,
      messageId: `<check-${world.newId()}@millrace>`,
      inReplyTo: null,
      references: [],
      unsubscribeUrl: null,
      date: now,
    });
  await lookAtDomain(world, name, { host: box.route?.host ?? null, letter });
  const signer = signerOf(
    world,
    (await mailboxRoutes(world.db)).find((row) => row.name === name),
  );
  const check = await world.mail.check(await letter(signer), box.address, await routeOf(world, { name }));
  await putRouteCheck(world.db, name, { ...check, at: now });
  await insertAudit(world.db, {
    at: now,
    userId: actor.userId,
    what: 'checked a mailbox',
    detail: { name, outcome: check.ok ? 'works' : (check.steps.find((step) => !step.ok)?.says ?? '') },
  });
  return mailboxViews(world);
}
