import { CALENDAR, MAILBOX, strangersMail } from '../../testing/watched';
import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { WorldFailure, type FoundMail } from '../ports';
import { people } from '../records/records';
import { createWatched, lookAtDoors, lookNow, mendArrival, previewWatched, saveWatched, watchedDoor, watchedDoors } from './watched';
import { createFlow } from '../flows/flows';
import { release } from '../flows/releases';
import { decideReview, desk } from '../desk/reviews';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;

beforeEach(async () => {
  ({ world, ines } = await demoWorld());
  // The demo's own doors stay shut: each test opens one of its own.
  for (const door of await watchedDoors(world))
    await saveWatched(world, ines, door.id, { settings: door.settings, password: null, isOn: false });
});
afterEach(() => world.close());

const found = (subject: string, more: Partial<FoundMail> = {}): FoundMail =>
  strangersMail(subject, {
    text: 'Please send an offer.\n\nKind regards\nOwen\n\n> old words',
    sentAt: Date.parse('2026-11-23T10:00:00Z'),
    ...more,
  });
const open = async (settings: typeof MAILBOX | typeof CALENDAR) =>
  (await createWatched(world, ines, { name: 'A door', settings, password: 'secret', isOn: true })).id;

describe('a mailbox', () => {
  test('a mail is taken in once, with its own words only, its files kept and read', async () => {
    const id = await open(MAILBOX);
    const cv = Buffer.from('%PDF-1.4 Experience\n2019 – now Fitter, One Ltd');
    world.outside.mailbox.push(
      found('Offer', {
        files: [
          { name: '../cv.pdf', bytes: cv },
          { name: 'photo.jpg', bytes: Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0]) },
        ],
      }),
    );
    expect(await lookAtDoors(world)).toBe(1);
    await lookNow(world, id);
    expect(await lookAtDoors(world)).toBe(0);
    const { entries, problem, taken } = await watchedDoor(world, id);
    expect([entries.length, problem, taken]).toEqual([1, null, 1]);
    expect(entries[0]).toMatchObject({ personName: 'Owen Tranter', raw: { text: 'Please send an offer.', day: '2026-11-23' } });
    expect(entries[0]?.answers.papers).toContain('2019 – now Fitter, One Ltd');
    expect(entries[0]?.files.map((file) => file.name)).toEqual(['.._cv.pdf']);
    const [person] = (await people(world, { limit: 5 })).items;
    expect(person).toMatchObject({ email: 'owen@marlpit-nurseries.example', companyName: 'marlpit-nurseries.example' });
  });

  test('machines, answers and what was answered by hand are left alone', async () => {
    const id = await open(MAILBOX);
    world.outside.mailbox.push(
      found('away', { autoSubmitted: true }),
      found('re', { inReplyTo: '<x@y.example>' }),
      found('done', { answered: true }),
    );
    expect(await lookAtDoors(world)).toBe(0);
    expect((await watchedDoor(world, id)).entries).toEqual([]);
  });

  test('looking without taking in says what would become of each, and keeps nothing', async () => {
    world.outside.mailbox.push(found('Offer'), found('away', { autoSubmitted: true }));
    expect(await previewWatched(world, ines, { id: null, settings: MAILBOX, password: 'x' })).toEqual([
      { says: 'Owen Tranter: away', becomes: 'is left alone: a machine sent it', taken: false },
      { says: 'Owen Tranter: Offer', becomes: 'is taken in', taken: true },
    ]);
    expect((await people(world, { limit: 5 })).items).toEqual([]);
    world.outside.mailboxFails = new WorldFailure('refused', 'imap.thornwick.example refuses the name or the password', false);
    await expect(previewWatched(world, ines, { id: null, settings: MAILBOX, password: 'x' })).rejects.toThrow('refuses the name');
  });

  test('a door that begins from now on leaves what lies there, and takes what comes after its first look', async () => {
    const fromNow = { ...MAILBOX, rule: { ...MAILBOX.rule, begins: 'from now on' as const } };
    world.outside.mailbox.push(found('Old'), found('Older', { inReplyTo: '<x@y.example>' }));
    expect(await previewWatched(world, ines, { id: null, settings: fromNow, password: 'x' })).toEqual([
      { says: 'Owen Tranter: Older', becomes: 'is left alone: it is an answer', taken: false },
      { says: 'Owen Tranter: Old', becomes: 'stays as it lies; one like it is taken in', taken: false },
    ]);
    const id = await open(fromNow);
    expect(await lookAtDoors(world)).toBe(0);
    world.outside.mailbox.push(found('Fresh'));
    await lookNow(world, id);
    expect(await lookAtDoors(world)).toBe(1);
    expect((await watchedDoor(world, id)).entries.map(({ raw }) => raw.subject)).toEqual(['Fresh']);
  });

  test('a door that cannot be looked at says why, and what lay there comes once it can', async () => {
    const id = await open(MAILBOX);
    world.outside.mailbox.push(found('Offer'));
    world.outside.mailboxFails = new WorldFailure('unreachable', 'imap.thornwick.example could not be reached', true);
    expect(await lookAtDoors(world)).toBe(0);
    expect((await watchedDoor(world, id)).problem).toBe('imap.thornwick.example could not be reached');
    expect(await lookAtDoors(world)).toBe(0);
    world.outside.mailboxFails = null;
    await lookNow(world, id);
    expect(await lookAtDoors(world)).toBe(1);
    expect((await watchedDoor(world, id)).problem).toBeNull();
  });

  test('a sender that is no address is refused with its reason, mended, and brought again', async () => {
    const id = await open(MAILBOX);
    world.outside.mailbox.push(found('Offer', { from: 'owen at marlpit', fromName: '' }));
    await lookAtDoors(world);
    const [entry] = (await watchedDoor(world, id)).entries;
    expect(entry).toMatchObject({ state: 'refused' });
    expect(entry?.why).toMatch(/e-mail|name/);
    expect(await mendArrival(world, entry!.id, { from: 'owen@marlpit-nurseries.example', name: 'Owen Tranter' })).toMatchObject({
      ok: true,
    });
    await expect(mendArrival(world, entry!.id, {})).rejects.toThrow('taken in already');
  });

  test('a flow begins with a mail and sees what it says', async () => {
    const [door] = await watchedDoors(world).then((all) => all.filter((entry) => entry.name === 'Office mailbox'));
    await saveWatched(world, ines, door!.id, { settings: door!.settings, password: null, isOn: true });
    world.outside.mailbox.push(
      found('Bewerbung', {
        from: 'emrys@mailhall.example',
        fromName: 'Emrys Calloway',
        text: 'I would like to apply. Please find my CV attached.',
        files: [{ name: 'cv.pdf', bytes: Buffer.from('%PDF-1.4 Employment\n2014 - 2020 Field service technician, Pennine Boilers Ltd') }],
      }),
    );
    await testWorker(world).drain();
    const applications = await world.db<
      { stage: string; name: string; jobs: string }[]
    >`select a.stage, p.name, p.jobs from application a join person p on p.id = a.person_id`;
    expect([...applications]).toEqual([
      { stage: 'Received', name: 'Emrys Calloway', jobs: '2014 – 2020: Field service technician, Pennine Boilers Ltd' },
    ]);
  });

  test('a mail is answered in its own thread, from the book of answers', async () => {
    const made = await createFlow(
      world,
      ines,
      'flow "Asked"\nabout person\n\ntake in from mailbox "A door"\nreply to entry.text from answers as answer\nask "north" to approve answer\nsend answer\n',
    );
    await open(MAILBOX);
    await release(world, ines, made.id);
    world.outside.mailbox.push(found('Two bays', { text: 'Good morning, how long would the work take?' }));
    await lookAtDoors(world);
    await testWorker(world).drain();
    const [review] = (await desk(world, ines)).reviews;
    expect(review?.message).toMatchObject({ subject: 'Re: Two bays', template: null });
    await decideReview(world, ines, review?.id ?? '', { does: 'approve' });
    await testWorker(world).drain();
    world.now += 86_400_000;
    await testWorker(world).drain();
    expect(world.outside.mails.filter((mail) => mail.subject === 'Re: Two bays')).toEqual([
      expect.objectContaining({ inReplyTo: '<Two bays@marlpit.example>', references: ['<Two bays@marlpit.example>'] }),
    ]);
  });

  test('a password is kept sealed, and stays when none is given', async () => {
    const id = await open(MAILBOX);
    const [row] = await world.db<{ secret: string }[]>`select secret from intake where id = ${id}`;
    expect(row?.secret).not.toContain('secret');
    await saveWatched(world, ines, id, { settings: MAILBOX, password: null, isOn: true });
    const [after] = await world.db<{ secret: string }[]>`select secret from intake where id = ${id}`;
    expect(after?.secret).toBe(row?.secret);
  });
});

