/** Verbs that reach out or wait for something, on a real database with a worker; the outside is in memory. */
import { stableId, textIn } from '../../core/base';
import { demoWorld, goodSite, replyTo, slotsDue, START, testWorker, type TestWorld } from '../../testing/world';
import { WorldFailure } from '../ports';
import { takeAnswer } from '../trips/deliver-calls';
import { createFlow, flows, startOn } from './flows';
import { release } from './releases';
import { trip, trips } from '../desk/overview';
import { rail } from '../desk/rail';
import { receiveMail } from '../messages/receive-mail';
import { changeDeal, createCompany, createPerson, deals, personPage } from '../records/records';
import { decideReview, desk } from '../desk/reviews';
import { chooseStuck } from '../trips/stuck';
import { notices, putNoticeAside } from '../trips/tell';
import type { Actor } from '../platform/world';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
let world: TestWorld;
let ines: Actor;
const lucia: Actor = { userId: stableId('user', 'lucia@thornwick.example'), name: 'Lucía Ferrer Mas' };

beforeEach(async () => {
  ({ world, ines } = await demoWorld({ crm: true }));
});
afterEach(() => world.close());

const drain = () => testWorker(world).drain();
async function flowOf(body: string, about = 'person'): Promise<string> {
  const made = await createFlow(world, ines, `flow "T"\nabout ${about}\n\ntake in from hand\n${body}`);
  await release(world, ines, made.id);
  return made.id;
}
async function somebody(name: string): Promise<string> {
  const email = `${name.toLowerCase().replace(' ', '.')}@firm-${name.length}.example`;
  const firm = await createCompany(world, ines, { values: { name: `Firm of ${name}` }, source: 'hand' });
  return (await createPerson(world, ines, { values: { name, email }, companyId: firm.id, source: 'hand' })).id;
}
async function run(flowId: string, personIds: readonly string[]): Promise<void> {
  await startOn(world, ines, flowId, personIds);
  await drain();
}
const journal = async (personId: string): Promise<string[]> => {
  const [row] = (await personPage(world, personId)).trips;
  return row ? (await trip(world, row.id)).journal.map((entry) => `${entry.verb}: ${entry.says}`) : [];
};

test('its owner is whose deal or record it is, and the owners of the workspace while it is nobody’s', async () => {
  const mara = await somebody('Mara Dean');
  const flowId = await flowOf('tell its owner "Yours: " + name\n');
  await run(flowId, [mara]);
  const told = async (): Promise<readonly string[]> =>
    (await world.db<{ name: string }[]>`select u.name from notice n join app_user u on u.id = n.user_id order by n.at, u.name`).map(
      ({ name }) => name,
    );
  expect(await told()).toEqual(['Ruud Vermaat-Osei']);
  const joe = await somebody('Joe Bell');
  await world.db`update person set owner_id = ${lucia.userId} where id = ${joe}`;
  await run(flowId, [joe]);
  expect((await notices(world, lucia)).map((notice) => notice.text)).toEqual(['Yours: Joe Bell']);
});

test('the clock strikes every so often, and each record comes in once a day', async () => {
  const flow = await createFlow(
    world,
    ines,
    'flow "Often"\nabout person\n\ntake in from clock every 30 minutes from 08:00 to 18:00\n  when status = "ring"\nnote "rung"\n',
  );
  await release(world, ines, flow.id);
  const mara = await somebody('Mara Dean');
  await world.db`update person set status = 'ring' where id = ${mara}`;
  world.now = Date.parse('2026-11-24T10:31:00Z');
  await drain();
  const joe = await somebody('Joe Bell');
  await world.db`update person set status = 'ring' where id = ${joe}`;
  world.now += 30 * 60_000;
  await drain();
  expect([await journal(mara), await journal(joe)].map((lines) => lines.filter((line) => line === 'note: rung'))).toEqual([
    ['note: rung'],
    ['note: rung'],
  ]);
});

test('tell puts a notice before each of the team, by mail where it says so; each puts theirs aside', async () => {
  const mara = await somebody('Mara Dean');
  await run(await flowOf('tell "north" by email "Look at " + name\n'), [mara]);
  expect((await notices(world, lucia)).map((notice) => [notice.text, notice.personName, notice.flowName])).toEqual([
    ['Look at Mara Dean', 'Mara Dean', 'T'],
  ]);
  expect(world.outside.mails.map((mail) => [mail.to.address, mail.text, mail.unsubscribeUrl])).toEqual(
    expect.arrayContaining([
      ['lucia@thornwick.example', 'Look at Mara Dean', null],
      ['tomasz@thornwick.example', 'Look at Mara Dean', null],
    ]),
  );
  const [notice] = (await desk(world, lucia)).notices;
  expect([(await rail(world, lucia, 'builder')).desk, (await rail(world, ines, 'builder')).desk]).toEqual([1, 0]);
  await putNoticeAside(world, lucia, notice?.id ?? '');
  expect(await notices(world, lucia)).toEqual([]);
  await expect(putNoticeAside(world, ines, notice?.id ?? '')).rejects.toThrow('this notice is not yours');
});

