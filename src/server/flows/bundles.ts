/**
 * Flows as files: out as text, bundle, tree or picture, in from text or bundle. Promises: looking at a file makes nothing;
 * taking it in makes the flow and what it brings in one transaction, or nothing. Refuses: writing over what is here.
 */
import { catalogueOf } from '../../core/fields';
import { strFromU8, strToU8, zipSync } from 'fflate';
import { z } from 'zod';
import type { FileAnswer } from '../../api';
import { freeName } from '../../core/base';
import { bundleSchema, makeBundle, matchBundle, settleBundle, type Bundle, type Choice, type Match } from '../../core/flow/bundle';
import { libraryItemSchema, type LibraryItem } from '../../core/flow/check';
import { drawFlow } from '../../core/flow/diagram';
import { applyEdits } from '../../core/flow/edit';
import { flowJson, flowJsonSchema } from '../../core/flow/json';
import { numberedLines, parseFlow, printFlow, quote } from '../../core/flow/syntax';
import { WorldFailure } from '../ports';
import { insertField } from '../records/store/fields';
import { listFlows, type FlowRow } from './store/flows';
import { insertThing } from './store/things';
import { insertAudit } from '../access/store/audit';
import { flow, makeFlow } from './flows';
import { loadLibrary } from './library';
import { Refusal, type Actor, type World } from '../platform/world';

const MAX_BYTES = 2 * 1024 * 1024;
const TEXT_FILE = 'flow.race';
const FORMAT_FILE = 'bundle.json';

export const treeSchema = (): Readonly<Record<string, unknown>> => ({
  ...z.toJSONSchema(flowJsonSchema),
  title: 'The syntax tree of a Millrace flow',
});

