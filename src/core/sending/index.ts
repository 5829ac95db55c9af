/** What stands behind a mailbox’s mails: what its domain says of them; and what comes of what people do by hand. Promises: every finding has words and, where something is to be put at the domain, the line. Refuses: asking anybody. */
export {
  domainLines,
  domainLineSchema,
  domainOf,
  keyRecord,
  proofResult,
  type DomainFacts,
  type DomainLine,
  type ProofResult,
  type SigningKey,
} from './domain';
export { withSignature } from './signature';
export { MOST_TRIES, outcomeOf, sayThen, TASK_OUTCOME_IDS, TASK_OUTCOMES, type TaskOutcome } from './outcomes';
