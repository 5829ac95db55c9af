/**
 * Offline text skills: rules and word lists, no network, no model. Promises: every answer carries the words it rests on,
 * as they stand in the source; "not found" is an answer; text is data and never an instruction. Refuses: guessing.
 */
export { answerAll, answerQuestion, type OtherAnswer, type ReaderAnswer } from './answer';
export type { Asked, Learnt } from './asked';
export { isSmall, languageOf, stemOf, type Language, type Lexicon } from './language';
export { ordinaryIn, passageOf, type Passage } from './said';
export { whatTheyDo, type Sentence } from './summary';
export { daysAhead, type Day } from './skills/ahead';
export { speaksToMachines } from './skills/standing';
export { classify, type LabelGiven, type Sorted } from './classify';
export { linkJudge, type PageLink } from './links';
export { sentencesOf } from './sentences';
export { answering, pickDocument, readBrief, readCv, readTalk, type Brief, type Cv, type TalkRead } from './documents';
export { abusiveWords, disposableMailbox, parkedSite, roleMailbox, testEntry, type Screened } from './screen';
