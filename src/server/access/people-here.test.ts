/** Who works here: asked in, away, gone. */
import { demoWorld, testWorld, type TestWorld } from '../../testing/world';
import { answerApi } from '../http/answer';
import { joinAt } from '../http/join';
import { takeTurn } from '../flows/store/flows';
import { setOwner } from '../records/store/records';
import { makeToken, signIn, tokenUser, users } from './access';
import { auditPage } from './audit';
import { changePersonHere, firstAddress, invitation, invite, join, letBack, letGo, peopleView, withdrawInvite } from './people-here';
import { weakness } from './password-rules';
import { people } from '../records/records';
import { dropTeam, keepTeam, teams } from '../workspace/teams';
import { newToken, tokens, withdrawToken } from './tokens';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ruud: Actor;
let ines: Actor;
beforeEach(async () => {
  ({ world, ines } = await demoWorld({ crm: true }));
  const owner = (await users(world)).find((user) => user.role === 'owner')!;
  ruud = { userId: owner.id, name: owner.name };
});
afterEach(() => world.close());

const idOf = async (name: string): Promise<string> => (await users(world)).find((user) => user.name.startsWith(name))?.id ?? '';
const ask = { email: 'Piet@Thornwick.example', name: '', role: 'rep', title: 'sales, west' } as const;
const codeOf = (link: string): string => link.split('/').at(-1) ?? '';
const PASSWORD = 'three wet gates';

test('somebody is asked in, chooses a password, and signs in; the invitation opens the door once', async () => {
  const { link, invites } = await invite(world, ruud, ask);
  expect(invites).toMatchObject([{ email: 'piet@thornwick.example', role: 'rep', invitedByName: 'Ruud Vermaat-Osei' }]);
  const [kept] = await world.db<{ codeHash: string }[]>`select code_hash from invite`;
  expect(kept?.codeHash).not.toContain(codeOf(link));
  await expect(join(world, codeOf(link), { name: 'Piet Bos', password: 'short' })).rejects.toThrow('at least 10 characters');
  await expect(join(world, codeOf(link), { name: 'Piet Bos', password: 'piet@thornwick' })).rejects.toThrow('known of you');
  await join(world, codeOf(link), { name: 'Piet Bos', password: PASSWORD });
  expect((await signIn(world, 'piet@thornwick.example', PASSWORD)).user).toMatchObject({
    name: 'Piet Bos',
    role: 'rep',
    title: 'sales, west',
  });
  await expect(join(world, codeOf(link), { name: 'X', password: PASSWORD })).rejects.toThrow('used up');
  await expect(invite(world, ruud, ask)).rejects.toThrow('works here already');
  const audit = (await auditPage(world, {})).items.map((line) => line.what);
  expect(audit).toEqual(expect.arrayContaining(['invited somebody', 'came in by an invitation']));
});

test('asked again, withdrawn or too old: the older address opens nothing', async () => {
  const first = await invite(world, ruud, ask);
  const second = await invite(world, ruud, ask);
  expect(await invitation(world, codeOf(first.link))).toBeUndefined();
  expect(second.invites).toHaveLength(1);
  await withdrawInvite(world, ruud, second.invites[0]!.id);
  expect(await invitation(world, codeOf(second.link))).toBeUndefined();
  const third = await invite(world, ruud, ask);
  world.now += 15 * 86_400_000;
  expect(await invitation(world, codeOf(third.link))).toBeUndefined();
  expect((await peopleView(world)).invites).toEqual([]);
});

