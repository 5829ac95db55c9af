/** The second factor: taken into use with a code, asked for at the door, no code taken twice, lost and taken away. */
import { Secret, TOTP } from 'otpauth';
import { demoWorld, type TestWorld } from '../../testing/world';
import { answerApi, SESSION_COOKIE } from '../http/answer';
import { signInAt } from '../http/session';
import { seal, unseal } from '../platform/seal';
import { moveKey, newKey } from '../workspace/keys';
import { CodeWanted, makeToken, sessionUser, signIn, users } from './access';
import { auditPage } from './audit';
import {
  beginSecondFactor,
  checkCode,
  confirmSecondFactor,
  endFactorOf,
  endSecondFactor,
  factorView,
  renewRecoveryCodes,
  requireSecondFactor,
} from './second-factor';

let world: TestWorld;
let ines: { readonly userId: string; readonly name: string };
let ruud: typeof ines;
beforeEach(async () => {
  ({ world } = await demoWorld());
  const of = async (name: string) => {
    const user = (await users(world)).find((entry) => entry.name.startsWith(name));
    return { userId: user?.id ?? '', name: user?.name ?? '' };
  };
  [ines, ruud] = [await of('Ines'), await of('Ruud')];
});
afterEach(() => world.close());

const PASSWORD = 'glasshouse';
const codeOf = (key: string, halfMinutes = 0): string =>
  new TOTP({ secret: Secret.fromBase32(key.replaceAll(' ', '')) }).generate({ timestamp: Date.now() + halfMinutes * 30_000 });
async function setUp(who = ines): Promise<{ readonly key: string; readonly codes: readonly string[] }> {
  const { key } = await beginSecondFactor(world, who);
  // The code of the half-minute before is taken too; the present one stays for the door.
  const { codes } = await confirmSecondFactor(world, who, codeOf(key, -1));
  return { key, codes };
}
const enter = (code?: string) => signIn(world, 'ines@thornwick.example', PASSWORD, 'test', code);

test('a picture and a key; nothing is asked for before a code has been shown', async () => {
  const { picture, key } = await beginSecondFactor(world, ines);
  expect(picture).toMatch(/^<svg/);
  expect(key).toMatch(/^(?:[A-Z2-7]{4} ){7}[A-Z2-7]{4}$/);
  expect((await enter()).user.name).toMatch(/^Ines/);
  await expect(confirmSecondFactor(world, ines, '000000')).rejects.toThrow('not the code of this moment');
  const { codes, view } = await confirmSecondFactor(world, ines, codeOf(key));
  expect(new Set(codes).size).toBe(10);
  expect(view).toMatchObject({ since: expect.any(Number), recoveryLeft: 10, required: false });
  await expect(beginSecondFactor(world, ines)).rejects.toThrow('in use already');
});

test('the door asks for the code, and takes each once', async () => {
  const { key } = await setUp();
  await expect(enter()).rejects.toThrow(CodeWanted);
  await expect(enter('000000')).rejects.toThrow('the code is not right');
  const code = codeOf(key);
  expect((await enter(`${code.slice(0, 3)} ${code.slice(3)}`)).user.name).toMatch(/^Ines/);
  await expect(enter(code)).rejects.toThrow('or was used before');
  await expect(enter(codeOf(key, -1))).rejects.toThrow('or was used before');
  await expect(enter(codeOf(key, 40))).rejects.toThrow('the code is not right');
});

test('of two at once with one code, one comes in', async () => {
  const { key } = await setUp();
  const code = codeOf(key);
  const both = await Promise.all([checkCode(world, ines.userId, code), checkCode(world, ines.userId, code)]);
  expect(both.sort()).toEqual(['right', 'wrong']);
});

test('wrong codes are counted as wrong passwords are', async () => {
  await setUp();
  for (let i = 0; i < 5; i++) await expect(enter('000000')).rejects.toThrow('the code is not right');
  await expect(enter('000000')).rejects.toThrow(/too many wrong passwords/);
  // To be asked for a code is no failed try.
});

