/** The whole way of the demo's flow on a real database, with the outside in memory: file in, review, mail, answer, plan stopped. */
import { factsOf } from '../records/store/facts';
import { listDoNotContact } from './store/do-not-contact';
import { demoWorld, goodSite, replyTo, START, testWorker, type TestWorld } from '../../testing/world';
import { flows, saveDraft, startTrial, trial } from '../flows/flows';
import { release } from '../flows/releases';
import { previewImport } from '../intake/import-preview';
import { lookAtFile, refusedRows, runImport, startImport } from '../intake/imports';
import { thread, threads, trip, trips } from '../desk/overview';
import { receiveMail, unsubscribe } from './receive-mail';
import { people, personPage } from '../records/records';
import { decideReview, desk } from '../desk/reviews';
import { chooseStuck } from '../trips/stuck';
import { unsubscribeCode } from './send-due';
import type { Actor } from '../platform/world';

const DAY = 86_400_000;
const LIST = [
  'Name,Mail,Firm,Site,Country',
  'Mara Quill,m.quill@oakmere-glass.example,Oakmere Glass,oakmere-glass.example,GB',
  'Jonas Reißig,,Gärtnerei Vossbruch,gaertnerei-vossbruch.example,DE',
  'Nobody,,,,',
].join('\n');

let world: TestWorld;
let ines: Actor;
let flowId: string;
const worker = () => testWorker(world);

beforeEach(async () => {
  ({ world, ines } = await demoWorld());
  flowId = (await flows(world, 0))[0]!.id;
  goodSite(world.outside, 'oakmere-glass.example');
  goodSite(world.outside, 'gaertnerei-vossbruch.example', 3);
  world.outside.provider = (question) => ({
    value: question.provider === 'Kettlewell' ? 'j.reissig@gaertnerei-vossbruch.example' : 'info@gaertnerei-vossbruch.example',
    confidence: 0.9,
    tookMs: 3,
  });
});
afterEach(() => world.close());

async function takeIn(list = LIST): Promise<string> {
  const id = await lookAtFile(world, ines, { name: 'fair.csv', bytes: Buffer.from(list) });
  await startImport(world, ines, id, { flowId });
  await worker().drain();
  return id;
}

/** Approves everything on the desk and has the worker go on. */
async function approveAll(): Promise<void> {
  for (const review of (await desk(world)).reviews) await decideReview(world, ines, review.id, { does: 'approve' });
  await worker().drain();
}

/** Lets time pass in steps, so that what is due is done in its turn. */
async function pass(days: number): Promise<void> {
  for (const until = world.now + days * DAY; world.now < until; world.now += DAY / 24) await worker().drain();
}

test('a list is looked at, taken in, and its refused rows can be had back', async () => {
  const id = await lookAtFile(world, ines, { name: 'fair.csv', bytes: Buffer.from(LIST) });
  const preview = await previewImport(world, id, {});
  expect(preview.counts).toEqual({ new: 2, known: 0, perhaps: 0, refused: 1, newCompanies: 2, newDeals: 0, newApplications: 0 });
  expect((await people(world, {})).items).toHaveLength(0);
  await startImport(world, ines, id, { flowId });
  await expect(startImport(world, ines, id, { flowId })).rejects.toThrow('taken in already');
  await worker().drain();
  expect((await people(world, {})).items.map((person) => person.name).sort()).toEqual(['Jonas Reißig', 'Mara Quill']);
  const back = await refusedRows(world, id);
  expect(back.headings).toEqual(['Name', 'Mail', 'Firm', 'Site', 'Country', 'why refused']);
  expect(back.rows).toEqual([['Nobody', '', '', '', '', 'no e-mail, phone or site: nobody could be reached']]);
});