test('the door answers a browser on our own page only, and leaves it signed in', async () => {
  const { link } = await invite(world, ruud, ask);
  const request = (site: string, body: unknown) =>
    new Request('http://millrace.example/join', { method: 'POST', headers: { 'sec-fetch-site': site }, body: JSON.stringify(body) });
  const enter = (site: string, code: string, body: unknown = { name: 'Piet', password: PASSWORD }) =>
    joinAt(world, request(site, body), code);
  expect((await enter('cross-site', codeOf(link))).status).toBe(403);
  expect((await enter('same-origin', 'nonsense')).status).toBe(404);
  expect((await enter('same-origin', codeOf(link), { name: 'Piet', password: 'password123' })).status).toBe(400);
  const let_in = await enter('same-origin', codeOf(link));
  expect([let_in.status, let_in.headers.get('set-cookie')]).toEqual([201, expect.stringContaining('HttpOnly')]);
});

test('where nobody works yet the first owner comes in by an address of one use, and says who they are', async () => {
  expect(await firstAddress(world)).toBeNull();
  const empty = await testWorld();
  const lost = await firstAddress(empty);
  const link = await firstAddress(empty);
  expect(await invitation(empty, codeOf(lost ?? ''))).toBeUndefined();
  await expect(join(empty, codeOf(link ?? ''), { name: 'Mo Ferrant', password: PASSWORD })).rejects.toThrow('your e-mail');
  expect(await join(empty, codeOf(link ?? ''), { name: 'Mo Ferrant', password: PASSWORD, email: 'Mo@Sallowmere.example' })).toEqual({
    email: 'mo@sallowmere.example',
  });
  expect((await signIn(empty, 'mo@sallowmere.example', PASSWORD)).user.role).toBe('owner');
  expect(await firstAddress(empty)).toBeNull();
  await empty.close();
});

test('who goes hands over what is theirs, and cannot come in any more; let back in they can', async () => {
  const tomasz = await idOf('Tomasz');
  const token = await makeToken(world, tomasz, 'phone', 9);
  const [someone] = (await people(world, { limit: 1 })).items;
  await setOwner(world.db, 'person', someone!.id, tomasz);
  const owns = (await peopleView(world)).people.find((person) => person.id === tomasz)!.owns;
  await expect(letGo(world, ruud, tomasz, { handTo: null })).rejects.toThrow('say who takes them over');
  await expect(letGo(world, ruud, tomasz, { handTo: tomasz })).rejects.toThrow('somebody else who works here');
  const after = await letGo(world, ruud, tomasz, { handTo: ines.userId });
  expect(after.people.find((person) => person.id === tomasz)).toMatchObject({ owns: 0, teams: [], endedAt: expect.any(Number) });
  expect(after.people.find((person) => person.id === ines.userId)?.owns).toBeGreaterThanOrEqual(owns);
  await expect(signIn(world, 'tomasz@thornwick.example', 'glasshouse')).rejects.toThrow('e-mail or password is wrong');
  expect(await tokenUser(world, token)).toBeUndefined();
  await expect(invite(world, ruud, { ...ask, email: 'tomasz@thornwick.example' })).rejects.toThrow('let them in again');
  await letBack(world, ruud, tomasz);
  expect((await signIn(world, 'tomasz@thornwick.example', 'glasshouse')).user.name).toBe('Tomasz Wierzba');
});

test('there is always an owner', async () => {
  await expect(changePersonHere(world, ruud, ruud.userId!, { role: 'rep' })).rejects.toThrow('the only owner');
  await expect(letGo(world, ines, ruud.userId!, { handTo: ines.userId })).rejects.toThrow('the only owner');
  await expect(letGo(world, ruud, ruud.userId!, { handTo: null })).rejects.toThrow('nobody lets themselves go');
  await changePersonHere(world, ruud, ines.userId!, { role: 'owner' });
  const view = await changePersonHere(world, ruud, ruud.userId!, { role: 'rep' });
  expect(view.people.find((person) => person.id === ruud.userId)?.role).toBe('rep');
});

