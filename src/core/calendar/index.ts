/**
 * Working time: office hours and working days in the reader's zone, spaced and limited slots per mailbox. Promises: a
 * slot lies inside office hours on a working day, never before its earliest instant, never on a taken slot, never over
 * the daily limit. Refuses: national holidays by law (the workspace lists its own days off).
 */
export {
  addWorkingDays,
  atClock,
  dayKey,
  nextOfMany,
  intoWorkingTime,
  isWorkingDay,
  startOfLocalDay,
  startOfLocalMonth,
  workingDaysFrom,
  type WorkingTime,
} from './working';
export { nextSlot, SLOT_MS, type SlotBook } from './slots';
export { zoneOf } from './zones';
