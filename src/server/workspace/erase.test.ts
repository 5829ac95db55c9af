/** Erasing somebody: all of them goes, what stays is told, and nobody takes them in again by accident. */
import { unzipSync, strFromU8 } from 'fflate';
import { stableId } from '../../core/base';
import { demoWorld, replyTo, testWorker, type TestWorld } from '../../testing/world';
import { erasePerson, erasurePreview } from './erase';
import { createFlow, startOn } from '../flows/flows';
import { previewImport } from '../intake/import-preview';
import { lookAtFile, startImport } from '../intake/imports';
import { receiveMail } from '../messages/receive-mail';
import { createPerson, personPage } from '../records/records';
import { release } from '../flows/releases';
import { decideReview, desk } from '../desk/reviews';
import { copyOfPerson, takeOut } from './take-out';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
const ruud: Actor = { userId: stableId('user', 'ruud@thornwick.example'), name: 'Ruud Vermaat-Osei' };
beforeEach(async () => {
  ({ world, ines } = await demoWorld());
});
afterEach(() => world.close());

const drain = () => testWorker(world).drain();
const LIST = 'Company,Name,E-mail\nOakmere Glass,Mara Quill,mara@oakmere-glass.example\nMarl Pit,Tom Ash,tom@marlpit.example\n';

/** Mara, from a list, written to, who has answered. */
async function mara(): Promise<string> {
  const id = await lookAtFile(world, ines, { name: 'fair.csv', bytes: Buffer.from(LIST) });
  await startImport(world, ines, id, {});
  await drain();
  const [person] = await world.db<{ id: string }[]>`select id from person where email = 'mara@oakmere-glass.example'`;
  const flow = await createFlow(
    world,
    ines,
    'flow "T"\nabout person\n\ntake in from hand\nwrite email "Enquiry answered" as mail\nask "south" to approve mail\nsend mail\nwait for reply to mail, at most 5 days as reply\nnote "done"\n',
  );
  await release(world, ines, flow.id);
  await startOn(world, ines, flow.id, [person?.id ?? '']);
  await drain();
  for (const review of (await desk(world)).reviews) await decideReview(world, ines, review.id, { does: 'approve' });
  world.now = Date.parse('2026-11-25T11:00:00Z');
  await drain();
  const [mail] = world.outside.mails;
  if (mail) await receiveMail(world, replyTo(mail, 'Yes, please call me.'));
  await drain();
  return person?.id ?? '';
}
const tablesThatSay = async (word: string): Promise<string[]> => {
  const tables = await world.db<
    { name: string }[]
  >`select table_name as name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE'`;
  const hits = await Promise.all(
    tables.map(async ({ name }) => {
      const [row] = await world.db.unsafe<{ hit: boolean }[]>(
        name === 'import_piece'
          ? `select exists (select 1 from import_piece where position(lower($1) in lower(convert_from(bytes, 'UTF8'))) > 0) as hit`
          : `select exists (select 1 from ${name} t where position(lower($1) in lower(t::text)) > 0) as hit`,
        [word],
      );
      return row?.hit === true ? [name] : [];
    }),
  );
  return hits.flat().sort();
};

test('what goes is told before; the name must be written; then no table says a word of them, and others stay', async () => {
  const id = await mara();
  const before = await erasurePreview(world, id);
  expect(before.goes[0]).toBe('Mara Quill');
  expect(before.goes).toEqual(
    expect.arrayContaining([expect.stringMatching(/^\d+ facts$/), '2 messages', '1 trip with its journal', '1 row of a list']),
  );
  expect(await tablesThatSay('mara@oakmere-glass.example')).not.toEqual([]);
  await expect(erasePerson(world, ruud, id, 'Tom Ash')).rejects.toThrow('write their name as it stands: Mara Quill');
  const receipt = await erasePerson(world, ruud, id, 'mara quill');
  expect(receipt.at).not.toBeNull();
  expect(receipt.stays[0]).toContain('digest');
  expect(await tablesThatSay('mara@oakmere-glass.example')).toEqual([]);
  expect(await tablesThatSay('Mara Quill')).toEqual([]);
  expect(await tablesThatSay('tom@marlpit.example')).not.toEqual([]);
  await expect(personPage(world, id)).rejects.toThrow('does not exist');
  await expect(erasePerson(world, ruud, id, 'Mara Quill')).rejects.toThrow('does not exist');
  await drain();
});

test('a list with them in it takes them in no more, and by hand somebody may', async () => {
  const id = await mara();
  await erasePerson(world, ruud, id, 'Mara Quill');
  const again = await lookAtFile(world, ines, { name: 'again.csv', bytes: Buffer.from(LIST) });
  expect((await previewImport(world, again, {})).rows.map((row) => row.plan.why)).toEqual([
    'was erased on 2026-11-25: only taken in again by hand',
    'joined by e-mail',
  ]);
  await startImport(world, ines, again, {});
  await drain();
  expect([...(await world.db`select id from person where email = 'mara@oakmere-glass.example'`)]).toEqual([]);
  await expect(
    createPerson(world, ines, { values: { name: 'Mara Quill', email: 'mara@oakmere-glass.example' }, source: 'hand' }),
  ).resolves.toBeDefined();
});

test('while nobody knows whether a mail left, nothing is erased', async () => {
  const id = await mara();
  await world.db`update effect set state = 'in doubt' where person_id = ${id} and kind = 'send'`;
  await expect(erasePerson(world, ruud, id, 'Mara Quill')).rejects.toThrow('settle that on the desk first');
});

test('a copy of one person holds what is kept of them, with days as days', async () => {
  const id = await mara();
  const { name, content } = await copyOfPerson(world, ruud, id);
  expect(name).toBe('Mara Quill.json');
  const said = JSON.parse(String(content)) as Record<string, readonly Record<string, unknown>[]>;
  expect(said['records']?.[0]).toMatchObject({ name: 'Mara Quill', email: 'mara@oakmere-glass.example' });
  expect(said['messages']?.map((message) => message['direction'])).toEqual(expect.arrayContaining(['out', 'in']));
  expect(String(said['facts']?.[0]?.['observedAt'])).toMatch(/^2026-11-2\dT/);
  expect(String(content)).not.toContain('tom@marlpit.example');
  await expect(copyOfPerson(world, ruud, world.newId())).rejects.toThrow('does not exist');
});

test('everything as one archive: tables, mails, flows, what was made', async () => {
  await mara();
  const { content, type } = await takeOut(world, ruud);
  expect(type).toBe('application/zip');
  const files = unzipSync(content as Uint8Array);
  const text = (name: string): string => strFromU8(files[name] ?? new Uint8Array());
  expect(text('people.csv')).toContain('Mara Quill');
  expect(text('companies.csv').split('\n')[0]).toContain('created_at');
  expect(text('flows/T.race')).toContain('flow "T"');
  const mails = Object.keys(files).filter((name) => name.startsWith('messages/'));
  expect(mails).toHaveLength(2);
  expect(mails.every((mail) => text(mail).includes('mara@oakmere-glass.example'))).toBe(true);
  expect(JSON.parse(text('library.json'))).toEqual(expect.arrayContaining([expect.objectContaining({ kind: 'scorecard' })]));
  expect(text('people.csv') + text('library.json')).not.toMatch(/password|secret/i);
});
