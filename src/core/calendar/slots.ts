import type { Instant } from '../base';
import { DateTime } from 'luxon';
import { z } from 'zod';
import { dayKey, intoWorkingTime, nextMorning, type WorkingTime } from './working';

/** Sends of one mailbox lie on a grid of this width, so that "at least two minutes apart" is a unique index. */
export const SLOT_MS = 120_000;

/** How a new mailbox begins: with few mails on its first day, and some more on each weekday after it, up to its daily limit. */
export const rampUpSchema = z.object({ from: z.int().min(1).max(10_000), step: z.int().min(1).max(10_000), since: z.iso.date() });
export type RampUp = Readonly<z.infer<typeof rampUpSchema>>;

/** Mails a mailbox may send on a local day, `2026-11-24`. */
export function limitOn(day: string, { dailyLimit, rampUp }: Pick<SlotBook, 'dailyLimit' | 'rampUp'>): number {
  return rampUp === null ? dailyLimit : Math.min(dailyLimit, rampUp.from + rampUp.step * weekdaysBetween(rampUp.since, day));
}
/** Mondays to Fridays after one day up to another; 0 when it is not after it. */
function weekdaysBetween(since: string, day: string): number {
  const [from, to] = [DateTime.fromISO(since, { zone: 'utc' }), DateTime.fromISO(day, { zone: 'utc' })];
  const days = Math.round(to.diff(from, 'days').days);
  if (!(days > 0)) return 0;
  const rest = Array.from({ length: days % 7 }, (_, i) => from.plus({ days: i + 1 }).weekday).filter((weekday) => weekday <= 5).length;
  return Math.floor(days / 7) * 5 + rest;
}

/** What a mailbox has promised already. */
export interface SlotBook {
  /** slot instants that are taken */
  readonly taken: ReadonlySet<Instant>;
  /** sends per local day of the mailbox */
  readonly perDay: ReadonlyMap<string, number>;
  readonly dailyLimit: number;
  /** null: it has begun long ago */
  readonly rampUp: RampUp | null;
  /** between two mails at least; of the grid’s width at least */
  readonly minutesApart: number;
  readonly zone: string;
}

const onGrid = (at: Instant): Instant => Math.ceil(at / SLOT_MS) * SLOT_MS;

/** The last mail that leaves too shortly before or after; undefined: none does. */
function lastNear(slot: Instant, { taken, minutesApart }: SlotBook): Instant | undefined {
  const apart = Math.ceil((minutesApart * 60_000) / SLOT_MS) * SLOT_MS;
  for (let at = slot + apart - SLOT_MS; at > slot - apart; at -= SLOT_MS) if (taken.has(at)) return at;
  return undefined;
}

/** The first free slot at or after `earliest` in the reader's working time and under the mailbox's daily limit. */
export function nextSlot(earliest: Instant, reader: WorkingTime, book: SlotBook): Instant {
  let slot = onGrid(intoWorkingTime(earliest, reader));
  for (let guard = 0; guard < 100_000; guard++) {
    // Looking into the book is quick, looking at the calendar is not: what is taken is passed over first.
    const near = lastNear(slot, book);
    if (near !== undefined) {
      slot = onGrid(near + Math.max(SLOT_MS, book.minutesApart * 60_000));
      continue;
    }
    const inside = intoWorkingTime(slot, reader);
    if (inside !== slot) {
      slot = onGrid(inside);
      continue;
    }
    if ((book.perDay.get(dayKey(slot, book.zone)) ?? 0) >= limitOn(dayKey(slot, book.zone), book)) {
      slot = onGrid(nextMorning(slot, reader));
      continue;
    }
    return slot;
  }
  return slot;
}
