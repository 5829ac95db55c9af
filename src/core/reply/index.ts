/**
 * Answers to our mail: the sender's own words, what kind of answer it is, when to write again, and what follows from each kind.
 * Promises: only what the sender wrote is judged, never what is quoted, signed, printed below, or addressed to a machine; what is
 * not sure is said to be. Refuses: deciding anything a plan depends on where it is not sure.
 */
export { cameBackText, LOOKED_AT, standingOf, type CameBack, type Standing } from './came-back';
export { consequenceOf, REPLY_KINDS, SAYABLE, type Consequence } from './consequence';
export { parseComplaint, parseDeliveryStatus, type Complaint, type DeliveryStatus } from './dsn';
export { NO_SIGNS, type MailSigns } from './machine';
export { ownWords, withoutSignature, written, type Written } from './own-words';
export { alikeAs, taughtBy, type ReplyExample } from './examples';
export { correctedReading, understandReply, type Answering, type ReplyReading } from './understand';
export type { Named } from './named';
export type { Objection, ReplyKind } from './kinds';
export type { Tone } from './tone';
