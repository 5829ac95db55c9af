/** Forms: built, shown at an address of their own, and what is sent through them. */
import { createHmac, timingSafeEqual } from 'node:crypto';
import { stableId, type Instant, type JsonObject } from '../../core/base';
import {
  checkForm,
  entryRow,
  FILE_KIND_NAMES,
  FILE_KINDS,
  fileKind,
  formSchema,
  questionsOf,
  readEntry,
  type Form,
  type FormProblem,
} from '../../core/intake';
import type { Library } from '../../core/flow/check';
import { putLibrary } from '../flows/store/flows';
import {
  countTry,
  entriesOf,
  fileBytes,
  filesOf,
  findEntry,
  findIntake,
  insertEntry,
  insertIntake,
  intakeAt,
  listIntakes,
  updateIntake,
  type EntryRow,
  type IntakeRow,
  type StoredFile,
} from './store/intakes';
import { insertAudit } from '../access/store/audit';
import { loadCatalogue } from '../records/fields';
import { flowsTaking, takeInEntry } from './entries';
import { keepFiles, plainName, readEntryFile, type EntryFile, type ReadEntryFile } from './entry-files';
import { found, Refusal, type Actor, type World } from '../platform/world';

/** What a sender may do: so many entries in so long, files so large, and nothing faster than a person types. */
const LIMITS = {
  entries: 8,
  withinMs: 10 * 60_000,
  fileBytes: 8 * 1024 * 1024,
  files: 5,
  fastestMs: 1_500,
  openMs: 12 * 3_600_000,
} as const;
const PAGE = 100;

export interface FormView {
  readonly id: string;
  readonly name: string;
  readonly slug: string;
  readonly isOn: boolean;
  readonly lastAt: Instant | null;
  readonly taken: number;
  readonly refused: number;
  readonly form: Form;
  readonly problems: readonly FormProblem[];
  /** the flows that begin with what is sent */
  readonly flows: readonly string[];
}

const parsed = (row: IntakeRow): Form => formSchema.parse(row.body);

async function viewOf(world: World, row: IntakeRow): Promise<FormView> {
  const { id, name, slug, isOn, lastAt, taken, refused } = row;
  const form = parsed(row);
  const flows = (await flowsTaking(world.db, 'form', name)).map((flow) => flow.flowName);
  return { id, name, slug, isOn, lastAt, taken, refused, form, problems: checkForm(form, await loadCatalogue(world.db)), flows };
}

export async function forms(world: World): Promise<readonly FormView[]> {
  return Promise.all((await listIntakes(world.db)).filter((row) => row.kind === 'form').map((row) => viewOf(world, row)));
}
/** Sites that may show the public page of a form inside their own; none while that cannot be looked up. */
export async function formHosts(world: World, slug: string): Promise<readonly string[]> {
  try {
    const row = await intakeAt(world.db, slug);
    return row?.kind === 'form' ? parsed(row).embedOn : [];
  } catch {
    return [];
  }
}
export async function form(world: World, id: string): Promise<FormView> {
  return viewOf(world, await formRow(world, id));
}
async function formRow(world: World, id: string): Promise<IntakeRow> {
  const row = found(await findIntake(world.db, id), 'this form');
  if (row.kind !== 'form') throw new Refusal('not found', 'this form does not exist');
  return row;
}

const slugOf = (name: string): string =>
  name
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'form';

/** Makes a form; flows can take in from it by its name from now on. */
export async function createForm(
  world: World,
  actor: Actor,
  ask: { readonly name: string; readonly form: Form },
): Promise<{ readonly id: string }> {
  const id = world.newId();
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    const made = await insertIntake(
      tx,
      { id, kind: 'form', name: ask.name, slug: slugOf(ask.name), body: ask.form, secret: null, userId: actor.userId },
      now,
    );
    if (!made) throw new Refusal('conflict', `there is a form called “${ask.name}” already`);
    await putLibrary(tx, 'intake', ask.name, formIntake(ask.name, ask.form));
  });
  return { id };
}

/** Keeps a form as it is changed. One that is on must be sound: what is wrong is said, and the form stays as it was. */
export async function saveForm(
  world: World,
  actor: Actor,
  id: string,
  ask: { readonly form: Form; readonly isOn: boolean },
): Promise<FormView> {
  const row = await formRow(world, id);
  const problems = checkForm(ask.form, await loadCatalogue(world.db));
  const [first] = problems;
  if (ask.isOn && first)
    throw new Refusal('not valid', first.question === '' ? first.says : `question “${first.question}”: ${first.says}`, { problems });
  await world.db.begin(async (tx) => {
    await updateIntake(tx, id, { body: ask.form, isOn: ask.isOn });
    await putLibrary(tx, 'intake', row.name, formIntake(row.name, ask.form));
    await insertAudit(tx, {
      at: await world.clock.now(),
      userId: actor.userId,
      what: ask.isOn ? 'changed a form' : 'switched a form off',
      detail: { form: row.name },
    });
  });
  return form(world, id);
}

