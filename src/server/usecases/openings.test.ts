import { demoWorkspace, testWorker, testWorld, type TestWorld } from '../../testing/world';
import { dossierPage } from './dossiers';
import { bringEntry } from './forms';
import { changeApplication, createOpening, opening, openings, saveOpening } from './openings';
import { personPage } from './records';
import { specimens } from './specimens';
import { startTrial, trial } from './flows';
import type { Actor } from './world';

let world: TestWorld;
let ines: Actor;

beforeEach(async () => {
  world = await testWorld();
  ({ ines } = await demoWorkspace(world));
});
afterEach(() => world.close());

const CV = `%PDF-1.4 Marit Oldenkamp
+31 6 5550 0134
Work experience
03/2021 – present  Field service technician, Larkfield Pumps, Hessle
Education
2012 – 2016  Mechatronics technician, Noorderpoort College
Languages: Dutch (native), English C1
Driving licence B`;
const apply = (name: string, cv = CV) =>
  bringEntry(world, 'Work with us', {
    raw: { opening: 'Commissioning technician', name, email: `${name.split(' ')[0]?.toLowerCase() ?? ''}@postvak.example`, agreed: 'yes' },
    files: [{ question: 'cv', name: 'cv.pdf', bytes: Buffer.from(cv) }],
  });
const settle = async (): Promise<void> => {
  for (let i = 0; i < 5; i++) {
    await testWorker(world).drain();
    world.now += 4_000;
  }
};

test('an application comes in with its papers, is opened, moved, given to the hiring manager, and its dossier sent', async () => {
  expect(await apply('Marit Oldenkamp')).toMatchObject({ ok: true });
  await settle();
  const [job] = await openings(world);
  const { applications } = await opening(world, job!.id);
  expect(applications).toEqual([
    expect.objectContaining({
      personName: 'Marit Oldenkamp',
      stage: 'Read',
      ownerName: 'Dagny Holm',
      education: '2012 – 2016: Mechatronics technician, Noorderpoort College',
      own: { service_years: 6 },
      place: null,
      driving: true,
    }),
  ]);
  const page = await personPage(world, applications[0]!.personId);
  const jobs = page.known.find((field) => field.key === 'jobs');
  expect(jobs?.fact).toMatchObject({
    source: 'document',
    sourceRef: 'cv.pdf',
    quote: expect.stringContaining('Larkfield Pumps') as string,
  });
  expect(jobs?.fact?.url).toMatch(/^\/api\/v1\/files\//);
  const { dossiers } = await dossierPage(world, 'person', applications[0]!.personId);
  const sections = dossiers[0]?.content?.sections ?? [];
  expect(sections.map((section) => section.id)).toEqual(['short', 'applies', 'papers', 'watch', 'unknown']);
  expect(world.outside.mails[0]).toMatchObject({ to: { address: 'dagny@thornwick.example' }, attachments: [expect.anything()] });
});

test('who sends the papers twice has applied once; papers without text are for a person', async () => {
  await apply('Marit Oldenkamp');
  await settle();
  await apply('Marit Oldenkamp', `${CV}\nVCA`);
  await apply('Gwen Ashdown', '%PDF-1.4 ');
  await settle();
  const [job] = await openings(world);
  const { applications } = await opening(world, job!.id);
  expect(applications.map((entry) => [entry.personName, entry.stage]).sort()).toEqual([
    ['Gwen Ashdown', 'Received'],
    ['Marit Oldenkamp', 'Read'],
  ]);
});

test('a draft is tried on those who came by its form, with what they sent', async () => {
  await apply('Marit Oldenkamp');
  await settle();
  const [flow] = await world.db<
    { id: string }[]
  >`select f.id from flow f join flow_version v on v.id = f.live_version_id where v.text like '%Technician applications%'`;
  expect((await specimens(world, flow!.id)).map((specimen) => specimen.name)).toEqual(['Marit Oldenkamp']);
  const id = await startTrial(world, ines, flow!.id, {});
  await settle();
  const seen = JSON.stringify(await trial(world, flow!.id, id));
  expect(seen).toContain('Field service technician, Larkfield Pumps, Hessle');
});

test('stages by hand, and an opening whose stages are in use', async () => {
  await apply('Marit Oldenkamp');
  await settle();
  const [job] = await openings(world);
  const [application] = (await opening(world, job!.id)).applications;
  await expect(changeApplication(world, ines, application!.id, { stage: 'Nowhere' })).rejects.toThrow(
    'has no stage “Nowhere”: it has Received',
  );
  expect(await changeApplication(world, ines, application!.id, { stage: 'Talk' })).toMatchObject({ stage: 'Talk' });
  const body = { place: '', description: '', criteria: [], stages: ['Received', 'Hired'], isOpen: true };
  await expect(saveOpening(world, ines, job!.id, body)).rejects.toThrow('Marit Oldenkamp is at “Talk”');
  expect(await saveOpening(world, ines, job!.id, { ...body, stages: ['Received', 'Talk'], isOpen: false })).toMatchObject({
    isOpen: false,
  });
  await expect(createOpening(world, ines, { ...body, name: 'Commissioning technician' })).rejects.toThrow('already');
});
