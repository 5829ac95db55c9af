/**
 * Entries of forms and other doors: kept as they came, read, made into records, and the flows that take from there begun.
 * Promises: what came in is stored before anything is made of it; the same entry twice is one; a refused one can be mended.
 */
import { stableId, type Instant, type JsonObject } from '../../core/base';
import type { SourceKind } from '../../core/facts';
import { planRows, readRow, type RowReading, type Target } from '../../core/intake';
import { ENTRY } from '../../core/flow/check';
import { parseFlow } from '../../core/flow/syntax';
import type { Tx } from '../db';
import { listFlows, versionsOf } from '../flows/store/flows';
import { filesOf, lastEntries, settleEntry, type IntakeRow } from './store/intakes';
import { wakeWorkers } from '../platform/store/wake';
import { withoutErased } from '../workspace/erase';
import { loadCatalogue } from '../records/fields';
import { startTrips } from '../trips/start';
import { BARS, knownFor, takeInRows } from './take-in';
import { workspace } from '../platform/world';

export interface EntryToTakeIn {
  readonly id: string;
  readonly no: number;
  readonly intake: { readonly id: string; readonly kind: IntakeRow['kind']; readonly name: string };
  readonly raw: Readonly<Record<string, string>>;
  /** answers by their names: what flows see as `entry` */
  readonly answers: JsonObject;
  readonly cells: readonly string[];
  readonly columns: readonly { readonly target: Target }[];
}

/** What a look at a door would find: nothing of it is kept. */
export interface Preview {
  readonly says: string;
  readonly becomes: string;
  readonly taken: boolean;
}

const SOURCE: Readonly<Record<EntryToTakeIn['intake']['kind'], SourceKind>> = {
  form: 'form',
  webhook: 'api',
  mailbox: 'mail',
  calendar: 'calendar',
};

/** Makes records of an entry and begins the flows that take from its intake. What cannot become a record is refused with its reason. */
export async function takeInEntry(
  tx: Tx,
  entry: EntryToTakeIn,
  now: Instant,
): Promise<{ readonly personId: string | null; readonly why: string }> {
  const { defaultCountry } = await workspace(tx);
  const reading: RowReading = readRow(entry.cells, entry.columns, defaultCountry, await loadCatalogue(tx));
  const rows = await withoutErased(tx, [{ row: entry.no, reading }]);
  const [plan] = planRows(rows, await knownFor(tx, entry.id, rows), { importId: entry.id, ...BARS });
  if (!plan || plan.personId === null) {
    const why = plan?.why ?? 'cannot be read';
    await settleEntry(tx, entry.id, { state: 'refused', why, personId: null, answers: entry.answers, raw: entry.raw });
    return { personId: null, why };
  }
  const { intake } = entry;
  await takeInRows(
    tx,
    [{ plan, reading }],
    {
      source: SOURCE[intake.kind],
      says: `Taken in from ${intake.kind} ${intake.name}`,
      userId: null,
      refOf: () => `${intake.name}, entry ${entry.no}`,
      detailOf: () => ({ entry: entry.id, answers: entry.answers }),
    },
    now,
  );
  const why = [plan.why, ...reading.remarks.map((remark) => `${remark.target}: ${remark.says}`)].join(' · ');
  await settleEntry(tx, entry.id, { state: 'taken', why, personId: plan.personId, answers: entry.answers, raw: entry.raw });
  for (const flow of await flowsTaking(tx, intake.kind, intake.name))
    await startTrips(
      tx,
      { ...flow, intake: stableId('entry', entry.id), personIds: [plan.personId], vars: await entryVars(tx, entry) },
      now,
    );
  await wakeWorkers(tx);
  return { personId: plan.personId, why };
}

/** Beside the answers, for the lines that ask what else came: not seen by flows. */
export const ENTRY_ID = '·id';

/** What flows see of an entry as `entry`: its answers, and beside them where the files they came in can be opened. */
async function entryVars(tx: Tx, entry: { readonly id: string; readonly answers: JsonObject }): Promise<JsonObject> {
  const files = await filesOf(tx, [entry.id]);
  const opened = Object.fromEntries(files.map((file) => [file.question, { name: file.name, url: `/api/v1/files/${file.id}` }]));
  return { [ENTRY]: { ...entry.answers, ...(files.length > 0 && { files: opened }), [ENTRY_ID]: entry.id } };
}

/** The intake whose entries a flow begins with, when its first line names one. */
export function intakeOf(text: string): { readonly kind: string; readonly name: string } | undefined {
  const step = parseFlow(text).tree.lines.find((line) => line.step.verb === 'take in')?.step;
  return step?.verb === 'take in' && step.name ? { kind: step.from.text, name: step.name.text } : undefined;
}

/** For a trial: what each person came with the last time, by person. */
export async function lastVars(tx: Tx, text: string, personIds: readonly string[]): Promise<ReadonlyMap<string, JsonObject>> {
  const intake = intakeOf(text);
  const entries = intake ? await lastEntries(tx, intake.kind, intake.name, personIds) : [];
  return new Map(await Promise.all(entries.map(async (entry) => [entry.personId, await entryVars(tx, entry)] as const)));
}

/** Live flows whose first line takes in from there. */
export async function flowsTaking(
  tx: Tx,
  kind: string,
  name: string,
): Promise<readonly { readonly flowId: string; readonly versionId: string; readonly flowName: string }[]> {
  const live = (await listFlows(tx)).filter((flow) => flow.liveVersionId !== null);
  const versions = new Map(
    (
      await versionsOf(
        tx,
        live.flatMap((flow) => flow.liveVersionId ?? []),
      )
    ).map((version) => [version.id, version]),
  );
  return live.flatMap((flow) => {
    const versionId = flow.liveVersionId ?? '';
    const intake = intakeOf(versions.get(versionId)?.text ?? '');
    return intake?.kind === kind && intake.name === name ? [{ flowId: flow.id, versionId, flowName: flow.name }] : [];
  });
}
