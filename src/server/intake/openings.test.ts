import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { dossierPage } from '../research/dossiers';
import { bringEntry } from './forms';
import { changeApplication, createOpening, opening, openings, saveOpening } from './openings';
import { changeRecord, type Values } from '../records/by-hand';
import { erasePerson } from '../workspace/erase';
import { merge, undoMerge } from '../records/merge';
import { personPage } from '../records/records';
import { specimens } from '../research/specimens';
import { startTrial, trial } from '../flows/flows';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;

beforeEach(async () => {
  ({ world, ines } = await demoWorld());
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
const apply = (name: string, cv = CV, start = '') =>
  bringEntry(world, 'Work with us', {
    raw: {
      opening: 'Commissioning technician',
      name,
      start,
      email: `${name.split(' ')[0]?.toLowerCase() ?? ''}@postvak.example`,
      agreed: 'yes',
    },
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

test('what an application and its opening say is kept with its source, changed by hand, and compared by the flow', async () => {
  await apply('Marit Oldenkamp', CV, '2027-05-03');
  await apply('Gwen Ashdown', CV.replace('Marit Oldenkamp', 'Gwen Ashdown'), '2027-01-11');
  await settle();
  const [job] = await openings(world);
  expect(job?.own).toEqual({ nights_away: 18, wanted_by: '2027-02-01' });
  const { applications, known } = await opening(world, job!.id);
  expect(applications.map((entry) => [entry.personName, entry.stage, entry.values]).sort()).toEqual([
    ['Gwen Ashdown', 'Read', { could_begin: '2027-01-11' }],
    ['Marit Oldenkamp', 'Received', { could_begin: '2027-05-03' }],
  ]);
  expect(known.find((field) => field.key === 'nights_away')).toMatchObject({ record: 'opening', fact: { value: 18, source: 'hand' } });
  const marit = applications.find((entry) => entry.personName === 'Marit Oldenkamp')!;
  const change = (values: Values, was?: Values) =>
    changeRecord(world, ines, { kind: 'application', id: marit.id, values, was, source: 'hand' });
  await change({ wage_asked: '3,200 €' });
  expect((await opening(world, job!.id)).applications.find((entry) => entry.id === marit.id)?.values).toEqual({
    could_begin: '2027-05-03',
    wage_asked: 3200,
  });
  await expect(change({ wage_asked: 1 }, { wage_asked: 2 })).rejects.toThrow('was changed meanwhile: by Ines');
  await expect(change({ stage: 'Talk' })).rejects.toThrow('this is not set among the values');
  await expect(change({ nights_away: 3 })).rejects.toThrow('an application has no field “nights_away”');
  const page = await personPage(world, marit.personId);
  expect(page.known.filter((field) => field.record === 'application').map((field) => [field.key, field.others.length])).toEqual([
    ['could_begin', 0],
    ['wage_asked', 0],
  ]);
  expect(page.happened.map((entry) => entry.says)).toContain(
    'wage asked of the application for Commissioning technician changed by Ines Okafor-Brandt',
  );
  await changeRecord(world, ines, { kind: 'opening', id: job!.id, values: { nights_away: '20 nights' }, source: 'hand' });
  expect((await opening(world, job!.id)).opening.own).toMatchObject({ nights_away: 20 });
});

test('who is erased takes along what their applications say; who applied under two names has both back when they part', async () => {
  await apply('Marit Oldenkamp', CV, '2027-01-11');
  await apply('Gwen Ashdown', CV.replace('Marit Oldenkamp', 'Gwen Ashdown').replace('0134', '0177'), '2027-01-12');
  await settle();
  const [job] = await openings(world);
  const before = (await opening(world, job!.id)).applications;
  const [one, two] = before.map((entry) => entry.personId);
  await world.db.begin((tx) =>
    merge(tx, { kind: 'person', fromId: one!, intoId: two!, confidence: 0.9, evidence: [], by: 'Ines' }, world.now),
  );
  expect((await personPage(world, two!)).applications).toHaveLength(1);
  await undoMerge(world, (await personPage(world, two!)).merges[0]!.id, ines);
  expect((await opening(world, job!.id)).applications).toEqual(before);
  await erasePerson(world, ines, one!, before[0]!.personName);
  expect((await opening(world, job!.id)).applications.map((entry) => entry.personId)).toEqual([two]);
  expect(await world.db`select from fact where record_kind = 'application' and record_id = ${before[0]!.id}`).toHaveLength(0);
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
