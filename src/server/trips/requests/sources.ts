/**
 * Searches at sources that may take their time. Promises: a slow search is a wait with a timer and never holds a worker; each
 * search is made and paid once while it is fresh; a source that fails says so and holds up no other.
 */
import { z } from 'zod';
import type { Instant } from '../../../core/base';
import type { SourceKind } from '../../../core/facts';
import { SOURCE_NAMES, WorldFailure, type SourceDocument, type SourceName, type SourceState } from '../../ports';
import { beginResearch, reserveResearch, saveResearch, type ResearchJob } from '../../research/store/research';
import { getSetting } from '../../platform/store/settings';
import type { HeldTrip } from '../store/trips';
import { counted, HeldBack, inPlace } from '../../workspace/connections';
import type { World } from '../../platform/world';
import { setAside, settleReservation, type Reservation, type SpendLedger, UsedUp } from './paid';

/** What kind of fact a source's statements make. */
export const SOURCE_KIND: Readonly<Record<SourceName, SourceKind>> = {
  news: 'news',
  register: 'register',
  people: 'directory',
  jobs: 'jobs',
};

/** How long a search may take before research goes on without it. */
const PATIENCE_MS = 90_000;
const RETRY_MS = 5_000;

const sourceSettingSchema = z.object({
  name: z.enum(SOURCE_NAMES),
  label: z.string(),
  priceMicro: z.number().int().min(0).default(0),
  dayBudgetMicro: z.number().int().min(0).optional(),
  atOnce: z.number().int().min(1).default(4),
  off: z.boolean().default(false),
});
export const sourceSettingsSchema = z.array(sourceSettingSchema);
export type SourceSetting = z.infer<typeof sourceSettingSchema>;

/** The sources as the workspace has set them up. */
export async function sourceSettings(world: World): Promise<readonly SourceSetting[]> {
  const read = sourceSettingsSchema.safeParse(await getSetting(world.db, 'sources'));
  return read.success ? read.data : SOURCE_NAMES.map((name) => ({ name, label: name, priceMicro: 0, atOnce: 4, off: false }));
}

export interface Subject {
  readonly recordId: string;
  readonly companyName: string | null;
  readonly host: string | null;
  readonly personName: string | null;
}

export interface Searched {
  readonly source: SourceName;
  readonly documents: readonly SourceDocument[];
  /** why there is nothing, when something went wrong; empty otherwise */
  readonly says: string;
  /** under which it is kept; null when it was not made */
  readonly key: string | null;
  readonly startedAt: Instant;
}

interface SearchAsk {
  readonly subject: Subject;
  readonly places: readonly string[];
  /** at most this much for all of them together; null: no limit */
  readonly maxCostMicro: number | null;
  readonly since: Instant;
  /** set when nothing found earlier is to be taken: whose own search it is */
  readonly afresh: string | null;
}

/** Starts every search that is not there yet and looks after the others. The result of each, `undefined` while it still goes on. */
export async function searchSources(
  world: World,
  held: HeldTrip | null,
  ask: SearchAsk,
): Promise<readonly { readonly askAt: Instant; readonly done: Searched | undefined }[]> {
  const settings = await sourceSettings(world);
  let left = ask.maxCostMicro;
  const wanted = settings.filter((setting) => ask.places.includes(setting.name));
  const within = wanted.map((setting) => {
    const affordable = left === null || setting.priceMicro <= left;
    if (affordable && left !== null) left -= setting.priceMicro;
    return { setting, affordable };
  });
  return Promise.all(
    within.map(async ({ setting, affordable }) => {
      const now = await world.clock.now();
      const nothing = (says: string) => ({ askAt: now, done: { source: setting.name, documents: [], says, key: null, startedAt: now } });
      if (setting.off) return nothing(`${setting.label} is switched off`);
      if (!affordable) return nothing(`${setting.label} left out: over the line’s limit`);
      return searchOne(world, held, setting, ask, now);
    }),
  );
}

async function searchOne(
  world: World,
  held: HeldTrip | null,
  setting: SourceSetting,
  ask: SearchAsk,
  now: Instant,
): Promise<{ askAt: Instant; done: Searched | undefined }> {
  const { subject } = ask;
  const key = [setting.name, subject.recordId, subject.host ?? '', subject.personName ?? '', ask.afresh ?? ''].join(' ');
  const job = await beginResearch(world.db, { key, source: setting.name, recordId: subject.recordId }, ask.since, now);
  if (job.state === 'done' || job.state === 'failed') return { askAt: now, done: resultOf(job, setting.name) };
  if (job.askAt > now) return { askAt: job.askAt, done: undefined };
  const ledger: SpendLedger = { reserved: job.reserved, remember: (tx, reserved) => reserveResearch(tx, key, reserved) };
  let reservation: Reservation | undefined;
  try {
    reservation = await setAside(world, held, setting, ledger, now);
    const state = await inPlace(world, { name: setting.name, atOnce: setting.atOnce }, now, () =>
      counted(world, setting.name, () =>
        job.job === null
          ? world.sources.start({
              source: setting.name,
              companyName: subject.companyName,
              host: subject.host,
              personName: subject.personName,
              key: `${key} ${job.startedAt}`,
            })
          : world.sources.collect(setting.name, job.job),
      ),
    );
    const next = await take(world, key, job, state, now);
    if (next.state === 'done' || next.state === 'failed')
      await world.db.begin((tx) => settleReservation(tx, ledger, reservation, next.costMicro));
    return { askAt: next.askAt, done: next.state === 'working' ? undefined : resultOf(next, setting.name) };
  } catch (error) {
    // By hand nobody waits a month for one place: it is left out, and that is said.
    if (error instanceof UsedUp && held === null)
      return {
        askAt: now,
        done: { source: setting.name, documents: [], says: `${setting.label} left out: ${error.message}`, key: null, startedAt: now },
      };
    if (error instanceof HeldBack) return { askAt: error.until, done: undefined };
    if (!(error instanceof WorldFailure)) throw error;
    const patience = error.retryable && now - job.startedAt < PATIENCE_MS;
    const next = patience
      ? { ...job, state: 'working' as const, says: error.message, askAt: now + (error.retryAfterMs ?? RETRY_MS) }
      : { ...job, state: 'failed' as const, says: error.message, askAt: now };
    await saveResearch(world.db, key, next);
    // What is given up costs nothing: the money set aside is free again.
    if (!patience) await world.db.begin((tx) => settleReservation(tx, ledger, reservation, 0));
    return { askAt: next.askAt, done: patience ? undefined : resultOf(next, setting.name) };
  }
}

/** Writes down what the source said. One that is still at it after our patience has ended is given up. */
async function take(world: World, key: string, job: ResearchJob, state: SourceState, now: Instant): Promise<ResearchJob> {
  const next: ResearchJob =
    state.kind === 'done'
      ? { ...job, state: 'done', documents: state.documents, costMicro: state.costMicro, says: '', askAt: now }
      : state.kind === 'failed'
        ? { ...job, state: 'failed', says: state.why, askAt: now }
        : now - job.startedAt >= PATIENCE_MS
          ? { ...job, state: 'failed', says: 'did not answer in time', askAt: now }
          : { ...job, state: 'working', job: state.job, askAt: now + state.askAgainMs };
  await saveResearch(world.db, key, next);
  return next;
}

function resultOf(job: ResearchJob, source: SourceName): Searched {
  const says = job.state === 'failed' ? `${source}: ${job.says}` : '';
  return { source, documents: job.documents, says, key: job.key, startedAt: job.startedAt };
}