test('every value on a record is a fact with its source; what was read has its words and its page', async () => {
  await takeIn();
  const mara = (await people(world, { search: 'Mara' })).items[0]!;
  const page = await personPage(world, mara.id);
  const area = page.known.find((field) => field.key === 'heated_area');
  expect(area?.fact).toMatchObject({
    value: 4.2,
    source: 'site',
    url: 'http://oakmere-glass.example/',
    quote: 'We grow tomatoes on 4.2 hectares of heated glass.',
  });
  expect(page.known.find((field) => field.key === 'email')?.fact).toMatchObject({ source: 'file', sourceRef: 'fair, row 1' });
  expect(page.known.find((field) => field.key === 'service_contract')?.fact?.value).toBeNull();
  expect(page.score?.detail).toMatchObject({ band: 'hot' });
});

test('nobody is written to before a person has approved; the missing address is looked up and paid once', async () => {
  await takeIn();
  await pass(1);
  expect(world.outside.mails).toEqual([]);
  expect((await desk(world)).reviews.map((review) => review.personName).sort()).toEqual(['Jonas Reißig', 'Mara Quill']);
  expect(world.outside.asked.map((question) => question.provider)).toEqual(['Fernpost', 'Kettlewell']);
  const [flow] = await flows(world, 0);
  expect(flow?.counts?.costMicro).toBe(80_000);
});

test('approved, three touches go out in one thread, days apart, in office hours, with unsubscribe headers', async () => {
  await takeIn();
  await approveAll();
  await pass(14);
  const mara = world.outside.mails.filter((mail) => mail.to.address === 'm.quill@oakmere-glass.example');
  expect(mara.map((mail) => mail.subject)).toEqual([
    'Climate control at Oakmere Glass',
    'Re: Climate control at Oakmere Glass',
    'Re: Climate control at Oakmere Glass',
  ]);
  const [first, second, third] = mara;
  expect(second?.inReplyTo).toBe(first?.messageId);
  expect(third?.references).toEqual([first?.messageId, second?.messageId]);
  expect(first?.unsubscribeUrl).toMatch(/^http:\/\/millrace\.example\/u\/[0-9a-f-]{36}\/.{22}$/);
  expect((third?.date ?? 0) - (first?.date ?? 0)).toBe(10 * DAY);
  const all = world.outside.mails.map((mail) => mail.date).sort((a, b) => a - b);
  for (let i = 1; i < all.length; i++) expect(all[i]! - all[i - 1]!).toBeGreaterThanOrEqual(120_000);
  const [row] = (await trips(world, { flowId })).items.filter((entry) => entry.personName === 'Mara Quill');
  expect(row?.state).toBe('done');
});

test.each([
  ['Thursday after three would suit, call me.', 'interested', 'answered', true],
  ['That is too expensive for us.', 'objection', 'answered', true],
  ['Please take me off your list.', 'unsubscribe', 'ended', false],
])('an answer “%s” is %s: the plan stops by itself', async (text, kind, state, wantsPerson) => {
  await takeIn();
  await approveAll();
  await pass(1);
  const [first] = world.outside.mails;
  const before = world.outside.mails.length;
  await receiveMail(world, replyTo(first!, text));
  await pass(14);
  expect(world.outside.mails.filter((mail) => mail.to.address === first?.to.address)).toHaveLength(1);
  expect(world.outside.mails.length).toBeGreaterThan(before);
  const conversation = (await threads(world)).find((entry) => entry.personName === first?.to.name);
  expect(conversation).toMatchObject({ state, lastKind: kind });
  expect((await desk(world)).replies.map((reply) => reply.reading?.kind)).toEqual(wantsPerson ? [kind] : []);
  expect((await listDoNotContact(world.db)).map((entry) => entry.email)).toEqual(kind === 'unsubscribe' ? [first?.to.address] : []);
});

test('out of office pauses the plan until they are back', async () => {
  await takeIn();
  await approveAll();
  await pass(1);
  const [first] = world.outside.mails;
  await receiveMail(world, replyTo(first!, 'I am out of the office until 2 December.', { autoSubmitted: true }));
  await pass(20);
  const touches = world.outside.mails.filter((mail) => mail.to.address === first?.to.address);
  expect(touches).toHaveLength(3);
  expect(new Date(touches[1]!.date).toISOString().slice(0, 10) >= '2026-12-02').toBe(true);
});

