import { auditPage } from '../access/audit';
import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { WorldFailure, type SourceDocument } from '../ports';
import { askDossier, dossier, dossierFile, dossierPage, makeDossiers, sendDossier } from './dossiers';
import { recheckFact } from './recheck';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
let companyId: string;

beforeEach(async () => {
  ({ world, ines } = await demoWorld({ crm: true }));
  const [row] = await world.db<{ id: string }[]>`select id from company where website = 'gaertnerei-vossbruch.example'`;
  companyId = row?.id ?? '';
  world.outside.page(
    'http://gaertnerei-vossbruch.example/',
    'Gärtnerei Vossbruch is a family nursery.\nWe grow on 3.1 ha of heated glass.',
  );
});
afterEach(() => world.close());

const news: SourceDocument = {
  url: 'http://news.example/1',
  title: 'New managing director',
  language: '',
  published: Date.parse('2026-09-29'),
  blocks: [{ kind: 'text', text: 'Mareike Petersen runs the nursery now.', under: '', date: null }],
};
const ask = (more: Partial<Parameters<typeof askDossier>[2]> = {}) =>
  askDossier(world, ines, { kind: 'company', id: companyId, afresh: false, mailTo: null, ...more });

test('asked for, made from every place, kept as it was made; its answers are facts of the record', async () => {
  world.outside.source = ({ source }) => ({
    kind: 'done',
    documents: source === 'news' ? [news] : [],
    costMicro: source === 'news' ? 10_000 : 0,
  });
  const { id } = await ask();
  expect(await dossier(world, id)).toMatchObject({ state: 'queued', content: null });
  await testWorker(world).drain();
  const made = await dossier(world, id);
  expect(made).toMatchObject({ state: 'done', costMicro: 10_000, pages: 2 });
  const line = (section: string) => made.content?.sections.find((entry) => entry.id === section)?.lines ?? [];
  expect(line('asked')).toContainEqual(
    expect.objectContaining({ text: '3.1 ha', source: 'site', quote: 'We grow on 3.1 ha of heated glass.' }),
  );
  expect(line('news')).toEqual([expect.objectContaining({ text: 'New managing director', url: 'http://news.example/1' })]);
  const [fact] = await world.db<
    { value: number }[]
  >`select value from fact where record_id = ${companyId} and field = 'heated_area' and source = 'site'`;
  expect(fact?.value).toBe(3.1);
  expect((await dossierPage(world, 'company', companyId)).dossiers).toHaveLength(1);
});

test('while it is being made the same question is the same dossier', async () => {
  expect(await ask()).toEqual(await ask());
  await testWorker(world).drain();
  const [first] = (await dossierPage(world, 'company', companyId)).dossiers;
  expect((await ask()).id).not.toBe(first?.id);
});

test('a worker whose dossier was taken over by another writes no more of it', async () => {
  const { id } = await ask();
  world.outside.source = () => {
    throw new WorldFailure('broken', 'gone', false);
  };
  const { web } = world;
  const lost = {
    ...world,
    web: {
      async page(url: string) {
        await world.db`update dossier set fence = fence + 1 where id = ${id}`;
        return web.page(url);
      },
    },
  };
  await expect(makeDossiers(lost)).rejects.toThrow('the lease of a dossier is lost');
  expect(await dossier(world, id)).toMatchObject({ state: 'queued', content: null });
});

test('slow searches: its page says what is under way, and no worker is held', async () => {
  let asked = 0;
  world.outside.source = ({ source }) =>
    source === 'jobs' ? { kind: 'working', job: 'j', askAgainMs: 5_000 } : { kind: 'done', documents: [], costMicro: 0 };
  world.outside.collected = () =>
    ++asked < 2 ? { kind: 'working', job: 'j', askAgainMs: 5_000 } : { kind: 'done', documents: [], costMicro: 0 };
  const { id } = await ask();
  await testWorker(world).drain();
  expect(await dossier(world, id)).toMatchObject({ state: 'queued', step: 'searches are under way' });
  for (let i = 0; i < 2; i++) {
    world.now += 6_000;
    await testWorker(world).drain();
  }
  expect(await dossier(world, id)).toMatchObject({ state: 'done' });
});

test('a site that is down ends nothing: the rest is told', async () => {
  world.outside.pages.set(
    'http://gaertnerei-vossbruch.example/',
    new WorldFailure('unreachable', 'gaertnerei-vossbruch.example could not be reached', true),
  );
  const { id } = await ask();
  await testWorker(world).drain();
  expect(await dossier(world, id)).toMatchObject({ state: 'done', pages: 0 });
});

