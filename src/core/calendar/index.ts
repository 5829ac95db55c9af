/**
 * Working time: office hours and working days in the reader's zone, spaced and limited slots per mailbox. Promises: a
 * slot lies inside office hours on a working day, never before its earliest instant, never nearer to another than the mailbox
 * wants, never over what it may send that day. Refuses: national holidays by law (the workspace lists its own days off).
 */
export {
  addWorkingDays,
  atClock,
  dayKey,
  nextOfMany,
  intoWorkingTime,
  isWorkingDay,
  nextMorning,
  startOfLocalDay,
  startOfLocalMonth,
  workingDaysFrom,
  type WorkingTime,
} from './working';
export { limitOn, nextSlot, rampUpSchema, SLOT_MS, type RampUp, type SlotBook } from './slots';
export { zoneOf } from './zones';
