/** Where Millrace connects: every spelling of an address, every way to be led astray. */
import http from 'node:http';
import { request } from 'undici';
import { dialAgent, dialTo, isPrivateAddress, NotConnected } from './index';

const open = { standin: null };
const refused = (work: Promise<unknown>): Promise<NotConnected> =>
  work.then(
    () => Promise.reject(new Error('it should have been refused')),
    (error: unknown) => error as NotConnected,
  );

test.each([
  '127.0.0.1',
  '127.8.9.10',
  '0.0.0.0',
  '10.1.2.3',
  '100.64.0.1',
  '169.254.169.254',
  '172.16.0.1',
  '172.31.255.255',
  '192.0.2.1',
  '192.168.1.1',
  '198.18.0.1',
  '224.0.0.1',
  '255.255.255.255',
  '::',
  '::1',
  '::ffff:127.0.0.1',
  '::ffff:7f00:1',
  '::ffff:8.8.8.8',
  '::127.0.0.1',
  '64:ff9b::7f00:1',
  'fc00::1',
  'fd12:3456::1',
  'fe80::1',
  'fe80::1%eth0',
  'ff02::1',
  '2001:db8::1',
  '2002:7f00:1::',
  '',
  'not an address',
])('%s is no public address', (address) => {
  expect(isPrivateAddress(address)).toBe(true);
});

test.each(['8.8.8.8', '172.15.0.1', '172.32.0.1', '192.169.0.1', '100.128.0.1', '2606:4700::1', '2a00:1450:4001::1'])(
  '%s is public',
  (address) => {
    expect(isPrivateAddress(address)).toBe(false);
  },
);

test.each([
  '127.0.0.1',
  '127.1',
  '0x7f.1',
  '0x7f000001',
  '2130706433',
  '017700000001',
  '0177.0.0.01',
  '[::1]',
  '[::ffff:127.0.0.1]',
  '[0:0:0:0:0:ffff:7f00:1]',
  '169.254.169.254',
  '0.0.0.0',
  '0',
  'localhost',
  'LOCALHOST.',
])('nothing is connected to %s', async (host) => {
  expect((await refused(dialTo(host, 80, open))).code).toBe('EREFUSED');
  // The owner lets it, for that connection.
  expect((await dialTo(host, 80, { standin: null, privateNetwork: true })).port).toBe(80);
});

test.each(['shop.example', 'example', 'SHOP.EXAMPLE.'])('%s exists only where a stand-in serves it', async (host) => {
  expect((await refused(dialTo(host, 80, open))).code).toBe('ENOTFOUND');
  expect(await dialTo(host, 80, { standin: '127.0.0.1:8123' })).toEqual({ address: '127.0.0.1', port: 8123, isStandin: true });
});

test('what is no host at all is none', async () => {
  for (const host of ['', ' ', 'a b', 'a/b', '[', 'x'.repeat(300)]) expect((await refused(dialTo(host, 80, open))).code).toBe('ENOTFOUND');
});

describe('an agent', () => {
  let server: http.Server;
  let port: number;
  beforeAll(async () => {
    server = http.createServer((_request, response) => response.end('inside'));
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    ({ port } = server.address() as { port: number });
  });
  afterAll(() => {
    server.close();
    server.closeAllConnections();
  });
  const ask = (host: string, privateNetwork = false): Promise<string> => {
    const dispatcher = dialAgent({ standin: null, privateNetwork }, { connectMs: 1_000, answerMs: 1_000 });
    return request(`http://${host}:${port}/`, { dispatcher }).then((response) => response.body.text());
  };

  test.each(['127.0.0.1', '0x7f.1', '2130706433', '[::ffff:127.0.0.1]', 'localhost'])(
    'does not reach %s, where something listens',
    async (host) => {
      const before = await refused(ask(host));
      expect(before.message).toMatch(/is not a public host/);
      // Nobody can tell an open port from a closed one by what is said.
      const closed = await refused(dialTo(host.replace(/^\[|\]$/g, ''), 1, open));
      expect(closed.message.split(' ').slice(1)).toEqual(before.message.split(' ').slice(1));
    },
  );

  test('reaches it where the owner has let that connection', async () => {
    expect(await ask('127.0.0.1', true)).toBe('inside');
  });
});