test('a bounce ends the plan and the address is not written to again', async () => {
  await takeIn();
  await approveAll();
  await pass(1);
  const [first] = world.outside.mails;
  const status = `Final-Recipient: rfc822; ${first!.to.address}\r\nAction: failed\r\nStatus: 5.1.1\r\nDiagnostic-Code: smtp; 550 5.1.1 no such mailbox`;
  await receiveMail(
    world,
    replyTo(first!, 'could not be delivered', {
      from: 'postmaster@relay.example',
      inReplyTo: null,
      references: [],
      deliveryStatus: { status, original: `Message-ID: ${first!.messageId}` },
    }),
  );
  await pass(14);
  expect(world.outside.mails.filter((mail) => mail.to.address === first?.to.address)).toHaveLength(1);
  expect(await listDoNotContact(world.db)).toEqual([expect.objectContaining({ email: first?.to.address, why: 'bounced: 5.1.1' })]);
});

test('one click unsubscribes; a forged link does nothing; the same mail twice counts once', async () => {
  await takeIn();
  await approveAll();
  await pass(1);
  const [first, other] = world.outside.mails;
  const id = first!.messageId.slice(1, 37);
  await expect(unsubscribe(world, id, unsubscribeCode('another secret', id))).rejects.toThrow('not one of ours');
  await unsubscribe(world, id, unsubscribeCode(world.secret, id));
  await unsubscribe(world, id, unsubscribeCode(world.secret, id));
  const answer = replyTo(other!, 'Yes, please.');
  await receiveMail(world, answer);
  await receiveMail(world, answer);
  await pass(14);
  expect(world.outside.mails).toHaveLength(2);
  expect(await listDoNotContact(world.db)).toHaveLength(1);
  expect((await desk(world)).replies).toHaveLength(1);
});

test('a reviewer’s words go out: edited, or with a sentence of their own before the closing', async () => {
  await takeIn();
  const [one, two] = (await desk(world)).reviews;
  await decideReview(world, ines, one!.id, {
    does: 'approve',
    subject: 'Mine',
    body: `Hello ${one!.personName.split(' ')[0]!},\n\nall mine.`,
  });
  await decideReview(world, ines, two!.id, { does: 'approve', sentence: 'I will be nearby on Friday.' });
  await worker().drain();
  await pass(1);
  const bodies = world.outside.mails.map((mail) => mail.text);
  expect(bodies.some((body) => /all mine\.\n\n-- \nThornwick Glasshouse Controls\n.*\n$/.test(body))).toBe(true);
  expect(bodies.some((body) => /I will be nearby on Friday\.\n\nKind regards/.test(body))).toBe(true);
  await expect(decideReview(world, ines, one!.id, { does: 'approve' })).rejects.toThrow('decided already');
});

test('edited words pass the checks too: a left-over slot or a wrong name is refused and nothing is lost', async () => {
  await takeIn();
  const [review] = (await desk(world)).reviews;
  await expect(decideReview(world, ines, review!.id, { does: 'approve', body: 'Hello {first_name},' })).rejects.toThrow('was not filled');
  await expect(decideReview(world, ines, review!.id, { does: 'approve', body: 'Hello Bartholomew,\n\nx' })).rejects.toThrow(
    'it greets “Bartholomew”',
  );
  expect((await desk(world)).reviews).toHaveLength(2);
});

test('refused, it never goes; later, it comes back on the desk', async () => {
  await takeIn();
  const [one, two] = (await desk(world)).reviews;
  await decideReview(world, ines, one!.id, { does: 'refuse', why: 'not them' });
  await decideReview(world, ines, two!.id, { does: 'later' });
  await worker().drain();
  expect((await desk(world)).reviews).toEqual([]);
  await pass(1);
  expect(world.outside.mails).toEqual([]);
  expect((await desk(world)).reviews.map((review) => review.id)).toEqual([two!.id]);
  expect((await trips(world, { flowId, state: 'stopped' })).items.map((row) => row.personName)).toEqual([one!.personName]);
});

test('the same list again: nobody gets a second trip or a second mail', async () => {
  await takeIn();
  await takeIn();
  await approveAll();
  await pass(14);
  expect((await trips(world, { flowId })).items).toHaveLength(2);
  expect(new Set(world.outside.mails.map((mail) => mail.messageId)).size).toBe(6);
  expect(world.outside.mails).toHaveLength(6);
});

