/**
 * Corrections of what was understood in a mail. Promises: the right kind does at once what it does when it is understood; words that are
 * shown to mean it are understood so from then on; what was first understood stays known. Refuses: writing again to who asked us not to.
 */
import type { CorrectionsView, CorrectionTrialView } from '../../api';
import { clip, fold, type Instant } from '../../core/base';
import {
  consequenceOf,
  correctedReading,
  SAYABLE,
  taughtBy,
  written,
  type Objection,
  type ReplyKind,
  type ReplyReading,
} from '../../core/reply';
import { sentencesOf } from '../../core/reader';
import type { Tx } from '../db';
import { dropExample, lastRead, putExample, replyExamples, setReading } from './store/corrections';
import { dropDecision, unhandleMessage } from './store/holding';
import { plannedOfThread } from './store/effects';
import { findMessage, findThread, handleMessage, messagesOfThread, type MessageRow } from './store/messages';
import { insertAudit } from '../access/store/audit';
import { insertHappenings } from '../records/store/timeline';
import { keepQuestions } from './answer-book';
import { wordsOf } from './answer-standing';
import { mustHave } from './holders';
import { answered } from './receive-mail';
import { found, Refusal, type Actor, type World } from '../platform/world';

export interface CorrectionAsk {
  readonly kind: ReplyKind;
  readonly objection: Objection | null;
  /** the sentence of theirs that means it; null: it is right here, and teaches nothing */
  readonly words: string | null;
}

interface Read {
  readonly message: MessageRow & { readonly reading: ReplyReading };
  /** what they wrote themselves */
  readonly text: string;
}
async function readMail(tx: Tx, messageId: string): Promise<Read> {
  const message = found(await findMessage(tx, messageId), 'this message');
  const { reading } = message;
  if (message.direction !== 'in' || reading === null) throw new Refusal('not valid', 'only what came to us was understood');
  const before = message.threadId === null ? [] : await messagesOfThread(tx, message.threadId);
  return { message: { ...message, reading }, text: wordsOf(message, before) };
}

/** The sentences of a mail that can teach. */
export async function sentencesToTeach(world: World, messageId: string): Promise<readonly string[]> {
  const { text } = await readMail(world.db, messageId);
  return sentencesOf(text)
    .map((sentence) => clip(sentence.trim(), LONGEST))
    .filter((sentence) => (sentence.match(/[\p{L}]+/gu) ?? []).length > 1)
    .slice(0, 40);
}
const LONGEST = 300;
const KNOWN = 300;

/** Which of the last mails would be understood otherwise by what is shown. Nothing is kept. */
export async function tryCorrection(world: World, messageId: string, ask: CorrectionAsk): Promise<CorrectionTrialView> {
  const { db } = world;
  const { message, text } = await readMail(db, messageId);
  const then = await standingAs(db, message, correctedReading(message.reading, { ...ask, by: '' }, { text, at: message.at }));
  const others = ask.words === null ? [] : await lastRead(db, messageId, KNOWN);
  const example = { id: messageId, words: ask.words ?? '', kind: ask.kind, objection: ask.objection };
  const alike = others.flatMap((mail) => {
    const taught = mail.reading.corrected ? undefined : taughtBy(written(mail.body, {}).text, [example]);
    return taught ? [{ mail, quote: taught.quote }] : [];
  });
  return {
    follows: { plan: then.plan, when: then.when, bars: consequenceOf(ask.kind).bars },
    read: others.length,
    same: alike.filter(({ mail: { reading } }) => reading.kind === ask.kind && reading.objection === ask.objection).length,
    other: alike
      .filter(({ mail: { reading } }) => reading.kind !== ask.kind || reading.objection !== ask.objection)
      .map(({ mail, quote }) => ({
        messageId: mail.id,
        threadId: mail.threadId,
        personName: mail.personName,
        quote,
        was: mail.reading.kind,
        wasObjection: mail.reading.objection,
      })),
  };
}