/** How flows know a form: by its name, with what its answers are called; of a file they see its text. */
export function formIntake(name: string, body: Form): Library['intakes'][number] {
  return {
    kind: 'form',
    name,
    answers: questionsOf(body).map((question) => ({
      id: question.id,
      type: question.kind === 'number' || question.kind === 'date' ? question.kind : question.kind === 'consent' ? 'yes/no' : 'text',
      ...(question.unit !== undefined && { unit: question.unit }),
    })),
  };
}

/** A form as its public page shows it. `opened` goes back with what is sent: it says when the page was opened, and by whom it was given out. */
export async function publicForm(
  world: World,
  slug: string,
): Promise<{ readonly form: Form; readonly name: string; readonly opened: string } | undefined> {
  const row = await intakeAt(world.db, slug);
  if (row?.kind !== 'form' || !row.isOn) return undefined;
  const at = String(await world.clock.now());
  return { form: parsed(row), name: row.name, opened: `${at}.${stamp(world.secret, row.id, at)}` };
}

const stamp = (secret: string, id: string, at: string): string =>
  createHmac('sha256', secret).update(`form ${id} ${at}`).digest('base64url').slice(0, 22);

function openedAt(secret: string, id: string, opened: string): number | undefined {
  const [at = '', code = ''] = opened.split('.');
  const want = Buffer.from(stamp(secret, id, at));
  const got = Buffer.from(code);
  return want.length === got.length && timingSafeEqual(want, got) ? Number(at) : undefined;
}

export interface Sent {
  readonly raw: Readonly<Record<string, string>>;
  readonly files: readonly { readonly question: string; readonly name: string; readonly bytes: Uint8Array }[];
  readonly opened: string;
  /** a field that no person sees: whoever fills it is none */
  readonly trap: string;
  /** the sender's address, kept as a digest only */
  readonly sender: string;
}

export type SentAnswer =
  | { readonly ok: true; readonly thanks: string; readonly number: number }
  | { readonly ok: false; readonly problems: readonly FormProblem[]; readonly says: string };

/** Takes what was sent through a form. Bad answers are told by question and nothing is kept of them; a trapped sender is thanked like any other. */
export async function receiveForm(world: World, slug: string, sent: Sent): Promise<SentAnswer> {
  const row = await intakeAt(world.db, slug);
  if (row?.kind !== 'form' || !row.isOn) throw new Refusal('not found', 'this form is closed');
  const body = parsed(row);
  const opened = openedAt(world.secret, row.id, sent.opened);
  const age = opened === undefined ? Number.NaN : (await world.clock.now()) - opened;
  if (!(age >= 0 && age <= LIMITS.openMs))
    return { ok: false, problems: [], says: 'This page was open for too long. Load it again: your answers stay.' };
  const sender = createHmac('sha256', world.secret).update(`sender ${sent.sender}`).digest('base64url').slice(0, 22);
  if ((await countTry(world.db, row.id, sender, LIMITS.withinMs)) > LIMITS.entries)
    throw new Refusal('too often', 'That was often. Please try again in ten minutes: nothing was lost.');
  if (sent.trap !== '' || age < LIMITS.fastestMs) return { ok: true, thanks: body.thanks, number: 0 };
  return keepSent(world, row, sent, sent.opened);
}

/** Files by what is in them, whatever they are called. */
function readFiles(
  body: Form,
  files: Sent['files'],
  answers: Readonly<Record<string, unknown>>,
): { readonly good: readonly EntryFile[]; readonly problems: readonly FormProblem[] } {
  const good: EntryFile[] = [];
  const problems: FormProblem[] = [];
  for (const file of files.slice(0, LIMITS.files)) {
    const question = questionsOf(body).find((entry) => entry.id === file.question && entry.kind === 'file');
    if (!question || !(file.question in answers)) continue;
    const accepts = question.accepts ?? FILE_KINDS;
    const kind = fileKind(file.bytes);
    if (file.bytes.length > LIMITS.fileBytes)
      problems.push({ question: question.id, says: `at most ${LIMITS.fileBytes / 1024 / 1024} MB` });
    else if (kind === undefined || !accepts.includes(kind))
      problems.push({
        question: question.id,
        says: `“${file.name}” is no ${accepts.map((name) => FILE_KIND_NAMES[name]).join(' or ')}, whatever its name says`,
      });
    else good.push({ question: question.id, name: plainName(file.name), kind, bytes: file.bytes });
  }
  return { good, problems };
}

