import { z } from 'zod';
import { OBJECTIONS } from '../core/answers';
import { REPLY_KINDS } from '../core/reply';
import { op, uuid, type View } from './op';
import * as s from './schemas';

const rest = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('fact'), label: z.string(), value: z.string(), source: z.string(), url: z.string().nullable() }),
  z.object({ kind: z.literal('statement'), says: z.string(), proof: z.string() }),
]);
const said = z.object({ kind: z.enum(['objection', 'question', 'other']), about: z.string().nullable(), words: z.string() });
const check = z.object({ id: z.string(), ok: z.boolean(), says: z.string() });
const decision = z.object({
  does: z.enum(['hold', 'send']),
  line: z.int().nullable().describe('the rule’s line; null: none decided it'),
  says: z.string(),
  lookedAt: z.boolean().describe('a rule would let it go, and a person looks at it all the same'),
});
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
  held: decision
    .extend({ mailbox: z.string() })
    .nullable()
    .describe('what decided that it waits, or would decide; null: nothing of theirs waits'),
  dueAt: s.instant.nullable().describe('when it would leave, approved now'),
  drops: z.int().describe('planned messages that would not go out any more'),
});
export type AnswerDraftView = View<typeof draft>;
export type HoldDecisionView = NonNullable<AnswerDraftView['held']>;

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
export type AnswerBookView = View<typeof book>;
const answered = z.object({
  messageId: uuid,
  threadId: uuid,
  personName: z.string(),
  companyName: z.string().nullable(),
  at: s.instant,
  theirs: z.string().nullable(),
  then: z.string().nullable().describe('what kind of answer came after it'),
});
export type AnsweredView = View<typeof answered>;

const problem = z.object({
  line: z.int(),
  says: z.string(),
  instead: z.string().optional().describe('the line as it would be understood'),
});
const rulesVersion = z.object({
  no: z.int(),
  rules: z.string(),
  lookedAt: z.number(),
  savedBy: z.string().nullable(),
  savedAt: s.instant,
});
const holdRules = z.object({
  mailboxes: z.array(
    z.object({
      name: z.string(),
      address: z.string(),
      rules: z.string().describe('one a line; the first that holds decides'),
      lookedAt: z.number().describe('the share of what could go alone that a person looks at all the same'),
      no: z.int().describe('the version; 0: nobody has written any'),
      decided: z.int().describe('drafts a person has decided'),
      problems: z.array(problem),
      versions: z.array(rulesVersion).describe('newest first'),
      agreements: z.array(
        z.object({
          group: z.string().describe('what was answered: a kind, and of objections what about'),
          decided: z.int().describe('drafts that could have gone alone and a person decided, of late'),
          unchanged: z.int().describe('of these, sent as they stood'),
          share: z.number(),
          from: z.number().describe('the range that the share may truly have'),
          to: z.number(),
          state: z.enum(['earned', 'open', 'lost']),
          offer: z.string().nullable().describe('the rule that would let them go; null: there is one'),
        }),
      ),
    }),
  ),
  means: z.array(z.object({ name: z.string(), means: z.string() })).describe('what rules can speak of'),
});
export type HoldRulesView = View<typeof holdRules>;
const holdTrial = z.object({
  problems: z.array(problem),
  items: z.array(
    z.object({
      messageId: uuid,
      threadId: uuid,
      personName: z.string(),
      group: z.string(),
      quote: z.string().nullable(),
      at: s.instant,
      before: decision,
      after: decision,
    }),
  ),
});
export type HoldTrialView = View<typeof holdTrial>;
const kind = z.string().max(30).describe('what it is');
const objection = z.string().max(20).nullable();
const correctionAsk = z.object({
  kind: z.enum(REPLY_KINDS),
  objection: z.enum(OBJECTIONS).nullable(),
  words: z.string().max(300).nullable().describe('the sentence of theirs that means it, to be understood so from then on; null: only here'),
});
const correctionTrial = z.object({
  follows: z.object({ plan: z.enum(['stop', 'pause', 'continue']), when: z.string().nullable(), bars: z.boolean() }),
  read: z.int().describe('so many of the last mails were looked at'),
  same: z.int().describe('mails with such a sentence that are understood so already'),
  other: z
    .array(
      z.object({
        messageId: uuid,
        threadId: uuid.nullable(),
        personName: z.string().nullable(),
        quote: z.string(),
        was: kind,
        wasObjection: objection,
      }),
    )
    .describe('mails with such a sentence that were understood otherwise'),
});
export type CorrectionTrialView = View<typeof correctionTrial>;
const correctionsView = z.object({
  items: z.array(
    z.object({
      messageId: uuid,
      threadId: uuid.nullable(),
      words: z.string(),
      kind,
      objection,
      wasKind: kind,
      wasObjection: objection,
      personName: z.string().nullable(),
      madeBy: z.string().nullable(),
      at: s.instant,
      used: z.int().describe('mails that were understood by it since'),
    }),
  ),
});
export type CorrectionsView = View<typeof correctionsView>;
const rulesAsk = z.object({
  mailbox: z.string().max(120),
  rules: z.string().max(8_000),
  lookedAt: z.number().min(0).max(1),
});