test('a trial sends nothing, changes no record, shows every line; release lets trips under way finish on their version', async () => {
  await takeIn();
  const mara = (await people(world, { search: 'Mara' })).items[0]!;
  const before = await factsOf(world.db, [mara.id]);
  const [row] = await flows(world, 0);
  await saveDraft(world, ines, flowId, { text: row!.draftText.replace('>= 75', '>= 101'), base: row!.draftNo });
  const trialId = await startTrial(world, ines, flowId, { recordIds: [mara.id] });
  await worker().drain();
  const seen = await trial(world, flowId, trialId);
  expect(seen?.running).toBe(0);
  expect(seen?.trips[0]?.journal.map((entry) => entry.verb)).toEqual([
    'take in',
    'keep',
    'match',
    'match',
    'read',
    'score',
    'split',
    'note',
    'set',
  ]);
  expect(await factsOf(world.db, [mara.id])).toEqual(before);
  await release(world, ines, flowId);
  await approveAll();
  await pass(14);
  expect(world.outside.mails).toHaveLength(6);
  const first = (await trips(world, { flowId })).items[0]!;
  expect(first.versionNo).toBe(1);
  expect((await trip(world, first.id)).text).toContain('>= 75');
});

test('one site’s trouble holds its own trip only; tried again it goes on', async () => {
  const { WorldFailure } = await import('../ports');
  const busy = new WorldFailure('busy', 'oakmere-glass.example asked to come back later (503)', true, 30_000);
  world.outside.pages.set('http://oakmere-glass.example/', busy);
  await takeIn();
  expect((await trips(world, { flowId, state: 'waiting' })).items.map((row) => row.personName)).toEqual(['Mara Quill']);
  expect((await desk(world)).reviews.map((review) => review.personName)).toEqual(['Jonas Reißig']);
  await pass(1);
  const { stuck } = await desk(world);
  expect(stuck).toEqual([expect.objectContaining({ count: 1, why: 'oakmere-glass.example asked to come back later (503), 5 tries' })]);
  goodSite(world.outside, 'oakmere-glass.example');
  await chooseStuck(world, ines, { tripIds: stuck[0]!.trips.map((trip) => trip.id), choice: 'try again' });
  await worker().drain();
  expect((await desk(world)).reviews).toHaveLength(2);
});

test('a conversation shows what went, what came, and what still goes', async () => {
  await takeIn();
  await approveAll();
  await pass(1);
  const [row] = await threads(world);
  const page = await thread(world, row!.id);
  expect(page.messages.map((message) => message.state)).toEqual(['sent', 'planned', 'planned']);
  expect(page.messages[0]?.checks.every((check) => check.ok)).toBe(true);
  expect(page.open).toBe(2);
});

test('the import survives a worker that dies in the middle: taken up again it makes nothing twice', async () => {
  const many = ['Name,Mail', ...Array.from({ length: 1200 }, (_, i) => `Person Number${i},p${i}@many.example`)].join('\n');
  const id = await lookAtFile(world, ines, { name: 'many.csv', bytes: Buffer.from(many) });
  await startImport(world, ines, id, { flowId: null });
  let batches = 0;
  const dying = {
    ...world,
    db: new Proxy(world.db, {
      get: (target, key) =>
        key === 'begin'
          ? async (work: never) => {
              batches += 1;
              if (batches === 2) throw new Error('killed');
              return target.begin(work);
            }
          : Reflect.get(target, key),
      apply: (target, _this, args) => Reflect.apply(target as never, undefined, args),
    }),
  };
  await runImport(dying);
  await startImport(world, ines, id, { flowId: null });
  await worker().drain();
  const [count] = await world.db<{ n: number }[]>`select count(*)::int as n from person`;
  expect(count?.n).toBe(1200);
  const [facts] = await world.db<{ n: number }[]>`select count(*)::int as n from fact where field = 'email'`;
  expect(facts?.n).toBe(1200);
  expect(START).toBe(world.now);
});