const meeting = (
  start: string,
  uid = 'v1',
  people = ['imke@kestrel-botanic.example', 'tomasz@thornwick.example', 'col@kestrel-botanic.example'],
) =>
  [
    'BEGIN:VCALENDAR',
    'BEGIN:VEVENT',
    `UID:${uid}`,
    'SUMMARY:Palm house',
    `DTSTART:${start}`,
    `DTEND:${start}`,
    ...people.map((address) => `ATTENDEE;CN=${address.split('@')[0] ?? ''} Saarland:mailto:${address}`),
    'END:VEVENT',
    'END:VCALENDAR',
  ].join('\r\n');

describe('a calendar', () => {
  const stamp = (at: number): string => new Date(at).toISOString().replace(/[-:]/g, '').replace(/\.\d+/, '');
  const HOUR = 3_600_000;

  test('all people from outside, so long before it begins; a meeting that moves is another occasion', async () => {
    const id = await open(CALENDAR);
    world.outside.calendars = [meeting(stamp(world.now + 30 * HOUR))];
    expect(await lookAtDoors(world)).toBe(0);
    world.now += 7 * HOUR;
    expect(await lookAtDoors(world)).toBe(2);
    const { entries } = await watchedDoor(world, id);
    expect(entries.map((entry) => entry.raw.from).sort()).toEqual(['col@kestrel-botanic.example', 'imke@kestrel-botanic.example']);
    expect(entries[0]?.raw).toMatchObject({ title: 'Palm house', ours: 'tomasz Saarland' });
    await lookNow(world, id);
    expect(await lookAtDoors(world)).toBe(0);
    world.outside.calendars = [meeting(stamp(world.now + 20 * HOUR))];
    await lookNow(world, id);
    expect(await lookAtDoors(world)).toBe(2);
  });

  test('what is no calendar is said', async () => {
    const id = await open(CALENDAR);
    world.outside.calendars = ['<html>'];
    await lookAtDoors(world);
    expect((await watchedDoor(world, id)).problem).toMatch(/this is no calendar/);
  });

  test('before the call: the dossier is made and goes along by mail', async () => {
    const [door] = await watchedDoors(world).then((all) => all.filter((entry) => entry.name === 'Sales calendar'));
    await saveWatched(world, ines, door!.id, { settings: door!.settings, password: null, isOn: true });
    world.outside.calendars = [meeting(stamp(world.now + 20 * HOUR), 'v2', ['imke@kestrel-botanic.example', 'tomasz@thornwick.example'])];
    const worker = testWorker(world);
    for (let i = 0; i < 6; i++) {
      await worker.drain();
      world.now += 4_000;
    }
    expect(world.outside.mails.map((mail) => [mail.to.address, mail.attachments?.length]).sort()).toEqual([
      ['lucia@thornwick.example', 1],
      ['tomasz@thornwick.example', 1],
    ]);
  });
});
