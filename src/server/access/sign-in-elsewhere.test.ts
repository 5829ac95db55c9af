/** People who come in by a sign-in service, and mailboxes that open by one: the whole way, by the real client, against the stand-in. */
import { startSignIns, type SignInsStandIn } from '../../standins/sign-ins';
import { demoWorld, type TestWorld } from '../../testing/world';
import { oidcSignIns } from '../adapters/sign-ins';
import { createWatched, lookAtDoors, previewWatched, saveWatched, watchedDoor } from '../intake/watched';
import { checkMailbox, keepMailbox, mailboxViews, routeOf } from '../messages/mailboxes';
import type { Actor, World } from '../platform/world';
import { MAILBOX } from '../../testing/watched';
import { backFromElsewhere, goElsewhere } from '../http/elsewhere';
import { signIn } from './access';
import { proofOf } from './grants';
import { beginElsewhere, endElsewhere, NotLetIn } from './sign-in-elsewhere';
import { endGrant, keepSignInService, removeSignInService, signInServices } from './sign-in-services';
import { listUsers } from './store/access';

const SERVICE = {
  name: 'Quayside',
  issuer: 'https://accounts.quayside.example',
  clientId: 'millrace-here',
  mailScopes: 'mail.all',
  forPeople: true,
  privateNetwork: false,
};
const OFFICE = 'office@thornwick.example';
let base: TestWorld;
let world: World;
let owner: Actor;
let standin: SignInsStandIn;
beforeEach(async () => {
  base = (await demoWorld()).world;
  const people = await listUsers(base.db);
  const ruud = people.find((person) => person.role === 'owner');
  owner = { userId: ruud?.id ?? null, name: ruud?.name ?? '' };
  standin = await startSignIns(
    {
      issuer: SERVICE.issuer,
      clientId: SERVICE.clientId,
      secret: 'between us',
      accounts: {
        ...Object.fromEntries(people.map(({ email, name }) => [email, name])),
        [OFFICE]: 'Office',
        'guest@elsewhere.example': 'Guest',
      },
      unproven: people.filter((person) => person.role === 'rep').map((person) => person.email),
    },
    0,
  );
  world = { ...base, signIns: oidcSignIns(`127.0.0.1:${standin.port}`) };
  await keepSignInService(world, owner, { service: SERVICE, secret: 'between us' });
});
afterEach(async () => {
  await standin.close();
  await base.close();
});

/** Clicks on an account; what stands behind the address one comes back by. */
async function click(url: string, account: string): Promise<string> {
  const to = new URL(url);
  to.searchParams.set('as', account);
  return new URL((await fetch(to, { redirect: 'manual' })).headers.get('location') ?? '').search;
}
async function comeIn(account: string, mailbox: { account: string; by: string } | null = null, by?: Actor) {
  const { url, kept } = await beginElsewhere(world, { service: 'Quayside', mailbox });
  return endElsewhere(world, { kept, search: await click(url, account), by, address: 'here' });
}
const whyNot = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'let in',
    (error: unknown) => (error instanceof NotLetIn ? error.why : String(error)),
  );
const signMailboxIn = () => comeIn(OFFICE, { account: OFFICE, by: owner.userId ?? '' }, owner);

test('a description is read before it is kept, its secret is sealed, and it moves with nothing of another service', async () => {
  expect(await signInServices(world)).toMatchObject([{ service: SERVICE, hasSecret: true, usedBy: [], accounts: [] }]);
  const [kept] = await world.db<{ secret: string }[]>`select secret from sign_in_service`;
  expect(kept?.secret).not.toContain('between us');
  const there = (change: object, secret?: string) =>
    keepSignInService(world, owner, { service: { ...SERVICE, ...change }, ...(secret !== undefined && { secret }) });
  await expect(there({ issuer: 'https://nobody.quayside.example' })).rejects.toThrow('does not answer as OpenID Connect has it');
  await expect(there({ issuer: 'http://accounts.quayside.example' })).rejects.toThrow('without https');
  await expect(there({ mailScopes: '', forPeople: false })).rejects.toThrow('nobody signs in by it');
  await signMailboxIn();
  await there({ name: 'Quayside', mailScopes: 'mail.all mail.more' });
  expect((await signInServices(world))[0]?.accounts).toHaveLength(1);
  await there({ clientId: 'somebody else' });
  expect((await signInServices(world))[0]).toMatchObject({ hasSecret: false, accounts: [] });
});

test('a person is let in by an address that the service says is theirs, and after that by what it knows them by', async () => {
  const [someone] = (await listUsers(world.db)).filter((person) => person.role === 'builder');
  const email = someone?.email ?? '';
  const ended = await comeIn(email);
  expect(ended).toMatchObject({ kind: 'person', session: { user: { id: someone?.id } } });
  // Their address here may change: they are the same to the service.
  await world.db`update app_user set email = 'moved@thornwick.example' where id = ${someone?.id ?? ''}`;
  expect(await comeIn(email)).toMatchObject({ kind: 'person', session: { user: { email: 'moved@thornwick.example' } } });
  const [row] = await world.db<{ detail: object }[]>`select detail from audit where what = 'signed in' order by at desc limit 1`;
  expect(row?.detail).toEqual({ from: 'here', by: 'Quayside' });
  // Whoever may not come in any more does not by a service either.
  await world.db`update app_user set ended_at = now() where id = ${someone?.id ?? ''}`;
  expect(await whyNot(comeIn(email))).toBe('nobody');
});

