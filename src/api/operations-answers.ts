import { z } from 'zod';
import { op, uuid } from './op';
import * as s from './schemas';

const rest = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('fact'), label: z.string(), value: z.string(), source: z.string(), url: z.string().nullable() }),
  z.object({ kind: z.literal('statement'), says: z.string(), proof: z.string() }),
]);
const said = z.object({ kind: z.enum(['objection', 'question', 'other']), about: z.string().nullable(), words: z.string() });
const check = z.object({ id: z.string(), ok: z.boolean(), says: z.string() });
const draft = z.object({
  inReplyTo: uuid.nullable().describe('their message that is answered'),
  mailbox: z.string(),
  language: z.string(),
  fallback: z.boolean().describe('nothing was agreed in the language they wrote in'),
  body: z.string(),
  sentences: z.array(
    z.object({
      text: z.string(),
      rests: z.array(rest).describe('what it rests on'),
      of: z.string().nullable().describe('the agreed answer it is of'),
      loose: z.string().nullable().describe('words of it that nothing holds'),
    }),
  ),
  taken: z.array(
    z.object({
      said,
      by: z
        .discriminatedUnion('kind', [
          z.object({ kind: z.literal('agreed'), name: z.string() }),
          z.object({ kind: z.literal('statement'), id: z.string() }),
        ])
        .nullable()
        .describe('null: a colleague is asked'),
      candidates: z.array(
        z.object({
          id: z.string(),
          name: z.string(),
          fits: z.boolean(),
          when: z.string().describe('its condition; empty: always'),
          isKnown: z.boolean().describe('whether its condition can be told of this reader'),
          used: z.int(),
          led: z.int().describe('uses that led on'),
        }),
      ),
    }),
  ),
  leftOut: z.array(z.string()).describe('sentences left out because a value is not known'),
  checks: z.array(check),
  dueAt: s.instant.nullable().describe('when it would leave, approved now'),
  drops: z.int().describe('planned messages that would not go out any more'),
});
export type AnswerDraftView = z.output<typeof draft>;

const book = z.object({
  items: z.array(
    z.object({
      id: uuid,
      name: z.string(),
      about: z.string(),
      isObjection: z.boolean(),
      when: z.string(),
      first: z.string().describe('its first text'),
      languages: z.array(z.string()),
      used: z.int(),
      led: z.int(),
      retired: z.boolean(),
      savedBy: z.string().nullable(),
      savedAt: s.instant.nullable(),
    }),
  ),
  waiting: z.array(
    z.object({
      words: z.string(),
      times: z.int(),
      from: z.array(z.string()).describe('companies that ask, or people'),
      threadId: uuid.nullable(),
      statement: z.string().nullable().describe('what we say of ourselves that answers it'),
    }),
  ),
});
export type AnswerBookView = z.output<typeof book>;
const answered = z.object({
  messageId: uuid,
  threadId: uuid,
  personName: z.string(),
  companyName: z.string().nullable(),
  at: s.instant,
  theirs: z.string().nullable(),
  then: z.string().nullable().describe('what kind of answer came after it'),
});
export type AnsweredView = z.output<typeof answered>;

/** Answers in conversations, and the book they are made from. */
export const ANSWER_OPERATIONS = {
  draftAnswer: op({
    method: 'GET',
    path: '/conversations/{id}/answer',
    summary:
      'The answer that would go out: drafted from agreed answers and what is said of ourselves, each sentence with what it rests on.',
    needs: 'look',
    query: z.object({ answer: z.string().max(80).optional().describe('the agreed answer to take, by its name') }),
    answer: draft,
  }),
  sendAnswer: op({
    method: 'POST',
    path: '/conversations/{id}/answer',
    summary: 'Approve an answer: it goes into the conversation in the reader’s next office minute; what was planned there goes no more.',
    needs: 'decide',
    body: z.object({
      body: z.string().max(10_000),
      inReplyTo: uuid.nullable().describe('their message as you have seen it: 409 when they have written again'),
      answers: z.array(uuid).max(20).default([]).describe('agreed answers that were taken'),
    }),
    answer: z.object({ id: uuid, dueAt: s.instant }),
    status: 201,
  }),
  answerBook: op({
    method: 'GET',
    path: '/answers',
    summary: 'What was agreed to say, how often it was used and led on; and questions nobody has agreed an answer to.',
    needs: 'look',
    answer: book,
  }),
  answeredLately: op({
    method: 'GET',
    path: '/answers/{id}/uses',
    summary: 'The last answers that left with an agreed one, and what came of them.',
    needs: 'look',
    answer: z.object({ items: z.array(answered) }),
  }),
} as const;