/** Says what a mail is. It does at once what it does when it is understood; its words teach where they are given. */
export async function correctReading(world: World, actor: Actor, messageId: string, ask: CorrectionAsk): Promise<void> {
  const now = await world.clock.now();
  if (!SAYABLE.includes(ask.kind)) throw new Refusal('not valid', `“${ask.kind}” is told by what mail servers write, not said`);
  if ((ask.kind === 'objection') !== (ask.objection !== null))
    throw new Refusal('not valid', ask.kind === 'objection' ? 'say what they object to' : 'only an objection is about something');
  await world.db.begin(async (tx) => {
    const { message, text } = await readMail(tx, messageId);
    if (message.threadId) await mustHave(world, actor, found(await findThread(tx, message.threadId), 'this conversation'));
    const { reading } = message;
    if (ask.words !== null && !fold(text).includes(fold(ask.words.slice(0, LONGEST - 1))))
      throw new Refusal('not valid', 'these words do not stand in their mail');
    const next = await standingAs(tx, message, correctedReading(reading, { ...ask, by: actor.name }, { text, at: message.at }));
    const was = next.corrected ?? reading;
    await setReading(tx, messageId, next);
    await dropDecision(tx, messageId);
    if (ask.words === null) await dropExample(tx, messageId);
    else
      await putExample(
        tx,
        {
          messageId,
          words: ask.words,
          kind: ask.kind,
          objection: ask.objection,
          wasKind: was.kind,
          wasObjection: was.objection,
          userId: actor.userId,
        },
        now,
      );
    await follow(tx, message, text, next, now);
    const says = `${actor.name} says: ${sayKind(ask)}, not ${sayKind(reading)}`;
    if (message.personId)
      await insertHappenings(tx, [
        { recordKind: 'person', recordId: message.personId, at: now, kind: 'review', says, detail: { messageId } },
      ]);
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'corrected what was understood', detail: { messageId, ...ask } });
  });
}

/** Where nothing is planned any more there is nothing to put off. */
async function standingAs(tx: Tx, { threadId }: MessageRow, reading: ReplyReading): Promise<ReplyReading> {
  if (reading.plan !== 'pause' || (threadId !== null && (await plannedOfThread(tx, threadId)).length > 0)) return reading;
  return { ...reading, plan: 'stop' };
}

/** What the right kind does: stops, pauses, bars, and whether a person is needed. What went on before is not called back. */
async function follow(tx: Tx, message: MessageRow, text: string, reading: ReplyReading, now: Instant): Promise<void> {
  const { id, threadId, tripId, personId, fromAddress } = message;
  const { wantsPerson } = consequenceOf(reading.kind);
  if (wantsPerson && message.handledAt !== null && !(await answerOf(tx, message))) {
    await unhandleMessage(tx, id);
    await keepQuestions(tx, { messageId: id, personId, words: text, reading }, now);
  }
  if (!wantsPerson && message.handledAt === null) await handleMessage(tx, id, now);
  if (threadId === null) return;
  const messages = await messagesOfThread(tx, threadId);
  // Something newer of theirs has settled how it goes on.
  if (messages.findLast(({ direction }) => direction === 'in')?.id !== id) return;
  const last = messages.findLast(({ direction, state }) => direction === 'out' && state === 'sent');
  await answered(tx, { id: last?.id ?? id, threadId, tripId: tripId ?? last?.tripId ?? null, personId }, reading, fromAddress ?? '', now);
}
/** What answered it, or will. */
const answerOf = async (tx: Tx, { threadId, rfcId }: MessageRow): Promise<MessageRow | undefined> =>
  threadId === null || rfcId === null
    ? undefined
    : (await messagesOfThread(tx, threadId)).find(
        ({ direction, inReplyTo, state }) => direction === 'out' && inReplyTo === rfcId && state !== 'dropped',
      );

const sayKind = ({ kind, objection }: { readonly kind: string; readonly objection: string | null }): string =>
  objection === null ? kind : `${kind} · ${objection}`;

/** What people have corrected, and how often it was read by since. */
export async function corrections(world: World): Promise<CorrectionsView> {
  return { items: await replyExamples(world.db) };
}

/** Forgets what a correction taught; the mail it stands in stays as it was corrected. */
export async function forgetCorrection(world: World, actor: Actor, messageId: string): Promise<void> {
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    if (!(await dropExample(tx, messageId))) throw new Refusal('not found', 'nothing was taught by this mail');
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'forgot what a correction taught', detail: { messageId } });
  });
}
