/**
 * A list from outside made into records: bytes to rows, columns to fields, rows to what will happen with each. Promises:
 * every row ends as new, known, perhaps known or refused with a reason; nothing is dropped in silence. Refuses: storing.
 */
export { decodeTable, eightBitOf, linesBeyondAscii, SAMPLE_BYTES, type Encoding } from './encoding';
export { readTable, rowProblem, shapeOf, TABLE_LIMITS, type Table, type TableProblem, type TableShape } from './table';
export {
  guessColumns,
  headingUnit,
  listTargetSchema,
  listTargetsOf,
  targetField,
  targetLabel,
  targetSchema,
  targetsOf,
  type ColumnGuess,
  type Target,
} from './guess';
export { NO_PLACES, NOWHERE, type ApplicationOfRow, type DealOfRow, type Places } from './standing';
export {
  addCounts,
  countPlans,
  StandingPlanner,
  type KnownApplication,
  type KnownDeal,
  type RowCounts,
  type StandingPlan,
} from './standing-plan';
export { isOfCompanies, readRow, splitName, type RowReading, type RowRecord } from './row';
export {
  askedOf,
  checkForm,
  entryRow,
  FILE_KIND_NAMES,
  FILE_KINDS,
  fileKind,
  formSchema,
  QUESTION_KINDS,
  questionsOf,
  readAnswer,
  readEntry,
  type FileKind,
  type Form,
  type FormProblem,
  type FormQuestion,
  type QuestionKind,
} from './form';
export { answerName, flatten, guessPayload, payloadMatchingSchema, payloadRow, type PayloadMatching } from './payload';
export { pictureSize } from './picture';
export { directoryHitSchema, hitsIn, type DirectoryHit } from './directory';
export { planRows, RowPlanner, type Known, type PlanOptions, type RowPlan } from './plan';

export { addressRow, leftAlone, mailRuleSchema, siteOf, type MailRule, type MailToJudge } from './mail';
export { meetingsIn, outsiders, type Attendee, type Meeting } from './meetings';
export { WATCHED_ANSWERS, watchedSchema, type CalendarSettings, type MailboxSettings, type WatchedSettings } from './watched';