test('a notice by mail whose sender died after the relay had taken it is not sent again', async () => {
  const mara = await somebody('Mara Dean');
  await run(await flowOf('tell "north" by email "Look at " + name\n'), [mara]);
  const sent = world.outside.mails.length;
  expect(sent).toBeGreaterThan(0);
  await world.db`update effect set state = 'started', lease_until = clock_timestamp() - interval '1 second' where kind = 'tell'`;
  await drain();
  expect(world.outside.mails).toHaveLength(sent);
  expect([...(await world.db`select distinct state, says from effect where kind = 'tell'`)]).toEqual([
    { state: 'done', says: 'the relay has it' },
  ]);
});

test('a hand-over is signed, arrives once however often it is tried, and its answer goes into the flow', async () => {
  const busy = [new WorldFailure('busy', 'hooks.yard.example asked to come back later', true, 120_000)];
  world.outside.hook = () => busy.shift() ?? { ok: true };
  const mara = await somebody('Mara Dean');
  const flowId = await flowOf(
    'hand over to "Planning desk" and wait, at most 2 hours as visit\n  slot: text\nnote if visit.came then visit.slot else "no word"\n',
  );
  await run(flowId, [mara]);
  expect(world.outside.calls).toEqual([]);
  world.now += 60_000;
  await drain();
  expect(world.outside.calls).toEqual([]);
  world.now += 60_000;
  await drain();
  const [call] = world.outside.calls;
  expect(call).toMatchObject({ url: 'http://hooks.yard.example/planning', secret: expect.stringMatching(/^whsec_/) as unknown });
  expect(call?.body).toMatchObject({ person: { name: 'Mara Dean' }, flow: 'T' });
  const [, id = '', code = ''] = /\/answers\/([^/]+)\/(.+)$/.exec(textIn(call?.body.answer_to)) ?? [];
  await expect(takeAnswer(world, id, 'x'.repeat(22), { slot: 'Monday' })).rejects.toThrow('not one that Millrace gave out');
  await takeAnswer(world, id, code, { slot: 'Tuesday, 9:00' });
  await takeAnswer(world, id, code, { slot: 'another' });
  await drain();
  expect((await journal(mara)).at(-1)).toBe('note: Tuesday, 9:00');
  expect(world.outside.calls).toHaveLength(1);
});

test('a hand-over that is refused for good sticks its trip and no other', async () => {
  world.outside.hook = (call) =>
    JSON.stringify(call.body).includes('Mara') ? new WorldFailure('refused', 'refused it (403)', false) : null;
  const [mara, piet] = [await somebody('Mara Dean'), await somebody('Piet Aalders')];
  await run(await flowOf('hand over to "Yard board"\nnote "done"\n'), [mara, piet]);
  expect((await journal(piet)).at(-1)).toBe('note: done');
  const { stuck } = await desk(world);
  expect(stuck).toMatchObject([{ trips: [{ personName: 'Mara Dean' }], count: 1, why: 'refused it (403)', byHand: null }]);
  await expect(chooseStuck(world, ines, { tripIds: [stuck[0]?.trips[0]?.id ?? ''], choice: 'set by hand', value: 'x' })).rejects.toThrow(
    'this line is not there to fill one field',
  );
});

test('what a line is there to fill is set by hand, checked by the field’s type', async () => {
  world.outside.provider = () => new WorldFailure('busy', 'Fernpost asked to come back later', true);
  const piet = (await createPerson(world, ines, { values: { name: 'Piet Aalders' }, companyId: null, source: 'hand' })).id;
  const flowId = await flowOf('look up email with "Work e-mail"\nkeep when email != null\nnote email\n');
  await run(flowId, [piet]);
  for (let hour = 0; hour < 6; hour++) {
    world.now += HOUR;
    await drain();
  }
  const [stuck] = (await desk(world)).stuck;
  expect(stuck).toMatchObject({ trips: [{ personName: 'Piet Aalders' }], byHand: { label: 'e-mail', unit: null } });
  const choose = (value: string) => chooseStuck(world, ines, { alike: stuck?.trips[0]?.id ?? '', choice: 'set by hand', value });
  await expect(choose('piet at home')).rejects.toThrow('e-mail: ');
  await choose('Piet@kas.example');
  await drain();
  expect((await journal(piet)).at(-1)).toBe('note: piet@kas.example');
  const known = (await personPage(world, piet)).known.find((field) => field.key === 'email');
  expect(known?.fact).toMatchObject({ source: 'hand', sourceRef: 'Ines Okafor-Brandt' });
});

