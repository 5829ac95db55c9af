/** Signing in by somebody else's word. Promises: a description says what is wrong with it, and every refusal has its words. Refuses: talking to anybody. */
export { REFUSALS, refusalText, type RefusalKey } from './refusals';
export { scopesOf, serviceProblems, signInServiceSchema, type ServiceProblem, type SignInService } from './service';
