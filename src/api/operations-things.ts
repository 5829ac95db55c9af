import { z } from 'zod';
import { pipelineSchema } from '../core/flow/check';
import { chainSchema } from '../core/lookup';
import { scorecardSchema } from '../core/score';
import { agreedAnswerSchema, statementSchema } from '../core/answers';
import { THING_KINDS } from '../core/things';
import { CHANNELS, planSchema, templateSchema } from '../core/writer';
import { op, uuid, type View } from './op';
import * as s from './schemas';

const kind = z.enum(THING_KINDS);
const body = z.union([scorecardSchema, templateSchema, planSchema, pipelineSchema, agreedAnswerSchema, chainSchema]);
const name = z.string().trim().min(1).max(80);
const use = z.object({
  kind: z.enum(['flow', 'plan']),
  name: z.string(),
  href: z.string(),
  behind: z.boolean().describe('its live version was released with an older version of this thing'),
});
const arm = z.object({
  readers: z.number().int(),
  good: z.number().int().describe('who answered with something worth having within a week'),
  range: z.array(z.number()).length(2).describe('between what shares the true one lies, nineteen times in twenty'),
});
const wordingsTried = z.object({
  items: z.array(
    z.object({
      usualAt: z.number().int().nullable().describe('null: the text as it stands'),
      triedAt: z.number().int(),
      usual: arm,
      tried: arm,
      evidence: z.number().describe('20 is said to be better'),
      verdict: z.enum(['too few', 'open', 'usual', 'tried']),
    }),
  ),
});
export type WordingsTried = View<typeof wordingsTried>;
const problem = z.object({
  at: z.string().describe('the way to the part, as criteria.2.levels.0.when'),
  weight: z.enum(['error', 'warning']),
  says: z.string(),
});
const summary = z.object({
  id: uuid,
  kind,
  name: z.string(),
  no: z.number().int().describe('its version'),
  retired: z.boolean(),
  savedAt: s.instant.nullable(),
  savedBy: z.string().nullable(),
  uses: z.array(use),
  problems: z.array(problem),
});
const thing = summary.extend({
  body,
  versions: z.array(
    z.object({ no: z.number().int(), says: z.string(), savedAt: s.instant.nullable(), savedBy: z.string().nullable(), body }),
  ),
});
const cardTrial = z.object({
  of: z.number().int().describe('records of the kind that were scored: all, or a sample'),
  all: z.number().int(),
  most: z.number(),
  bands: z.array(z.object({ name: z.string(), n: z.number().int(), was: z.number().int() })),
  bins: z.array(z.number().int()).describe('how many records by points, in steps of a fortieth of what all criteria give'),
  criteria: z.array(
    z.object({ id: z.string(), holds: z.number().int(), part: z.number().int(), unknown: z.number().int(), fails: z.number().int() }),
  ),
  out: z.array(z.number().int()).describe('how many each disqualifier rules out'),
  moved: z.object({
    n: z.number().int(),
    first: z.array(z.object({ id: z.string(), name: z.string(), points: z.number(), was: z.string(), now: z.string(), why: z.string() })),
  }),
});
const reader = z.object({
  id: z.string(),
  name: z.string(),
  company: z.string().nullable(),
  subject: z.string(),
  body: z.string(),
  line: z.string().nullable(),
  language: z.string(),
  wording: z.int().nullable().describe('which of the text’s other wordings; null: the text as it stands'),
  fallback: z.string().nullable().describe('why it is not in the reader’s language'),
  restsOn: z.object({ field: z.string(), quote: z.string().nullable(), url: z.string().nullable(), source: z.string() }).nullable(),
  passed: z.boolean(),
  wrong: z.array(z.object({ id: z.string(), says: z.string() })),
});
const textTrial = z.object({
  of: z.number().int().describe('people with an address it was written to: all, or a sample'),
  isSample: z.boolean(),
  all: z.number().int().describe('people there are'),
  passed: z.number().int(),
  failed: z.array(z.object({ id: z.string(), n: z.number().int(), names: z.array(z.string()) })),
  restsOn: z.array(z.object({ field: z.string(), n: z.number().int() })),
  wordings: z.array(z.number().int()).describe('how many get the text as it stands, and each of its other wordings'),
  without: z.array(z.object({ language: z.string(), n: z.number().int() })).describe('languages without a wording, and how many read them'),
  readers: z.array(reader),
});
const neverSaid = z.object({ items: z.array(z.string().trim().min(1).max(80)).max(200) });
const channel = z.enum(CHANNELS);
const planTrial = z.object({
  touches: z.array(z.object({ day: z.number().int(), at: s.instant })).describe('when each would leave, begun now'),
  zone: z.string(),
  measured: z
    .array(
      z.object({
        channel,
        reached: z.number().int(),
        answered: z.number().int(),
        bounced: z.number().int(),
        unsubscribed: z.number().int(),
      }),
    )
    .describe('what came of each touch’s text so far, in any plan'),
  readers: z
    .array(
      z.object({
        id: z.uuid(),
        name: z.string(),
        company: z.string().nullable(),
        zone: z.string(),
        touches: z.array(
          z.object({
            channel,
            template: z.string(),
            at: s.instant.nullable().describe('null: it does not reach them'),
            says: z.array(z.string()).describe('why it is another day or another way'),
          }),
        ),
      }),
    )
    .describe('readers who differ, with their days'),
  month: z
    .object({
      mailbox: z.string(),
      days: z.array(z.object({ day: z.string(), own: z.number().int(), others: z.number().int(), limit: z.number().int() })),
    })
    .nullable()
    .describe('mails planned in the working days to come, against the mailbox’s limit'),
});

