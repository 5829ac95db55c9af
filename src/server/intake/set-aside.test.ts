/** One bad mail or meeting never stops a door: it is set aside as it came, and the ones behind it are taken. */
import { CALENDAR, MAILBOX, strangersMail } from '../../testing/watched';
import { demoWorld, type TestWorld } from '../../testing/world';
import { WorldFailure, type BoxWork, type FoundMail } from '../ports';
import { bringSetAside, dropSetAside, listOfSetAside, openSetAside, rawOfSetAside, receiveRaw, setAsideCounts } from './set-aside';
import { createWatched, lookAtDoors, saveWatched, watchedDoor, watchedDoors } from './watched';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
beforeEach(async () => {
  ({ world, ines } = await demoWorld());
  for (const door of await watchedDoors(world))
    await saveWatched(world, ines, door.id, { settings: door.settings, password: null, isOn: false });
});
afterEach(() => world.close());

const raw = (subject: string, body = 'Please send an offer.'): Buffer =>
  Buffer.from(
    `From: Owen Tranter <owen@marlpit-nurseries.example>\r\nSubject: ${subject}\r\nMessage-ID: <${subject}@marlpit.example>\r\n\r\n${body}\r\n`,
  );
const mail = (subject: string, more: Partial<FoundMail> = {}): FoundMail => strangersMail(subject, { raw: raw(subject), ...more });
const FAR = { ...CALENDAR, aheadHours: 300 };
const event = (uid: string, start: string): string =>
  `BEGIN:VEVENT\r\nUID:${uid}\r\nDTSTART:${start}\r\nDTEND:20261127T150000Z\r\nSUMMARY:${uid}\r\nORGANIZER:mailto:lucia@thornwick.example\r\nATTENDEE;CN=Ann Ofield:mailto:ann-${uid}@kestrel.example\r\nEND:VEVENT\r\n`;

test('a mail that cannot be read is set aside, those around it are taken', async () => {
  const { id } = await createWatched(world, ines, { name: 'Box', settings: MAILBOX, password: 'x', isOn: true });
  world.outside.mailbox.push(
    mail('One'),
    mail('Two', { unread: 'this mail takes longer to read than it may (15 seconds)' }),
    mail('Three'),
  );
  await lookAtDoors(world);
  const door = await watchedDoor(world, id);
  expect([door.problem, door.entries.map((entry) => entry.raw.subject).sort()]).toEqual([null, ['One', 'Three']]);
  const [aside] = await listOfSetAside(world);
  expect(aside).toMatchObject({
    intakeName: 'Box',
    says: 'owen@marlpit-nurseries.example: Two',
    why: 'this mail takes longer to read than it may (15 seconds)',
  });
  expect(Buffer.from((await rawOfSetAside(world, aside!.id)).content)).toEqual(raw('Two'));
  expect(await setAsideCounts(world)).toEqual(new Map([[id, 1]]));
  // The door goes on behind it: nothing is tried again by itself.
  await lookAtDoors(world);
  expect(await listOfSetAside(world)).toHaveLength(1);
});

test('a mail that breaks when it is taken is set aside too, mended and brought again', async () => {
  const { id } = await createWatched(world, ines, { name: 'Box', settings: MAILBOX, password: 'x', isOn: true });
  world.outside.mailbox.push(mail('Broken', { messageId: null as unknown as string }), mail('Fine'));
  await lookAtDoors(world);
  expect((await watchedDoor(world, id)).entries.map((entry) => entry.raw.subject)).toEqual(['Fine']);
  const [aside] = await listOfSetAside(world);
  expect(aside?.why).toBe('something broke inside Millrace when it was taken in');
  expect((await openSetAside(world, aside!.id)).text).toBe(raw('Broken').toString());
  expect(await bringSetAside(world, ines, aside!.id, raw('Mended').toString())).toEqual({ ok: true, why: '' });
  expect((await watchedDoor(world, id)).entries.map((entry) => entry.raw.subject).sort()).toEqual(['Fine', 'Mended']);
  expect(await listOfSetAside(world)).toEqual([]);
  await expect(bringSetAside(world, ines, aside!.id, null)).rejects.toThrow('dealt with already');
});

