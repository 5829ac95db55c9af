/**
 * Answers to what people write: agreed ones with when they fit, what the business says of itself, and drafts made of both.
 * Promises: a draft says nothing that neither a fact, nor a statement, nor an agreed answer holds; what is not covered is said to be
 * asked. Refuses: sending.
 */
export { agreedAnswerSchema, isObjection, isOtherKind, OBJECTIONS, OTHER_KINDS, type AgreedAnswer } from './agreed';
export { claimsIn, statementSchema, type Claim, type Statement } from './claims';
export { candidatesFor, type Candidate, type Said } from './fits';
export {
  checkReply,
  draftReply,
  isCovered,
  LONGEST_REPLY,
  mayNotSay,
  saidIn,
  subjectOf,
  type DraftAsk,
  type DraftSentence,
  type ReplyDraft,
  type Rest,
  type Taken,
} from './draft';