test('gather lets trips go on together when enough are there, or when the first has waited long enough', async () => {
  const all = await Promise.all(['Ann One', 'Ben Two', 'Cem Three', 'Dov Four'].map(somebody));
  const flowId = await flowOf('gather 3 or 1 day\ntell owner name\n');
  await run(flowId, all);
  const owner: Actor = { userId: stableId('user', 'ruud@thornwick.example'), name: 'Ruud' };
  const told = await notices(world, owner);
  expect(told).toHaveLength(1);
  expect(told[0]?.text.split('\n')).toHaveLength(3);
  expect((await trips(world, { flowId, state: 'waiting' })).items).toHaveLength(1);
  world.now += DAY;
  await drain();
  expect((await notices(world, owner)).map((notice) => notice.text.split('\n').length)).toEqual([1, 3]);
  expect((await trips(world, { flowId, state: 'done' })).items).toHaveLength(4);
});

test('a trip that waits for a reply goes on when it comes, and knows what it says', async () => {
  const mara = await somebody('Mara Dean');
  const flowId = await flowOf(
    'keep when email != null\nwrite email "Second look" as opener\nask "north" to approve opener\nsend opener\nwait for reply to opener, at most 5 days as answer\nnote if answer.came then answer.kind else "silence"\n',
  );
  const piet = await somebody('Piet Aalders');
  await run(flowId, [mara, piet]);
  for (const review of (await desk(world)).reviews) await decideReview(world, ines, review.id, { does: 'approve' });
  await drain();
  world.now += HOUR;
  await drain();
  const mail = world.outside.mails.find((sent) => sent.to.name === 'Mara Dean');
  if (!mail) throw new Error('nothing was sent');
  await receiveMail(world, replyTo(mail, 'Sounds good, call me on Thursday.'));
  await drain();
  expect((await journal(mara)).at(-1)).toBe('note: interested');
  world.now += 5 * DAY;
  await drain();
  expect((await journal(piet)).at(-1)).toBe('note: silence');
});

test('a trip that waits for a condition is woken by the change itself', async () => {
  const mara = await somebody('Mara Dean');
  const flowId = await flowOf(
    'open deal in "Glasshouse sales" at "Qualified" as deal\nwait for deal.stage = "Won", at most 30 days as sale\nnote if sale.came then "won" else "not won"\n',
  );
  await run(flowId, [mara]);
  const [deal] = (await personPage(world, mara)).deals;
  await changeDeal(world, deal?.id ?? '', 'Meeting');
  await drain();
  expect((await trips(world, { flowId, state: 'waiting' })).items).toHaveLength(1);
  await changeDeal(world, deal?.id ?? '', 'Won');
  await drain();
  expect((await journal(mara)).at(-1)).toBe('note: won');
});

test('the clock takes quiet deals in, each once a day, and the nudge goes into the old conversation', async () => {
  const quiet = (await flows(world, START)).find((flow) => flow.name === 'Quiet deals');
  expect(quiet?.counts?.underWay ?? 0).toBe(0);
  world.now = Date.parse('2026-11-25T08:30:00Z');
  await drain();
  const due = (await trips(world, { flowId: quiet?.id, limit: 50 })).items;
  expect(due.map((row) => row.personName).sort()).toEqual(['An Verhaegen', 'Callum Stokoe', 'Femke Kuipersma', 'Ruben de Wit-Veldkamp']);
  await drain();
  expect((await trips(world, { flowId: quiet?.id, limit: 50 })).items).toHaveLength(due.length);
  const reviews = (await desk(world)).reviews;
  expect(new Set(reviews.map((review) => review.message.template))).toEqual(new Set(['Four days on', 'A week on', 'Two weeks on']));
  for (const review of reviews) await decideReview(world, ines, review.id, { does: 'approve' });
  await drain();
  while (world.outside.mails.length < reviews.length) {
    await slotsDue(world);
    await drain();
  }
  const first = world.outside.mails.find((mail) => mail.to.name === 'Callum Stokoe');
  expect(first?.inReplyTo).toBeNull();
  // Days later the same deal is silent for eight days: the second nudge answers the first.
  world.now = Date.parse('2026-11-29T08:30:00Z');
  await drain();
  const [again] = (await desk(world)).reviews.filter((review) => review.personName === 'Callum Stokoe');
  await decideReview(world, ines, again?.id ?? '', { does: 'approve' });
  await drain();
  await slotsDue(world);
  await drain();
  const second = world.outside.mails.filter((mail) => mail.to.name === 'Callum Stokoe').at(-1);
  expect(second).toMatchObject({ inReplyTo: first?.messageId, references: [first?.messageId], subject: `Re: ${first?.subject ?? ''}` });
  const [deal] = (await deals(world, { where: 'title = "Trask, bays 1–6"' })).items;
  expect(deal?.stage).toBe('Proposal');
});

