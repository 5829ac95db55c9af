/**
 * Shapes of the REST API, shared by the server, the client in the browser and the OpenAPI document. Promises: one table
 * of operations, each with Zod schemas for what goes in and out. Refuses: logic.
 */
export { HERE_EVERY_MS } from './beat';
export { liveEventSchema, type LiveEvent } from './live';
export { concerns, isTopic, told, TOPIC_KINDS, TOPIC_LISTS, type Topic } from './topics';
export { instantPaths } from './instant-paths';
export { withInstants } from './instants';
export { ROUTES } from './routes.gen';
export { openApiDocument } from './openapi';
export { OPERATIONS, type ApiAction, type Answer, type Operation, type OperationId } from './operations';
export type { FileAnswer, View } from './op';
export type { FieldEdit, FieldRecord, FieldsView, FieldTrial, FieldUse, FieldView } from './operations-fields';
export type {
  CardTrial,
  PlanTrial,
  TextReader,
  TextTrial,
  ThingSummary,
  ThingTrial,
  ThingUse,
  ThingView,
  WordingsTried,
} from './operations-things';
export type {
  AnswerBookView,
  AnswerDraftView,
  AnsweredView,
  CorrectionsView,
  CorrectionTrialView,
  HandOverView,
  HoldDecisionView,
  HoldRulesView,
  HoldTrialView,
} from './operations-answers';
export type { ExampleView } from './operations-example';
export type { ProviderBeginnings, ProviderTrial, ProviderView } from './operations-providers';
export type { BudgetsView } from './operations-budgets';
export type { SignInServiceView } from './operations-sign-in';
export type { FirstDayFill, FirstDayGap, FirstDayShape } from './operations-first-day';
export type { MailboxShape, PeopleHere, TeamShape, TokenShape, WorkspaceShape } from './operations-house';