test('a recovery code opens the door once, however it is typed; new ones make those of before void', async () => {
  const { key, codes } = await setUp();
  const [first = '', second = ''] = codes;
  expect((await enter(first.toUpperCase().replace('-', ' '))).user.name).toMatch(/^Ines/);
  await expect(enter(first)).rejects.toThrow('the code is not right');
  expect((await factorView(world, ines)).recoveryLeft).toBe(9);
  const { codes: fresh } = await renewRecoveryCodes(world, ines, codeOf(key));
  await expect(enter(second)).rejects.toThrow('the code is not right');
  expect((await enter(fresh[0])).user.name).toMatch(/^Ines/);
  const { items } = await auditPage(world, { search: 'recovery' });
  expect(items.map(({ what }) => what)).toEqual(expect.arrayContaining(['made new recovery codes', 'signed in']));
});

test('it is switched off with a code, or taken away by an owner', async () => {
  const { key } = await setUp();
  await expect(endSecondFactor(world, ines, '111111')).rejects.toThrow('neither the code');
  await endSecondFactor(world, ines, codeOf(key));
  expect((await enter()).user.name).toMatch(/^Ines/);
  await setUp();
  await endFactorOf(world, ruud, ines.userId);
  expect((await enter()).user.name).toMatch(/^Ines/);
  await expect(endFactorOf(world, ruud, ines.userId)).rejects.toThrow('there is no second factor');
});

test('where everybody needs one, who has none can do nothing else first', async () => {
  await expect(requireSecondFactor(world, ruud, true)).rejects.toThrow('set up your own second factor first');
  await setUp(ruud);
  expect((await requireSecondFactor(world, ruud, true)).required).toBe(true);
  const { token } = await enter();
  expect((await sessionUser(world, token))?.lacksFactor).toBe(true);
  const ask = (method: string, path: string) =>
    answerApi(
      world,
      new Request(`http://millrace.example/api/v1${path}`, {
        method,
        headers: { cookie: `${SESSION_COOKIE}=${token}`, 'sec-fetch-site': 'same-origin' },
      }),
      path,
    );
  expect((await ask('GET', '/people')).status).toBe(403);
  expect((await ask('GET', '/account/second-factor')).status).toBe(200);
  expect((await ask('POST', '/account/second-factor/begin')).status).toBe(200);
  await setUp();
  expect((await ask('GET', '/people')).status).toBe(200);
});

test('at the door by HTTP: only the code is missing, then in', async () => {
  const { key } = await setUp();
  const post = (body: object) =>
    signInAt(
      world,
      new Request('http://millrace.example/session', {
        method: 'POST',
        headers: { 'sec-fetch-site': 'same-origin', host: 'millrace.example' },
        body: JSON.stringify({ email: 'ines@thornwick.example', password: PASSWORD, ...body }),
      }),
    );
  const asked = await post({});
  expect([asked.status, (await asked.json()).wants]).toEqual([401, 'code']);
  const wrong = await post({ code: '000000' });
  expect([wrong.status, (await wrong.json()).wants]).toEqual([401, undefined]);
  expect((await post({ code: codeOf(key) })).status).toBe(200);
});

test('a program sets up none; the secret is kept sealed and moves with the key', async () => {
  const token = await makeToken(world, ines.userId, 'test', 1);
  const response = await answerApi(
    world,
    new Request('http://millrace.example/api/v1/account/second-factor/begin', {
      method: 'POST',
      headers: { authorization: `Bearer ${token}` },
    }),
    '/account/second-factor/begin',
  );
  expect(response.status).toBe(409);
  const { key } = await setUp();
  const [row] = await world.db<{ secret: string }[]>`select secret from second_factor`;
  expect(row?.secret).not.toContain(key.replaceAll(' ', ''));
  expect(unseal(world.secret, row?.secret ?? '')).toBe(key.replaceAll(' ', ''));
  const secret = newKey();
  await moveKey(world, world.secret, secret);
  expect(await checkCode({ ...world, secret }, ines.userId, codeOf(key))).toBe('right');
  expect(seal(secret, 'x')).not.toBe('x');
});