/** The draft as a file. */
export async function flowFile(world: World, id: string, as: 'text' | 'bundle' | 'tree' | 'picture'): Promise<FileAnswer> {
  const row = await flow(world, id);
  const { tree } = parseFlow(row.draftText);
  const name = row.name.replace(/[\\/:*?"<>|\u0000-\u001f]/g, '_');
  switch (as) {
    case 'text':
      return { name: `${name}.race`, type: 'text/plain; charset=utf-8', content: printFlow(tree, { marks: true }) };
    case 'bundle':
      return { name: `${name}.zip`, type: 'application/zip', content: pack(makeBundle(row.draftText, await loadLibrary(world.db))) };
    case 'tree':
      return { name: `${name}.json`, type: 'application/json', content: `${JSON.stringify(flowJson(tree), null, 2)}\n` };
    case 'picture':
      return { name: `${name}.svg`, type: 'image/svg+xml', content: drawFlow(tree, catalogueOf((await loadLibrary(world.db)).fields)) };
  }
}

/** A ZIP with the text, a file for each thing, and one that says what it is. The same bundle gives the same bytes. */
function pack(bundle: Bundle): Uint8Array {
  const files: Record<string, Uint8Array> = {
    [FORMAT_FILE]: json({ format: bundle.format }),
    [TEXT_FILE]: strToU8(bundle.text),
  };
  bundle.things.forEach((thing, i) => {
    files[`things/${String(i + 1).padStart(3, '0')} ${thing.kind}.json`] = json(thing);
  });
  return zipSync(files, { mtime: '2020-01-01T00:00:00Z' });
}
const json = (value: unknown): Uint8Array => strToU8(`${JSON.stringify(value, null, 2)}\n`);

export interface FlowFileView {
  readonly bundle: Bundle;
  readonly name: string;
  readonly freeName: string;
  readonly lines: number;
  readonly matches: readonly Match[];
}

/** What is in a `.race` or `.zip` file, against this workspace. */
export async function lookAtFlowFile(world: World, file: { readonly name: string; readonly bytes: Uint8Array }): Promise<FlowFileView> {
  const bundle = await readFlowFile(world, file);
  const { tree, problems } = parseFlow(bundle.text);
  const name = tree.name?.text.trim() ?? '';
  if (name === '') throw new Refusal('not valid', `${file.name} holds no flow: its first line would be flow "Name"`);
  if (problems[0] && tree.lines.length === 0) throw new Refusal('not valid', `${file.name}: ${problems[0].message}`);
  const [library, rows] = await Promise.all([loadLibrary(world.db), listFlows(world.db)]);
  const free = freeName(
    name,
    rows.map((row) => row.name),
  );
  return { bundle, name, freeName: free, lines: numberedLines(tree.lines).length, matches: matchBundle(bundle, library) };
}

async function readFlowFile(world: World, { name, bytes }: { readonly name: string; readonly bytes: Uint8Array }): Promise<Bundle> {
  if (bytes.length === 0) throw new Refusal('not valid', `${name} is empty`);
  if (bytes.length > MAX_BYTES) throw new Refusal('not valid', `${name} is larger than ${MAX_BYTES / 1024 / 1024} MB: that is no flow`);
  // A ZIP says so in its first bytes, whatever its name is.
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return unpack(world, name, bytes);
  const text = utf8(name, bytes);
  return { format: 'millrace flow bundle 1', text: text.replace(/\r\n?/g, '\n'), things: [] };
}

function utf8(name: string, bytes: Uint8Array): string {
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    if (text.includes('\u0000')) throw new Error('binary');
    return text;
  } catch {
    throw new Refusal('not valid', `${name} is neither flow text (UTF-8) nor a bundle`);
  }
}

async function unpack(world: World, name: string, bytes: Uint8Array): Promise<Bundle> {
  let files: Readonly<Record<string, Uint8Array>>;
  try {
    files = await world.box.run('bundle', { bytes });
  } catch (error) {
    if (!(error instanceof WorldFailure)) throw new Refusal('not valid', `${name} is a damaged ZIP file`);
    throw new Refusal('not valid', error.code === 'broken' ? `${name} is a damaged ZIP file` : `${name}: ${error.message}`);
  }
  const text = files[TEXT_FILE];
  const format = files[FORMAT_FILE];
  if (!text || !format)
    throw new Refusal('not valid', `${name} is a ZIP file, but no flow bundle: ${TEXT_FILE} and ${FORMAT_FILE} are not in it`);
  const things = Object.entries(files)
    .filter(([path]) => path.startsWith('things/'))
    .sort(([a], [b]) => a.localeCompare(b))
    .map(([path, content]): LibraryItem => readThing(`${name}: ${path}`, content));
  const read = bundleSchema.safeParse({
    ...readJson(`${name}: ${FORMAT_FILE}`, format),
    text: utf8(`${name}: ${TEXT_FILE}`, text),
    things,
  });
  if (!read.success) throw new Refusal('not valid', `${name}: ${firstIssue(read.error)}`);
  return read.data;
}

function readJson(where: string, bytes: Uint8Array): Readonly<Record<string, unknown>> {
  try {
    const value: unknown = JSON.parse(strFromU8(bytes));
    if (typeof value === 'object' && value !== null) return value as Readonly<Record<string, unknown>>;
  } catch {
    // Said below.
  }
  throw new Refusal('not valid', `${where} is not a JSON object`);
}

function readThing(where: string, bytes: Uint8Array): LibraryItem {
  const read = libraryItemSchema.safeParse(readJson(where, bytes));
  if (!read.success) throw new Refusal('not valid', `${where}: ${firstIssue(read.error)}`);
  return read.data;
}

const firstIssue = (error: z.ZodError): string => {
  const [issue] = error.issues;
  return issue ? `${issue.path.join('.') || 'the file'}: ${issue.message}` : 'not valid';
};

/** Makes the flow as a draft, with the things it brings. */
export async function takeInFlow(
  world: World,
  actor: Actor,
  ask: { readonly bundle: unknown; readonly choices: Readonly<Record<string, Choice>>; readonly name: string },
): Promise<FlowRow> {
  const bundle = bundleSchema.safeParse(ask.bundle);
  if (!bundle.success) throw new Refusal('not valid', `the bundle: ${firstIssue(bundle.error)}`);
  const settled = settleBundle(bundle.data, await loadLibrary(world.db), ask.choices);
  if (!settled.ok)
    throw new Refusal('not valid', settled.problems.map((problem) => problem.message).join('; '), { problems: settled.problems });
  const { name } = parseFlow(settled.text).tree;
  const text = name ? applyEdits(settled.text, [{ from: name.from, to: name.to, insert: quote(ask.name) }]) : settled.text;
  const now = await world.clock.now();
  const id = await world.db.begin(async (tx) => {
    for (const thing of settled.make)
      if (
        !(thing.kind === 'field'
          ? await insertField(tx, thing.body)
          : await insertThing(tx, { ...thing, id: world.newId() }, { says: `came with ${ask.name}`, userId: actor.userId, at: now }))
      )
        throw new Refusal('conflict', `somebody made a ${thing.kind} named “${thing.name}” meanwhile: look at the file again`);
    const made = await makeFlow(world, tx, actor, text, now);
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: 'took in a flow from a file',
      detail: { flowId: made, name: ask.name, made: settled.make.map((thing) => `${thing.kind} ${thing.name}`) },
    });
    return made;
  });
  return flow(world, id);
}