/** Reads what was sent; `once` tells one sending from another with the same answers. */
async function keepSent(world: World, row: IntakeRow, sent: Pick<Sent, 'raw' | 'files'>, once: string): Promise<SentAnswer> {
  const body = parsed(row);
  const raw = { ...sent.raw, ...Object.fromEntries(sent.files.map((file) => [file.question, file.name])) };
  const { answers, problems } = readEntry(body, raw);
  const files = readFiles(body, sent.files, answers);
  const all = [...problems, ...files.problems];
  if (all.length > 0) return { ok: false, problems: all, says: 'Some answers need another look.' };
  const read = await Promise.all(files.good.map((file) => readEntryFile(world, file)));
  return keep(world, row, body, {
    raw,
    answers: { ...answers, ...Object.fromEntries(read.map((file) => [file.question, file.text])) },
    files: read,
    key: stableId('form entry', row.id, once, JSON.stringify(raw)),
  });
}

/** Takes in an entry of a workspace that begins with some, as if it had been sent through the form. */
export async function bringEntry(world: World, formName: string, sent: Pick<Sent, 'raw' | 'files'>): Promise<SentAnswer> {
  const row = (await listIntakes(world.db)).find((entry) => entry.kind === 'form' && entry.name === formName);
  return keepSent(world, found(row, `the form “${formName}”`), sent, '');
}

async function keep(
  world: World,
  row: IntakeRow,
  body: Form,
  entry: {
    readonly raw: Readonly<Record<string, string>>;
    readonly answers: JsonObject;
    readonly files: readonly ReadEntryFile[];
    readonly key: string;
  },
): Promise<SentAnswer> {
  const id = stableId('entry', row.id, entry.key);
  const now = await world.clock.now();
  const no = await world.db.begin(async (tx) => {
    const number = await insertEntry(
      tx,
      { id, intakeId: row.id, key: entry.key, raw: entry.raw, answers: entry.answers, state: 'refused', why: 'not looked at yet' },
      now,
    );
    if (number === undefined) return (await findEntry(tx, id))?.no ?? 0;
    await keepFiles(tx, id, entry.files, now);
    await takeInEntry(
      tx,
      { id, no: number, intake: row, raw: entry.raw, answers: entry.answers, ...entryRow(body, entry.answers as never) },
      now,
    );
    return number;
  });
  return { ok: true, thanks: body.thanks, number: no };
}

export interface EntryView extends EntryRow {
  readonly files: readonly StoredFile[];
}
export async function entries(world: World, id: string): Promise<readonly EntryView[]> {
  const rows = await entriesOf(world.db, id, PAGE);
  const files = await filesOf(
    world.db,
    rows.map((row) => row.id),
  );
  return rows.map((row) => ({ ...row, files: files.filter((file) => file.entryId === row.id) }));
}

/** The texts of files, which mending leaves as they are. */
const filesIn = (body: Form, answers: JsonObject): JsonObject =>
  Object.fromEntries(
    questionsOf(body)
      .filter((question) => question.kind === 'file')
      .flatMap(({ id }) => (answers[id] === undefined ? [] : [[id, answers[id]]])),
  );

/** Brings a refused entry again with mended answers. */
export async function mendEntry(
  world: World,
  entryId: string,
  raw: Readonly<Record<string, string>>,
): Promise<{ readonly ok: boolean; readonly why: string; readonly problems: readonly FormProblem[] }> {
  const entry = found(await findEntry(world.db, entryId), 'this entry');
  if (entry.state === 'taken') throw new Refusal('conflict', 'this entry has been taken in already');
  const row = await formRow(world, entry.intakeId);
  const body = parsed(row);
  const mended = { ...entry.raw, ...raw };
  const { answers, problems } = readEntry(body, mended);
  if (problems.length > 0) return { ok: false, why: 'some answers need another look', problems };
  const now = await world.clock.now();
  const taken = await world.db.begin((tx) =>
    takeInEntry(
      tx,
      {
        id: entry.id,
        no: entry.no,
        intake: row,
        raw: mended,
        answers: { ...answers, ...filesIn(body, entry.answers) },
        ...entryRow(body, answers),
      },
      now,
    ),
  );
  return { ok: taken.personId !== null, why: taken.why, problems: [] };
}

/** A file that came with an entry. */
export async function entryFile(
  world: World,
  actor: Actor,
  id: string,
): Promise<{ readonly name: string; readonly type: string; readonly content: Uint8Array }> {
  const file = found(await fileBytes(world.db, id), 'this file');
  await insertAudit(world.db, {
    at: await world.clock.now(),
    userId: actor.userId,
    what: 'opened a paper',
    detail: { file: file.name, id },
  });
  const TYPES: Readonly<Record<string, string>> = {
    pdf: 'application/pdf',
    docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
    picture: file.bytes[0] === 0x89 ? 'image/png' : 'image/jpeg',
  };
  return { name: file.name, type: TYPES[file.kind] ?? 'text/plain; charset=utf-8', content: file.bytes };
}
