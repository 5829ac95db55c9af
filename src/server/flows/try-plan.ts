/**
 * What a plan would do as it is written: real days for readers who differ, what its mailbox has promised in the month to come, and what came of
 * its texts so far. Promises: nothing is planned and no place is taken.
 */
import type { PlanTrial } from '../../api';
import type { Instant } from '../../core/base';
import {
  addWorkingDays,
  dayKey,
  intoWorkingTime,
  limitOn,
  nextSlot,
  workingDaysFrom,
  type SlotBook,
  type WorkingTime,
} from '../../core/calendar';
import type { RecordView } from '../../core/engine';
import { consequenceOf, REPLY_KINDS } from '../../core/reply';
import {
  channelOf,
  isByHand,
  NO_WAY,
  reachOf,
  textsOf,
  type Channel,
  type FollowUpPlan,
  type MessageTemplate,
  type Touch,
} from '../../core/writer';
import type { Tx } from '../db';
import { listMailboxes } from '../messages/store/mailboxes';
import { plannedByDay, textFigures } from '../messages/store/plan-figures';
import { bookOf, clockMinutes, timeOf } from '../messages/touches';
import { loadViews } from '../records/store/records';
import { workspace, type Workspace, type World } from '../platform/world';
import { sampleReaders } from './store/things';

const SAMPLE = 60;
const READERS = 4;
const DAYS = 20;
const DAY_MS = 86_400_000;
const KINDS = {
  people: REPLY_KINDS.filter((kind) => consequenceOf(kind).wantsPerson && !consequenceOf(kind).bars),
  bounces: REPLY_KINDS.filter((kind) => kind === 'bounce'),
  bars: REPLY_KINDS.filter((kind) => consequenceOf(kind).bars && kind !== 'bounce'),
};

export async function tryPlan(world: World, plan: FollowUpPlan, texts: readonly MessageTemplate[]): Promise<PlanTrial> {
  const { db } = world;
  const [space, now, figures] = await Promise.all([
    workspace(db),
    world.clock.now(),
    textFigures(db, plan.touches.flatMap(textsOf), KINDS),
  ]);
  const channelAt = (name: string): Channel => channelOf(texts.find((text) => text.name === name) ?? {});
  const measured = plan.touches.map(({ template }) => {
    const { reached = 0, answered = 0, bounced = 0, unsubscribed = 0 } = figures.get(template) ?? {};
    return { channel: channelAt(template), reached, answered, bounced, unsubscribed };
  });
  const time: WorkingTime = {
    zone: space.zone,
    fromMinute: clockMinutes(plan.hours.from),
    toMinute: clockMinutes(plan.hours.to),
    daysOff: new Set(space.daysOff),
  };
  if (time.fromMinute >= time.toMinute) return { touches: [], zone: space.zone, measured, readers: [], month: null };
  const first = intoWorkingTime(now, time);
  const box = (await listMailboxes(db)).find(({ name }) => name === plan.mailbox);
  const book: NamedBook | undefined = box && { ...(await bookOf(db, box, now)), name: box.name };
  return {
    touches: plan.touches.map(({ day }) => ({ day, at: intoWorkingTime(addWorkingDays(first, day, time), time) })),
    zone: space.zone,
    measured,
    readers: book ? await readersOf(db, plan, { book, channelAt, now, space }) : [],
    month: book ? await monthOf(db, plan, book, now, time) : null,
  };
}

type NamedBook = SlotBook & { readonly name: string };

interface ForReaders {
  readonly book: NamedBook;
  readonly channelAt: (template: string) => Channel;
  readonly now: Instant;
  readonly space: Workspace;
}