test('an enquiry goes its whole way: visit from planning, answer, reply sorted, deal moved', async () => {
  goodSite(world.outside, 'kas-nieuw.example');
  const firm = await createCompany(world, ines, {
    values: { name: 'Kas Nieuw', website: 'kas-nieuw.example', country: 'NL' },
    source: 'hand',
  });
  const person = await createPerson(world, ines, {
    values: { name: 'Joris Halm', email: 'joris@kas-nieuw.example' },
    companyId: firm.id,
    source: 'hand',
  });
  world.outside.hook = () => ({ free: true, slot: 'Thursday, 10:00' });
  const enquiries = (await flows(world, START)).find((flow) => flow.name === 'Grower enquiries');
  await run(enquiries?.id ?? '', [person.id]);
  const [review] = (await desk(world)).reviews;
  await decideReview(world, ines, review?.id ?? '', { does: 'approve' });
  await drain();
  world.now += HOUR;
  await drain();
  const [mail] = world.outside.mails.filter((sent) => sent.to.name === 'Joris Halm');
  if (!mail) throw new Error('nothing was sent');
  await receiveMail(world, replyTo(mail, 'Thank you. When can you come and send me an offer?'));
  await drain();
  const says = await journal(person.id);
  expect(says).toContain('note: Planning holds Thursday, 10:00');
  expect(says).toContain('move: moved to Meeting');
});

test('a deal that a line opened gets its amount from the next, with its source', async () => {
  const mara = await somebody('Mara Dean');
  await run(
    await flowOf('open deal in "Glasshouse sales" at "Qualified" as sale\nset sale.amount = 1000 + 500\nnote string(sale.amount)\n'),
    [mara],
  );
  expect(await world.db`select amount::int, stage from deal where person_id = ${mara}`).toMatchObject([
    { amount: 1500, stage: 'Qualified' },
  ]);
  expect(
    await world.db`select source, source_ref from fact where record_kind = 'deal' and field = 'amount' and source <> 'crm'`,
  ).toMatchObject([{ source: 'flow', sourceRef: expect.stringContaining('line 3') as unknown }]);
});

test('reply drafts from the book of answers alone: covered it can be told apart, approved it leaves, and the use is counted', async () => {
  const mara = await somebody('Mara Dean');
  await world.db`update person set language = 'en', status = 'How long would the work take?' where id = ${mara}`;
  const flowId = await flowOf(
    'reply to status from answers as answer\nnote if answer.covered then "agreed" else "open: " + answer.open\nask "north" to approve answer\nsend answer\n',
  );
  await run(flowId, [mara]);
  expect(await journal(mara)).toEqual(
    expect.arrayContaining([expect.stringMatching(/^reply: drafted from “Days, bay by bay”: all of it is agreed/), 'note: agreed']),
  );
  const [review] = (await desk(world, ines)).reviews;
  expect(review?.message).toMatchObject({ template: null, subject: 'Your question' });
  expect(review?.message.body).toMatch(/two days/);
  const forbidden = `${review?.message.body ?? ''} With a discount, of course.`;
  const notSay = await world.db<
    { body: { notSay: string[] } }[]
  >`select body from library_item where kind = 'answer' and name = 'Days, bay by bay'`;
  await world.db`update library_item set body = jsonb_set(body, '{notSay}', '["discount"]') where kind = 'answer' and name = 'Days, bay by bay'`;
  expect(notSay).toHaveLength(1);
  await expect(decideReview(world, ines, review?.id ?? '', { does: 'approve', body: forbidden })).rejects.toThrow(
    '“discount” may not be said here',
  );
  await decideReview(world, ines, review?.id ?? '', { does: 'approve' });
  await drain();
  world.now += DAY;
  await drain();
  expect(world.outside.mails.filter((mail) => mail.subject === 'Your question')).toHaveLength(1);
  const used = await world.db<{ about: string }[]>`select about from answer_use`;
  expect(used).toHaveLength(1);
});

test('a reply to nothing is stuck, and what nobody has agreed is named', async () => {
  const [joe, ann] = [await somebody('Joe Bell'), await somebody('Ann Poole')];
  await world.db`update person set status = '' where id = ${joe}`;
  await world.db`update person set status = 'Do you lease the cabinets?' where id = ${ann}`;
  const flowId = await flowOf('reply to status from answers as answer\nnote "open: " + answer.open\n');
  await run(flowId, [joe, ann]);
  expect((await journal(joe)).at(-1)).toBe('reply: there is nothing to answer: the text is empty');
  expect((await journal(ann)).join(' ')).toContain('1 thing nobody has agreed on');
  expect((await journal(ann)).at(-1)).toContain('open: Do you lease the cabinets?');
});