test('an answer that cannot be read is accepted and set aside; what is only busy is offered again', async () => {
  let failure = new WorldFailure('too large', 'this mail holds more than can be read (24 MB)', false);
  const box: TestWorld['box'] = {
    ...world.box,
    run: (kind, input) =>
      kind === 'mail' && Buffer.from((input as BoxWork['mail']['in']).bytes).includes('hostile')
        ? Promise.reject(failure)
        : world.box.run(kind, input),
  };
  const hostile = { ...world, box };
  await receiveRaw(hostile, raw('x', 'hostile'));
  await receiveRaw(hostile, raw('y', 'Yes, please.'));
  expect(await listOfSetAside(world)).toMatchObject([{ intakeId: null, why: 'this mail holds more than can be read (24 MB)' }]);
  expect(await world.db`select 1 from message where direction = 'in' and subject = 'y'`).toHaveLength(1);
  expect(await bringSetAside(hostile, ines, (await listOfSetAside(world))[0]!.id, null)).toMatchObject({ ok: false });
  failure = new WorldFailure('busy', 'too much is being read at the moment', true);
  await expect(receiveRaw(hostile, raw('z', 'hostile'))).rejects.toThrow('too much is being read');
  expect(await listOfSetAside(world)).toHaveLength(1);
});

test('an odd mail with NUL and halves of letters in every part is an answer like any other', async () => {
  await receiveRaw(
    world,
    Buffer.from(
      'From: "A\u0000\ud800" <a@b.example>\r\nSubject: =?utf-8?B?7aCA?=\r\nMessage-ID: <odd@b.example>\r\n\r\nNo\u0000 \ud83d thanks\r\n',
    ),
  );
  expect(await listOfSetAside(world)).toEqual([]);
  expect(await world.db`select 1 from message where rfc_id = '<odd@b.example>'`).toHaveLength(1);
});

test('a meeting that cannot be read is set aside, the others are taken; dropped, taken back, mended', async () => {
  const { id } = await createWatched(world, ines, { name: 'Calendar', settings: FAR, password: 'x', isOn: true });
  world.outside.calendars = [`BEGIN:VFAR\r\nVERSION:2.0\r\n${event('good', '20261127T140000Z')}${event('bad', 'some time')}END:VFAR\r\n`];
  await lookAtDoors(world);
  expect((await watchedDoor(world, id)).entries.map((entry) => entry.raw.title)).toEqual(['good']);
  const [aside] = await listOfSetAside(world);
  expect(aside).toMatchObject({ kind: 'meeting', says: 'bad', intakeName: 'Calendar' });
  await dropSetAside(world, ines, aside!.id, true);
  expect(await listOfSetAside(world)).toEqual([]);
  await dropSetAside(world, ines, aside!.id, false);
  const { text } = await openSetAside(world, aside!.id);
  expect(await bringSetAside(world, ines, aside!.id, text!.replace('some time', '20261127T140000Z'))).toEqual({ ok: true, why: '' });
  expect((await watchedDoor(world, id)).entries.map((entry) => entry.raw.title).sort()).toEqual(['bad', 'good']);
});

test('a password goes nowhere but where it was kept for', async () => {
  const { id } = await createWatched(world, ines, { name: 'Box', settings: MAILBOX, password: 'x', isOn: false });
  for (const settings of [
    { ...MAILBOX, host: 'imap.evil.example' },
    { ...MAILBOX, port: 143 },
    { ...MAILBOX, secure: false },
  ])
    await expect(saveWatched(world, ines, id, { settings, password: null, isOn: false })).rejects.toThrow(
      /the password was kept for imap\.thornwick\.example:993, TLS/,
    );
  await saveWatched(world, ines, id, { settings: { ...MAILBOX, host: 'imap.new.example' }, password: 'y', isOn: false });
  const [entry] = await world.db<
    { detail: Record<string, string> }[]
  >`select detail from audit where what = 'switched a mailbox off' order by id desc limit 1`;
  expect(entry?.detail).toMatchObject({
    at: expect.stringContaining('imap.new.example'),
    before: expect.stringContaining('imap.thornwick.example'),
    password: 'changed',
  });
});

test('a server in our own network is let in by the owner only', async () => {
  const settings = { ...MAILBOX, host: '10.0.0.7', privateNetwork: true };
  const ask = { name: 'Inside', settings, password: 'x', isOn: false };
  await expect(createWatched(world, ines, ask)).rejects.toThrow('by the owner only');
  const [ruud] = await world.db<{ id: string }[]>`select id from app_user where role = 'owner'`;
  const { id } = await createWatched(world, { userId: ruud!.id, name: 'Ruud' }, ask);
  await saveWatched(world, ines, id, { settings, password: null, isOn: true });
  await expect(saveWatched(world, ines, id, { settings: { ...settings, host: '10.0.0.8' }, password: 'x', isOn: true })).rejects.toThrow(
    'by the owner only',
  );
});