/** A named thing in a list: what uses it and what is wrong with it. */
export type ThingSummary = View<typeof summary>;
export type ThingView = View<typeof thing>;
export type ThingUse = View<typeof use>;
export type CardTrial = View<typeof cardTrial>;
export type TextTrial = View<typeof textTrial>;
export type TextReader = View<typeof reader>;
export type PlanTrial = View<typeof planTrial>;
const trial = z.object({
  problems: z.array(problem),
  card: cardTrial.nullable(),
  text: textTrial.nullable(),
  plan: planTrial.nullable(),
  pipeline: z.object({ deals: z.record(z.string(), z.number().int()).describe('how many deals stand at each stage') }).nullable(),
});
export type ThingTrial = View<typeof trial>;

/** Named things: scorecards, texts, plans, pipelines and agreed answers, made, changed and kept in versions. */
export const THING_OPERATIONS = {
  listThings: op({
    method: 'GET',
    path: '/things',
    summary: 'Named things of a kind, with what uses each and what is wrong with it.',
    needs: 'look',
    query: z.object({ kind }),
    answer: z.object({ items: z.array(summary) }),
  }),
  wordingsTried: op({
    method: 'GET',
    path: '/things/{id}/wordings-tried',
    summary: 'Wordings of a text that are tried against each other, and whether one is better.',
    needs: 'look',
    answer: wordingsTried,
  }),
  getThing: op({ method: 'GET', path: '/things/{id}', summary: 'A named thing with its versions.', needs: 'look', answer: thing }),
  makeThing: op({
    method: 'POST',
    path: '/things',
    changes: ['things'],
    summary: 'Make a named thing: as a copy of another, of a body, or as a beginning.',
    needs: 'edit flows',
    body: z.object({ kind, name, from: uuid.optional(), body: body.optional() }),
    answer: thing,
    status: 201,
  }),
  keepThing: op({
    method: 'PUT',
    path: '/things/{id}',
    changes: ['things'],
    summary: 'Keep a changed thing as a new version. Live flows go on with the version they were released with.',
    needs: 'edit flows',
    body: z.object({
      body,
      base: z.number().int().positive(),
      says: z.string().max(200).default(''),
      moves: z
        .record(z.string().max(60), z.object({ to: z.string().max(60), renamed: z.boolean() }))
        .default({})
        .describe('of a pipeline: where the deals of a stage go that is gone, or what it is called now'),
    }),
    answer: thing,
  }),
  renameThing: op({
    method: 'POST',
    path: '/things/{id}/name',
    changes: ['things', 'flows', 'flow:*'],
    summary: 'Give a thing another name; drafts of flows and plans that speak of it follow.',
    needs: 'edit flows',
    body: z.object({ name }),
    answer: thing,
  }),
  retireThing: op({
    method: 'POST',
    path: '/things/{id}/retired',
    changes: ['things'],
    summary: 'Take a thing out of use, or back into it. Nothing is deleted.',
    needs: 'edit flows',
    body: z.object({ retired: z.boolean() }),
    answer: thing,
  }),
  tryThing: op({
    method: 'POST',
    path: '/things/try',
    changes: [],
    summary: 'What a thing would do as it is written: scores of records, what readers would get, days. Nothing is kept.',
    needs: 'look',
    body: z.object({ kind, id: uuid.optional(), body }),
    answer: trial,
  }),
  sendToMe: op({
    method: 'POST',
    path: '/things/send-to-me',
    changes: [],
    summary: 'A text as one reader would get it, sent to your own address by the mailbox’s real way, marked as a trial.',
    needs: 'edit flows',
    body: z.object({ text: templateSchema, personId: uuid }),
    answer: z.object({ to: z.string() }),
  }),
  listStatements: op({
    method: 'GET',
    path: '/statements',
    summary: 'What the business says of itself, with who stands behind it and what proves it.',
    needs: 'look',
    answer: z.object({ items: z.array(statementSchema) }),
  }),
  neverSaid: op({
    method: 'GET',
    path: '/never-said',
    summary: 'What the business never says: no text, answer or edited message with it leaves.',
    needs: 'look',
    answer: neverSaid,
  }),
  keepNeverSaid: op({
    method: 'PUT',
    path: '/never-said',
    changes: ['things', 'messages'],
    summary: 'Keep that list.',
    needs: 'edit flows',
    body: neverSaid,
    answer: neverSaid,
  }),
  keepStatements: op({
    method: 'PUT',
    path: '/statements',
    changes: ['things', 'messages'],
    summary: 'Keep the list of what the business says of itself.',
    needs: 'edit flows',
    body: z.object({ items: z.array(statementSchema).max(500) }),
    answer: z.object({ items: z.array(statementSchema) }),
  }),
} as const;
