import { ACCOUNT_OPERATIONS } from './operations-account';
import { BUDGET_OPERATIONS } from './operations-budgets';
import { SIGN_IN_OPERATIONS } from './operations-sign-in';
import { DESK_OPERATIONS } from './operations-desk';
import { FIELD_OPERATIONS } from './operations-fields';
import { FLOW_OPERATIONS } from './operations-flows';
import { FIRST_DAY_OPERATIONS } from './operations-first-day';
import { HOUSE_OPERATIONS } from './operations-house';
import { INTAKE_OPERATIONS } from './operations-intakes';
import { WATCHED_OPERATIONS } from './operations-watched';
import { ANSWER_OPERATIONS } from './operations-answers';
import { OPENING_OPERATIONS } from './operations-openings';
import { EXAMPLE_OPERATIONS } from './operations-example';
import { PROVIDER_OPERATIONS } from './operations-providers';
import { RECORD_OPERATIONS } from './operations-records';
import { SAFETY_OPERATIONS } from './operations-safety';
import { RESEARCH_OPERATIONS } from './operations-research';
import { THING_OPERATIONS } from './operations-things';
import type { FileAnswer, View } from './op';

export type { ApiAction, Operation } from './op';

/** Every operation by its id: the application, the client and the OpenAPI document are made from this one table. */
export const OPERATIONS = {
  ...RECORD_OPERATIONS,
  ...FIELD_OPERATIONS,
  ...ANSWER_OPERATIONS,
  ...OPENING_OPERATIONS,
  ...EXAMPLE_OPERATIONS,
  ...PROVIDER_OPERATIONS,
  ...WATCHED_OPERATIONS,
  ...FLOW_OPERATIONS,
  ...DESK_OPERATIONS,
  ...RESEARCH_OPERATIONS,
  ...INTAKE_OPERATIONS,
  ...SAFETY_OPERATIONS,
  ...THING_OPERATIONS,
  ...HOUSE_OPERATIONS,
  ...FIRST_DAY_OPERATIONS,
  ...ACCOUNT_OPERATIONS,
  ...BUDGET_OPERATIONS,
  ...SIGN_IN_OPERATIONS,
} as const;
export type OperationId = keyof typeof OPERATIONS;
type Shapes = typeof OPERATIONS;
/** What an operation answers: a file, or its view. */
export type Answer<Id extends OperationId> = Shapes[Id] extends { givesFile: readonly string[] } ? FileAnswer : View<Shapes[Id]['answer']>;