test('of a person: the company beside them, and their own profile', async () => {
  world.outside.source = ({ source, personName }) => ({
    kind: 'done',
    documents:
      source === 'people' && personName !== null
        ? [
            {
              ...news,
              url: 'http://circle.example/p',
              title: personName,
              blocks: [
                { kind: 'text', text: 'owner', under: '', date: null },
                { kind: 'text', text: 'Speaks at the winter meeting.', under: '', date: null },
              ],
            },
          ]
        : [],
    costMicro: 0,
  });
  const [person] = await world.db<{ id: string }[]>`select id from person where company_id = ${companyId} and name = 'Mareike Petersen'`;
  const { id } = await ask({ kind: 'person', id: person?.id ?? '' });
  await testWorker(world).drain();
  const made = await dossier(world, id);
  expect(made.content?.title).toBe('Mareike Petersen, Gärtnerei Vossbruch GmbH');
  expect(JSON.stringify(made.content?.sections)).toContain('Speaks at the winter meeting.');
});

test('as files and by mail, with the PDF beside the text', async () => {
  const { id } = await ask({ mailTo: 'tomasz@thornwick.example' });
  await expect(dossierFile(world, id, 'pdf')).rejects.toThrow('this dossier is not ready');
  await testWorker(world).drain();
  expect((await dossierFile(world, id, 'markdown')).name).toBe('Gärtnerei Vossbruch GmbH 2026-11-24.md');
  expect(String((await dossierFile(world, id, 'markdown')).content)).toContain('# Gärtnerei Vossbruch GmbH');
  await sendDossier(world, ines, id, { to: 'lucia@thornwick.example' });
  await testWorker(world).drain();
  expect(world.outside.mails.map((mail) => [mail.to.address, mail.subject, mail.attachments?.[0]?.type])).toEqual([
    ['tomasz@thornwick.example', 'Dossier: Gärtnerei Vossbruch GmbH', 'application/pdf'],
    ['lucia@thornwick.example', 'Dossier: Gärtnerei Vossbruch GmbH', 'application/pdf'],
  ]);
});

test('what is known about somebody goes to people who are known, or is confirmed by name; the audit says who sent it', async () => {
  const { id } = await ask();
  await testWorker(world).drain();
  const stranger = 'someone@elsewhere.example';
  await expect(sendDossier(world, ines, id, { to: stranger })).rejects.toMatchObject({ kind: 'conflict', detail: { confirm: stranger } });
  await expect(sendDossier(world, ines, id, { to: stranger, confirm: 'other@elsewhere.example' })).rejects.toThrow('confirm the address');
  await sendDossier(world, ines, id, { to: stranger, confirm: stranger });
  await testWorker(world).drain();
  expect(world.outside.mails.map((mail) => mail.to.address)).toEqual([stranger]);
  const [entry] = (await auditPage(world, { search: stranger })).items;
  expect(entry).toMatchObject({ who: 'Ines Okafor-Brandt', what: 'sent a dossier', detail: { to: stranger, who: 'confirmed by hand' } });
});

test('nobody there', async () => {
  await expect(ask({ id: '00000000-0000-4000-8000-000000000000' })).rejects.toThrow('this company does not exist');
});

test('one fact is looked for again at the site, now, and what was known stays beside it', async () => {
  expect(await recheckFact(world, companyId, 'heated_area')).toEqual({ found: true, says: 'their site says 3.1 ha' });
  world.outside.page('http://gaertnerei-vossbruch.example/', 'We grow on 3.6 ha of heated glass.');
  world.now += 1000;
  expect(await recheckFact(world, companyId, 'heated_area')).toEqual({ found: true, says: 'their site says 3.6 ha' });
  const [company] = await world.db<
    { heatedArea: number }[]
  >`select (custom->>'heated_area')::float8 as heated_area from company where id = ${companyId}`;
  expect(company?.heatedArea).toBe(3.6);
  expect(await world.db`select 1 from fact where record_id = ${companyId} and field = 'heated_area' and source = 'site'`).toHaveLength(2);
  expect(await recheckFact(world, companyId, 'energy')).toMatchObject({ found: false });
  await expect(recheckFact(world, companyId, 'city')).rejects.toThrow('no standing question asks for “place”');
  world.outside.pages.set('http://gaertnerei-vossbruch.example/', new WorldFailure('timeout', 'did not answer in time', true));
  world.now += 1000;
  await expect(recheckFact(world, companyId, 'heated_area')).rejects.toThrow('what was known stays');
});