const handOver = z.object({
  holder: z.string().nullable().describe('who has it; null: everybody'),
  inPlace: z.array(z.string()).describe('who stands in for them, since they are away'),
  yours: z.boolean(),
  mayAnswer: z.boolean(),
  to: z.array(z.object({ id: uuid, name: z.string(), says: z.string() })).describe('to whom it can be handed, the likeliest first'),
});
export type HandOverView = View<typeof handOver>;

/** Answers in conversations, the book they are made from, and when they wait for a person. */
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
    changes: ['desk', 'messages', 'thread:{id}', 'record:*'],
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
  getHolder: op({
    method: 'GET',
    path: '/conversations/{id}/holder',
    summary: 'Who has a conversation, and to whom it can be handed.',
    needs: 'look',
    answer: handOver,
  }),
  handOver: op({
    method: 'POST',
    path: '/conversations/{id}/holder',
    changes: ['desk', 'messages', 'thread:{id}'],
    summary: 'Hand a conversation to somebody, who is told; or to nobody in particular.',
    needs: 'decide',
    body: z.object({ userId: uuid.nullable(), word: z.string().max(500).default('') }),
    answer: s.okSchema,
  }),
  takeBackAnswer: op({
    method: 'POST',
    path: '/messages/{id}/taken-back',
    changes: ['desk', 'messages', 'thread:*', 'record:*'],
    summary: 'Take an answer back that has not left, whether a person or a rule let it go: it waits for a person again.',
    needs: 'decide',
    body: z.object({}),
    answer: s.okSchema,
  }),
  sentencesToTeach: op({
    method: 'GET',
    path: '/messages/{id}/sentences',
    summary: 'The sentences of a mail that can show what it is.',
    needs: 'look',
    answer: z.object({ items: z.array(z.string()) }),
  }),
  tryCorrection: op({
    method: 'POST',
    path: '/messages/{id}/reading/trial',
    changes: [],
    summary: 'What a correction would do: to the plan, and which of the last mails would be understood otherwise. Nothing is kept.',
    needs: 'look',
    body: correctionAsk,
    answer: correctionTrial,
  }),
  takeInNamed: op({
    method: 'POST',
    path: '/messages/{id}/named',
    changes: ['counts', 'records'],
    summary:
      'Take in whom an answer names to be written to instead, at the same firm; somebody known is found, not made twice. Nothing is sent.',
    needs: 'change records',
    answer: z.object({ personId: uuid, isNew: z.boolean() }),
    status: 201,
  }),
  correctReading: op({
    method: 'PUT',
    path: '/messages/{id}/reading',
    changes: ['desk', 'messages', 'thread:*', 'records', 'record:*'],
    summary: 'Say what a mail is: it does at once what it does when it is understood, and its words teach where they are given.',
    needs: 'decide',
    body: correctionAsk,
    answer: s.okSchema,
  }),
  listCorrections: op({
    method: 'GET',
    path: '/corrections',
    summary: 'What people have corrected, newest first, and how often it was read by since.',
    needs: 'look',
    answer: correctionsView,
  }),
  forgetCorrection: op({
    method: 'POST',
    path: '/corrections/{id}/forgotten',
    changes: ['messages', 'thread:*'],
    summary: 'Forget what a correction taught; the mail stays as it was corrected.',
    needs: 'decide',
    body: z.object({}),
    answer: s.okSchema,
  }),
  holdRules: op({
    method: 'GET',
    path: '/hold-rules',
    summary: 'When answers wait for a person and when they go alone, by mailbox; and what people made of drafts that could have gone.',
    needs: 'look',
    answer: holdRules,
  }),
  tryHoldRules: op({
    method: 'POST',
    path: '/hold-rules/trial',
    changes: [],
    summary: 'What rules would do with the last mails that came, beside those in force. Nothing is kept.',
    needs: 'look',
    body: rulesAsk,
    answer: holdTrial,
  }),
  saveHoldRules: op({
    method: 'PUT',
    path: '/hold-rules',
    changes: ['messages'],
    summary: 'Keep rules of a mailbox as its next version.',
    needs: 'edit flows',
    body: rulesAsk.extend({ seen: z.int().describe('the version you opened: 409 when it is no longer the last') }),
    answer: z.object({ no: z.int() }),
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
