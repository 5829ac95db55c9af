/** The real adapters against real servers: Dovecot by IMAP, Radicale by CalDAV. */
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { meetingsIn } from '../../core/intake';
import { startCalendars } from '../../standins/calendars';
import { startMailboxes } from '../../standins/mailboxes';
import { freePort } from '../../testing/ports';
import type { Proof, WorldFailure } from '../ports';
import { openBox } from '../box';
import { httpCalendars } from './calendars';
import { imapMailboxes } from './mailboxes';

const failure = (work: Promise<unknown>): Promise<WorldFailure> =>
  work.then(
    () => Promise.reject(new Error('it should have failed')),
    (error: unknown) => error as WorldFailure,
  );

const mail = (subject: string, more = '', body = 'Hello'): Buffer =>
  Buffer.from(
    `From: Owen Tranter <Owen@marlpit-nurseries.example>\r\nTo: office@thornwick.example\r\nSubject: ${subject}\r\nMessage-ID: <${subject.replace(/\W/g, '')}@marlpit.example>\r\nDate: Mon, 23 Nov 2026 10:00:00 +0000\r\n${more}\r\n${body}\r\n`,
  );

describe('a mailbox in Dovecot', () => {
  let server: Awaited<ReturnType<typeof startMailboxes>>;
  let boxes: ReturnType<typeof imapMailboxes>;
  const account = {
    host: 'imap.thornwick.example',
    port: 993,
    secure: true,
    user: 'office@thornwick.example',
    proof: { by: 'password', password: 'glasshouse' } as Proof,
    privateNetwork: false,
  };
  const ask = { folder: 'INBOX', cursor: null, unreadOnly: false, limit: 50 };
  beforeAll(async () => {
    server = await startMailboxes({
      imapPort: await freePort(),
      lmtpPort: await freePort(),
      accounts: { 'office@thornwick.example': 'glasshouse', 'full@thornwick.example': 'glasshouse' },
    });
    boxes = imapMailboxes(`127.0.0.1:${server.port}`, openBox);
    for (const subject of ['One', 'Two', 'Three']) await server.deliver('office@thornwick.example', mail(subject));
  });
  afterAll(() => server.close());

  test('what is there, then only what is new, and nothing is changed by looking', async () => {
    const first = await boxes.look(account, ask);
    expect(first.mails.map((entry) => entry.subject)).toEqual(['One', 'Two', 'Three']);
    expect(first.mails[0]).toMatchObject({
      from: 'owen@marlpit-nurseries.example',
      fromName: 'Owen Tranter',
      text: 'Hello\n',
      answered: false,
      sentAt: Date.parse('2026-11-23T10:00:00Z'),
    });
    expect((await boxes.look(account, { ...ask, cursor: first.cursor })).mails).toEqual([]);
    await server.deliver('office@thornwick.example', mail('Four'));
    const second = await boxes.look(account, { ...ask, cursor: first.cursor });
    expect(second.mails.map((entry) => entry.subject)).toEqual(['Four']);
    // All are unread still: nobody has read them.
    expect((await boxes.look(account, { ...ask, unreadOnly: true })).mails).toHaveLength(4);
  });

  test('a few at a time, oldest first, with more to come', async () => {
    const begin = { uidValidity: (await boxes.look(account, ask)).cursor.uidValidity, uidNext: 1 };
    const first = await boxes.look(account, { ...ask, cursor: begin, limit: 2 });
    expect([first.mails.map((entry) => entry.subject), first.more]).toEqual([['One', 'Two'], true]);
    const second = await boxes.look(account, { ...ask, cursor: first.cursor, limit: 2 });
    expect([second.mails.map((entry) => entry.subject), second.more]).toEqual([['Three', 'Four'], false]);
  });

  test('none, and the place behind all that lies there', async () => {
    const begun = await boxes.look(account, { ...ask, limit: 0 });
    expect([begun.mails, begun.more]).toEqual([[], false]);
    await server.deliver('office@thornwick.example', mail('After that'));
    const next = await boxes.look(account, { ...ask, cursor: begun.cursor });
    expect(next.mails.map((entry) => entry.subject)).toEqual(['After that']);
  });

  test('a folder that was made anew is read from its beginning', async () => {
    const again = await boxes.look(account, { ...ask, cursor: { uidValidity: '1', uidNext: 999 } });
    expect(again.mails.length).toBeGreaterThan(0);
  });

  test('files come along, a mail that is too large comes without its words', async () => {
    const parts = `MIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=x\r\n`;
    const body = `--x\r\nContent-Type: text/plain\r\n\r\nsee my CV\r\n--x\r\nContent-Type: application/pdf; name=cv.pdf\r\nContent-Disposition: attachment; filename=cv.pdf\r\nContent-Transfer-Encoding: base64\r\n\r\nJVBERi0xLjQ=\r\n--x--`;
    await server.deliver('full@thornwick.example', mail('With a file', parts, body));
    await server.deliver('full@thornwick.example', mail('Large', '', 'x'.repeat(120).concat('\r\n').repeat(110_000)));
    const { mails } = await boxes.look({ ...account, user: 'full@thornwick.example' }, ask);
    expect(mails.map((entry) => [entry.subject, entry.files.map((file) => file.name)])).toEqual([
      ['With a file', ['cv.pdf']],
      ['Large', []],
    ]);
    expect(mails[1]).toMatchObject({ text: '', unread: expect.stringMatching(/too large/) });
  });

  test('a wrong password, a missing folder and a server that is away say what they are', async () => {
    expect(await failure(boxes.look({ ...account, proof: { by: 'password', password: 'wrong' } }, ask))).toMatchObject({
      message: 'imap.thornwick.example refuses the name or the password',
      retryable: false,
    });
    expect((await failure(boxes.look(account, { ...ask, folder: 'Nowhere' }))).message).toMatch(/folder “Nowhere” cannot be opened/);
    expect(await failure(imapMailboxes(`127.0.0.1:${await freePort()}`, openBox).look(account, ask))).toMatchObject({
      code: 'unreachable',
      retryable: true,
    });
    expect(await failure(imapMailboxes(null, openBox).look(account, ask))).toMatchObject({ code: 'unreachable' });
  });
});

