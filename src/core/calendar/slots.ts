import type { Instant } from '../base';
import { dayKey, intoWorkingTime, nextMorning, type WorkingTime } from './working';

/** Sends of one mailbox lie on a grid of this width, so that "at least two minutes apart" is a unique index. */
export const SLOT_MS = 120_000;

/** What a mailbox has promised already. */
export interface SlotBook {
  /** slot instants that are taken */
  readonly taken: ReadonlySet<Instant>;
  /** sends per local day of the mailbox */
  readonly perDay: ReadonlyMap<string, number>;
  readonly dailyLimit: number;
  readonly zone: string;
}

const onGrid = (at: Instant): Instant => Math.ceil(at / SLOT_MS) * SLOT_MS;

/** The first free slot at or after `earliest` in the reader's working time and under the mailbox's daily limit. */
export function nextSlot(earliest: Instant, reader: WorkingTime, book: SlotBook): Instant {
  let slot = onGrid(intoWorkingTime(earliest, reader));
  for (let guard = 0; guard < 100_000; guard++) {
    // Looking into the book is quick, looking at the calendar is not: what is taken is passed over first.
    if (book.taken.has(slot)) {
      slot += SLOT_MS;
      continue;
    }
    const inside = intoWorkingTime(slot, reader);
    if (inside !== slot) {
      slot = onGrid(inside);
      continue;
    }
    if ((book.perDay.get(dayKey(slot, book.zone)) ?? 0) >= book.dailyLimit) {
      slot = onGrid(nextMorning(slot, reader));
      continue;
    }
    return slot;
  }
  return slot;
}