test('turns pass by who is away, follow the weights, and are said beforehand', async () => {
  const [tomasz, lucia] = [await idOf('Tomasz'), await idOf('Lucía')];
  await keepTeam(world, ines, 'west', { isNew: true, members: [] });
  expect((await teams(world)).find((team) => team.name === 'west')?.next).toBeNull();
  await keepTeam(world, ines, 'west', {
    isNew: false,
    members: [
      { id: tomasz, weight: 2 },
      { id: lucia, weight: 1 },
    ],
  });
  const day = '2026-11-24';
  const turns: string[] = [];
  for (let i = 0; i < 6; i++) turns.push((await takeTurn(world.db, 'west', day))!.name);
  expect(turns).toEqual(['Tomasz Wierzba', 'Lucía Ferrer Mas', 'Tomasz Wierzba', 'Tomasz Wierzba', 'Lucía Ferrer Mas', 'Tomasz Wierzba']);
  await changePersonHere(world, ruud, tomasz, { away: [{ from: day, to: day }] });
  expect((await teams(world)).find((team) => team.name === 'west')?.next).toEqual({ name: 'Lucía Ferrer Mas', passed: ['Tomasz Wierzba'] });
  expect((await takeTurn(world.db, 'west', day))?.name).toBe('Lucía Ferrer Mas');
  expect((await takeTurn(world.db, 'west', '2026-11-25'))?.name).toBe('Tomasz Wierzba');
  await expect(changePersonHere(world, ruud, tomasz, { away: [{ from: '2026-12-02', to: '2026-12-01' }] })).rejects.toThrow(
    'ends before it begins',
  );
});

test('a team that a flow names is not removed; names and members are checked', async () => {
  await expect(dropTeam(world, ines, 'north')).rejects.toThrow('name');
  await expect(keepTeam(world, ines, 'north', { isNew: true, members: [] })).rejects.toThrow('already');
  await expect(keepTeam(world, ines, 'nowhere', { isNew: false, members: [] })).rejects.toThrow('no team');
  await expect(keepTeam(world, ines, 'west', { isNew: true, members: [{ id: world.newId(), weight: 1 }] })).rejects.toThrow(
    'only people who work here',
  );
  await keepTeam(world, ines, 'west', { isNew: true, members: [{ id: ines.userId!, weight: 1 }] });
  await expect(
    keepTeam(world, ines, 'west', {
      isNew: false,
      members: [
        { id: ines.userId!, weight: 1 },
        { id: ines.userId!, weight: 1 },
      ],
    }),
  ).rejects.toThrow('twice');
  expect((await dropTeam(world, ines, 'west')).map((team) => team.name)).not.toContain('west');
});

test('a token does no more than its scope, says which one it would take, and ends at once', async () => {
  const { token, items } = await newToken(world, ruud, { name: 'board', scope: 'read', days: 30 });
  const call = async (method: string, path: string, body?: unknown) =>
    answerApi(
      world,
      new Request(`http://millrace.example/api/v1${path}`, {
        method,
        headers: { authorization: `Bearer ${token}` },
        ...(body !== undefined && { body: JSON.stringify(body) }),
      }),
      path,
    );
  expect((await call('GET', '/people')).status).toBe(200);
  const refused = await call('POST', '/companies', { values: { name: 'X' } });
  expect([refused.status, await refused.json()]).toEqual([
    403,
    expect.objectContaining({ scope: 'records', detail: expect.stringContaining('it takes the scope “records”') }),
  ]);
  expect((await tokens(world)).find((entry) => entry.name === 'board')?.usedAt).toEqual(expect.any(Number));
  await withdrawToken(world, ruud, items.find((entry) => entry.name === 'board')!.id);
  expect((await call('GET', '/people')).status).toBe(401);
});

test.each([
  ['glasshouse9', undefined],
  ['three wet gates', undefined],
  ['password12', 'first passwords'],
  ['aaaaaaaaaaaa', 'same character'],
  ['too short', 'at least 10'],
  ['thornwick1', 'known of you'],
])('the password “%s”: %s', (password, why) => {
  const said = weakness(password, ['ruud@thornwick.example', 'Ruud']);
  if (why === undefined) expect(said).toBeUndefined();
  else expect(said).toContain(why);
});