describe('a calendar in Radicale', () => {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'calendars-'));
  let server: Awaited<ReturnType<typeof startCalendars>>;
  let calendars: ReturnType<typeof httpCalendars>;
  const account = {
    kind: 'caldav' as const,
    privateNetwork: false,
    url: 'https://calendar.thornwick.example/sales/visits/',
    user: 'sales',
    password: 'glasshouse',
  };
  const from = Date.parse('2026-11-24T00:00:00Z');
  const until = from + 14 * 86_400_000;
  beforeAll(async () => {
    fs.cpSync('demo/calendars', folder, { recursive: true });
    server = await startCalendars({ port: await freePort(), user: 'sales', password: 'glasshouse', folder });
    calendars = httpCalendars(`127.0.0.1:${server.port}`, openBox);
  });
  afterAll(async () => {
    await server.close();
    fs.rmSync(folder, { recursive: true, force: true });
  });

  test('the meetings of the next days, series unrolled', async () => {
    const texts = await calendars.read(account, from, until);
    const titles = texts.flatMap((text) => meetingsIn(text, from, until, 'Europe/London').map((meeting) => meeting.title)).sort();
    expect(titles).toEqual([
      'Climate control for the palm house',
      'First talk about the propagation house',
      'Installer round',
      'Installer round',
      'Monday round',
      'Monday round',
    ]);
  });

  test('one event as a file that is fetched', async () => {
    const texts = await calendars.read({ ...account, kind: 'feed', url: `${account.url}kestrel.ics` }, from, until);
    expect(texts.flatMap((text) => meetingsIn(text, from, until, 'Europe/London'))).toHaveLength(1);
  });

  test('wrong passwords, wrong addresses and silence say what they are', async () => {
    const read = (more: Partial<typeof account>, of = calendars) => failure(of.read({ ...account, ...more }, from, until));
    expect(await read({ password: 'wrong' })).toMatchObject({ message: 'calendar.thornwick.example refuses the name or the password' });
    expect(await read({ url: 'https://calendar.thornwick.example/sales/none/' })).toMatchObject({ code: 'not found' });
    expect(await read({ url: 'visits' })).toMatchObject({ message: '“visits” is no address of a calendar: it begins with https://' });
    expect(await read({}, httpCalendars(`127.0.0.1:${await freePort()}`, openBox))).toMatchObject({ code: 'unreachable', retryable: true });
    expect(await read({ url: 'http://127.0.0.1:9/' }, httpCalendars(null, openBox))).toMatchObject({ code: 'unreachable' });
  });
});