test('nobody is let in by an address that is not theirs, nobody’s, or by a service that is for mailboxes', async () => {
  const [rep] = (await listUsers(world.db)).filter((person) => person.role === 'rep');
  expect(await whyNot(comeIn(rep?.email ?? ''))).toBe('unproven');
  expect(await whyNot(comeIn('guest@elsewhere.example'))).toBe('nobody');
  expect(await whyNot(comeIn(''))).toBe('declined');
  await keepSignInService(world, owner, { service: { ...SERVICE, forPeople: false } });
  expect(await whyNot(comeIn(OFFICE))).toBe('gone');
  expect(await whyNot(beginElsewhere(world, { service: 'Nowhere', mailbox: null }))).toBe('gone');
  world = { ...world, signIns: oidcSignIns('127.0.0.1:1') };
  await world.db`update sign_in_service set body = body || '{"forPeople": true}'`;
  expect(await whyNot(comeIn(OFFICE))).toBe('away');
});

test('what began elsewhere, was changed or took too long does not end here', async () => {
  const { url, kept } = await beginElsewhere(world, { service: 'Quayside', mailbox: null });
  const search = await click(url, OFFICE);
  const end = (kept2: string | undefined, search2 = search) =>
    whyNot(endElsewhere(world, { kept: kept2, search: search2, by: undefined, address: 'here' }));
  expect(await end(undefined)).toBe('late');
  expect(await end(`${kept.slice(0, -2)}xx`)).toBe('late');
  const other = await beginElsewhere(world, { service: 'Quayside', mailbox: null });
  expect(await end(other.kept)).toBe('declined');
  // A mailbox is signed in by who began it.
  const mailbox = await beginElsewhere(world, { service: 'Quayside', mailbox: { account: OFFICE, by: owner.userId ?? '' } });
  const back = await click(mailbox.url, OFFICE);
  expect(await whyNot(endElsewhere(world, { kept: mailbox.kept, search: back, by: undefined, address: 'here' }))).toBe('late');
});

test('a mailbox writes and reads by what it was given, renewed before it ends; once it is taken away, it says what to do', async () => {
  const way = { host: 'smtp.quayside.example', port: 465, tls: 'from the start', user: OFFICE, service: 'Quayside' } as const;
  const ask = {
    isNew: true,
    address: OFFICE,
    displayName: 'Office',
    zone: 'Europe/London',
    dailyLimit: 40,
    personGapDays: 2,
    minutesApart: 2,
    rampUp: null,
    signature: '',
    replyTo: null,
    route: way,
    password: null,
  };
  await expect(keepMailbox(world, owner, 'Office', { ...ask, route: { ...way, service: 'Nowhere' } })).rejects.toThrow(
    'no sign-in service',
  );
  await keepMailbox(world, owner, 'Office', ask);
  expect((await routeOf(world, { name: 'Office' }))?.proof).toMatchObject({
    by: 'nothing',
    why: expect.stringContaining('nobody has signed in as'),
  });
  expect(await signMailboxIn()).toMatchObject({ kind: 'mailbox', account: OFFICE });
  const first = (await routeOf(world, { name: 'Office' }))?.proof;
  expect(first?.by === 'token' && standin.whose(first.token)).toBe(OFFICE);
  await checkMailbox(world, owner, 'Office');
  expect(base.outside.checked.at(-1)?.route).toMatchObject({ proof: first });
  // Nothing of it can be seen.
  expect(JSON.stringify([await mailboxViews(world), await signInServices(world)])).not.toContain(first?.by === 'token' ? first.token : '?');
  await world.db`update sign_in_grant set fresh_until = now()`;
  // Two ask at the same moment: it is renewed once, and both open.
  const proofs = await Promise.all([1, 2].map(async () => (await routeOf(world, { name: 'Office' }))?.proof));
  expect(new Set(proofs.map((proof) => (proof?.by === 'token' ? proof.token : ''))).size).toBe(1);
  expect(proofs[0]).not.toEqual(first);
  standin.endAll();
  await world.db`update sign_in_grant set fresh_until = now()`;
  const after = (await routeOf(world, { name: 'Office' }))?.proof;
  expect(after).toMatchObject({ by: 'nothing', why: expect.stringMatching(/sign in as office@thornwick\.example at Quayside again/) });
  expect((await signInServices(world))[0]?.accounts[0]?.problem).toContain('says no');
  await expect(removeSignInService(world, owner, 'Quayside')).rejects.toThrow('mailbox Office signs in by it');
  await signMailboxIn();
  expect((await signInServices(world))[0]?.accounts).toMatchObject([{ problem: null }]);
  await endGrant(world, owner, (await signInServices(world))[0]?.accounts[0]?.id ?? '');
  expect(await proofOf(world, { service: 'Quayside', user: OFFICE }, null)).toMatchObject({ by: 'nothing' });
});