/** Readers who differ in their zone or in the ways they can be reached. */
async function readersOf(tx: Tx, plan: FollowUpPlan, ask: ForReaders): Promise<PlanTrial['readers']> {
  const sample = await sampleReaders(tx, SAMPLE);
  const views = await loadViews(
    tx,
    sample.map(({ id }) => id),
  );
  const out: PlanTrial['readers'][number][] = [];
  const seen = new Set<string>();
  for (const { id } of sample) {
    const view = views.get(id);
    if (!view || out.length >= READERS) continue;
    const time = timeOf(ask.space, view, plan.hours);
    const touches = datesFor(plan, view, time, ask);
    const kind = `${time.zone} ${touches.map(({ channel, at }) => `${channel} ${at === null}`).join()}`;
    if (seen.has(kind)) continue;
    seen.add(kind);
    const company = view.company?.name;
    out.push({ id, name: view.person.name, company: typeof company === 'string' ? company : null, zone: time.zone, touches });
  }
  return out;
}

type ReaderTouch = PlanTrial['readers'][number]['touches'][number];

/** The days of one reader, with why each is what it is. */
function datesFor(plan: FollowUpPlan, view: RecordView, time: WorkingTime, { book, channelAt, now }: ForReaders): ReaderTouch[] {
  let first: Instant | undefined;
  let before = now;
  return plan.touches.map((touch) => {
    const way = wayOf(touch, view, channelAt);
    const says = [...way.says];
    const { channel, template } = way;
    if (!way.reaches) return { channel, template, at: null, says };
    const due = intoWorkingTime(first === undefined ? now : addWorkingDays(first, touch.day, time), time);
    const at = isByHand(channel) ? due : nextSlot(due, time, book);
    says.push(...daysOffBetween(before, at, time));
    if (dayKey(at, time.zone) !== dayKey(due, time.zone)) says.push(`${book.name} is full on ${dayKey(due, time.zone)}`);
    first ??= at;
    before = at;
    return { channel, template, at, says };
  });
}

interface Way {
  readonly channel: Channel;
  readonly template: string;
  readonly reaches: boolean;
  readonly says: readonly string[];
}
function wayOf({ template, otherwise }: Touch, view: RecordView, channelAt: (template: string) => Channel): Way {
  const channel = channelAt(template);
  if (reachOf(channel, view.person, view.company) !== null) return { channel, template, reaches: true, says: [] };
  const missing = `${channel}: ${NO_WAY[channel]}`;
  if (otherwise === undefined)
    return { channel, template, reaches: false, says: [isByHand(channel) ? `left out: ${NO_WAY[channel]}` : `held: ${NO_WAY[channel]}`] };
  const other = channelAt(otherwise);
  return reachOf(other, view.person, view.company) === null
    ? { channel, template, reaches: false, says: [missing, `${other}: ${NO_WAY[other]}`] }
    : { channel: other, template: otherwise, reaches: true, says: [missing] };
}

/** “2026-12-25 is a day off”, of days of the week that lie on the way. */
function daysOffBetween(from: Instant, to: Instant, time: WorkingTime): string[] {
  const [first, last] = [dayKey(from, time.zone), dayKey(to, time.zone)];
  const passed = [...time.daysOff].filter((day) => day > first && day < last && new Date(day).getUTCDay() % 6 !== 0).sort();
  return passed.length === 0 ? [] : [`${passed.join(', ')} ${passed.length === 1 ? 'is a day off' : 'are days off'}`];
}

/** The working days to come of the plan's mailbox: what is planned of its own texts and of others, against its limit. */
async function monthOf(tx: Tx, plan: FollowUpPlan, book: NamedBook, now: Instant, { daysOff }: WorkingTime): Promise<PlanTrial['month']> {
  const templates = plan.touches.flatMap(textsOf);
  const rows = await plannedByDay(tx, book, { templates, from: now - DAY_MS, to: now + 2 * DAYS * DAY_MS });
  const by = new Map(rows.map((row) => [row.day, row]));
  return {
    mailbox: book.name,
    days: workingDaysFrom(dayKey(now, book.zone), DAYS, daysOff).map((day) => ({
      day,
      own: by.get(day)?.own ?? 0,
      others: by.get(day)?.others ?? 0,
      limit: limitOn(day, book),
    })),
  };
}
