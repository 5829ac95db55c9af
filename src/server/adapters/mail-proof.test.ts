/** What a reader's server finds out about a mail of ours: SPF, our own DKIM signature and DMARC, by the standard package, over a real name server. */
import { generateKeyPairSync } from 'node:crypto';
import { startNames } from '../../standins/names';
import type { OutgoingMail, Signer } from '../ports';
import { smtpMail } from './mail';
import { mailProof, nameServers } from './mail-proof';

const pair = generateKeyPairSync('rsa', {
  modulusLength: 2048,
  publicKeyEncoding: { type: 'spki', format: 'der' },
  privateKeyEncoding: { type: 'pkcs8', format: 'pem' },
});
const signer: Signer = { domain: 'thornwick.example', selector: 'mr1', privateKey: pair.privateKey };
let server: Awaited<ReturnType<typeof startNames>>;
let mail: ReturnType<typeof smtpMail>;
beforeAll(async () => {
  server = await startNames({ 'smtp.quayside.example': { a: ['192.0.2.7'] }, 'smtp.other.example': { a: ['198.51.100.9'] } }, 0);
  mail = smtpMail({ host: '127.0.0.1', port: 1, statusUrl: null, prove: mailProof(nameServers(`127.0.0.1:${server.port}`)) });
});
afterAll(() => server.close());
beforeEach(() => {
  for (const name of ['thornwick.example', '_dmarc.thornwick.example', 'mr1._domainkey.thornwick.example']) server.zone.delete(name);
});

const letter: OutgoingMail = {
  from: { name: 'Thornwick', address: 'sales@thornwick.example' },
  to: { name: 'Mara', address: 'mara@y.example' },
  subject: 'Grüße aus dem Gewächshaus',
  text: 'Hello,\n\na line with spaces at its end   \n.\n',
  messageId: '<1@millrace>',
  inReplyTo: null,
  references: [],
  unsubscribeUrl: null,
  date: Date.parse('2026-11-24T10:00:00Z'),
};
const prove = async (host: string | null, by: Signer | null = signer) =>
  mail.prove(await mail.compose({ ...letter, signer: by }), 'sales@thornwick.example', host);

test('a domain that says nothing', async () => {
  expect(await prove('smtp.quayside.example', null)).toEqual({
    domain: 'thornwick.example',
    host: 'smtp.quayside.example',
    ip: '192.0.2.7',
    spf: { result: 'none', record: null },
    dkim: 'none',
    dmarc: { record: null, policy: null, passes: false },
  });
});

test('a domain in order: the server may send, the signature holds, both prove the mail', async () => {
  server.zone.set('thornwick.example', { txt: ['another=line', 'v=spf1 ip4:192.0.2.0/28 ~all'] });
  server.zone.set('_dmarc.thornwick.example', { txt: ['v=DMARC1; p=quarantine'] });
  server.zone.set('mr1._domainkey.thornwick.example', { txt: [`v=DKIM1; k=rsa; p=${pair.publicKey.toString('base64')}`] });
  expect(await prove('smtp.quayside.example')).toMatchObject({
    spf: { result: 'pass', record: 'v=spf1 ip4:192.0.2.0/28 ~all' },
    dkim: 'pass',
    dmarc: { policy: 'quarantine', passes: true },
  });
  // From another machine the signature alone proves it; without either nothing does.
  expect(await prove('smtp.other.example')).toMatchObject({ spf: { result: 'softfail' }, dkim: 'pass', dmarc: { passes: true } });
  expect(await prove('smtp.other.example', null)).toMatchObject({ dkim: 'none', dmarc: { passes: false } });
  expect(await prove(null)).toMatchObject({ ip: null, dkim: 'pass' });
});

test('another key at the domain is not ours', async () => {
  const other = generateKeyPairSync('rsa', {
    modulusLength: 2048,
    publicKeyEncoding: { type: 'spki', format: 'der' },
    privateKeyEncoding: { type: 'pkcs8', format: 'pem' },
  });
  server.zone.set('mr1._domainkey.thornwick.example', { txt: [`v=DKIM1; k=rsa; p=${other.publicKey.toString('base64')}`] });
  expect((await prove('smtp.quayside.example')).dkim).not.toBe('pass');
  server.zone.delete('mr1._domainkey.thornwick.example');
  expect((await prove('smtp.quayside.example')).dkim).not.toBe('pass');
});

test('what cannot be read is said to be that', async () => {
  server.zone.set('thornwick.example', { txt: ['v=spf1 mx -all', 'v=spf1 a -all'] });
  expect((await prove('smtp.quayside.example')).spf.result).toBe('permerror');
  server.zone.set('thornwick.example', { txt: ['v=spf1 include:thornwick.example -all'] });
  expect((await prove('smtp.quayside.example')).spf.result).toBe('permerror');
});

test('a server named by its number is asked of nobody', async () => {
  expect(await prove('127.0.0.1')).toMatchObject({ host: '127.0.0.1', ip: null });
});

test('names of made-up worlds are asked for nowhere else', async () => {
  const alone = smtpMail({ host: '127.0.0.1', port: 1, statusUrl: null, prove: mailProof(nameServers(null)) });
  expect(await alone.prove(await mail.compose(letter), 'sales@thornwick.example', 'smtp.quayside.example')).toMatchObject({
    ip: null,
    spf: { record: null },
  });
});