test('a watched mailbox opens by it too; what stands against that is said on the door', async () => {
  const { id } = await createWatched(world, owner, {
    name: 'Office',
    settings: { ...MAILBOX, service: 'Quayside' },
    password: '',
    isOn: true,
  });
  await lookAtDoors(world);
  const { mailboxes } = world;
  let proof: unknown;
  const seen: typeof mailboxes.look = (account, ask) => {
    ({ proof } = account);
    return mailboxes.look(account, ask);
  };
  world = { ...world, mailboxes: { look: seen } };
  await signMailboxIn();
  await world.db`update intake set is_on = (id = ${id}), look_at = now()`;
  await lookAtDoors(world);
  expect(proof).toMatchObject({ by: 'token' });
  expect((await watchedDoor(world, id)).problem).toBeNull();
  expect((await signInServices(world))[0]?.usedBy).toEqual(['source Office']);
});

test('a token is shown to no server but one that the owner has said', async () => {
  const builder = (await listUsers(world.db)).find((person) => person.role === 'builder');
  const ines: Actor = { userId: builder?.id ?? null, name: builder?.name ?? '' };
  const settings = { ...MAILBOX, service: 'Quayside' };
  const ask = { name: 'Office', settings, password: '', isOn: true };
  await expect(createWatched(world, ines, ask)).rejects.toThrow('said by the owner only');
  const { id } = await createWatched(world, owner, ask);
  await expect(
    saveWatched(world, ines, id, { settings: { ...settings, host: 'imap.elsewhere.example' }, password: null, isOn: true }),
  ).rejects.toThrow('said by the owner only');
  await expect(
    previewWatched(world, ines, { id: null, settings: { ...settings, host: 'imap.elsewhere.example' }, password: '' }),
  ).rejects.toThrow('said by the owner only');
  // What of it is taken in is a builder's as before.
  await saveWatched(world, ines, id, {
    settings: { ...settings, rule: { ...settings.rule, subject: 'enquiry' } },
    password: null,
    isOn: true,
  });
});

describe('in a browser', () => {
  const ask = (path: string, cookie = '') => new Request(`http://millrace.example${path}`, { headers: { cookie } });
  const cookiesOf = (response: Response): string =>
    response.headers
      .getSetCookie()
      .map((cookie) => cookie.split(';')[0] ?? '')
      .join('; ');

  test('out to the service, back, and in; a refusal travels as a word, and the way is no way for others', async () => {
    const out = await goElsewhere(world, ask('/session/with/Quayside'), 'Quayside');
    expect([out.status, out.headers.get('cache-control')]).toEqual([303, 'no-store']);
    const [someone] = (await listUsers(world.db)).filter((person) => person.role === 'builder');
    const search = await click(out.headers.get('location') ?? '', someone?.email ?? '');
    const back = await backFromElsewhere(world, ask(`/session/back${search}`, cookiesOf(out)));
    expect([back.status, back.headers.get('location')]).toEqual([303, '/']);
    expect(back.headers.getSetCookie().join()).toMatch(/millrace_underway=;.*Max-Age=0.*HttpOnly/);
    // The same address again, without what the browser kept: nobody comes in by a link.
    const again = await backFromElsewhere(world, ask(`/session/back${search}`));
    expect(again.headers.get('location')).toBe('/sign-in?refused=late');
    const gone = await goElsewhere(world, ask('/session/with/Nowhere'), 'Nowhere');
    expect(gone.headers.get('location')).toBe('/sign-in?refused=gone');
  });

  test('only an owner signs a mailbox in', async () => {
    expect((await goElsewhere(world, ask(`/session/with/Quayside?account=${OFFICE}`), 'Quayside')).status).toBe(403);
    const people = await listUsers(world.db);
    const sessionFor = async (role: string): Promise<string> => {
      const email = people.find((person) => person.role === role)?.email ?? '';
      await world.db`update app_user set password_hash = 'hash of x' where email = ${email}`;
      return `millrace_session=${(await signIn(world, email, 'x')).token}`;
    };
    const [builder, ruud] = [await sessionFor('builder'), await sessionFor('owner')];
    expect((await goElsewhere(world, ask(`/session/with/Quayside?account=${OFFICE}`, builder), 'Quayside')).status).toBe(403);
    const out = await goElsewhere(world, ask(`/session/with/Quayside?account=other@thornwick.example`, ruud), 'Quayside');
    const search = await click(out.headers.get('location') ?? '', OFFICE);
    const back = await backFromElsewhere(world, ask(`/session/back${search}`, `${ruud}; ${cookiesOf(out)}`));
    expect(back.headers.get('location')).toBe(`/settings/sign-in?account=${encodeURIComponent(OFFICE)}&wanted=other%40thornwick.example`);
    expect((await signInServices(world))[0]?.accounts).toMatchObject([{ account: OFFICE }]);
  });
});
