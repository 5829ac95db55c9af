import { z } from 'zod';
import { op, uuid } from './op';
import * as s from './schemas';

const ok = z.object({ ok: z.literal(true) });
const settings = z.object({
  sources: z
    .array(
      z.object({
        name: z.enum(['news', 'register', 'people', 'jobs']),
        label: z.string().trim().min(1).max(80),
        priceMicro: z.int().min(0).max(1_000_000_000_000).describe('of one search, in millionths of a euro'),
        dayBudgetMicro: z.int().min(0).max(1_000_000_000_000_000).optional(),
        atOnce: z.number().int().min(1).max(50),
        off: z.boolean(),
      }),
    )
    .max(4),
  questions: z
    .array(
      z.object({
        id: z.string().trim().min(1).max(40),
        type: z.string().trim().min(1).max(120).describe('as flows write it: number in ha, year, yes/no, text, list, one of "a", "b"'),
        wording: z.string().trim().min(1).max(300),
      }),
    )
    .max(30),
});

const phrases = z.array(z.string().trim().min(1).max(80)).max(120);
const answered = z.union([z.string().max(2_000), z.number(), z.boolean()]);
const draft = z.object({
  words: phrases.describe('phrases the question goes by, in any language'),
  not: phrases.describe('phrases whose sentences do not count'),
  least: z.number().min(0).max(1).nullable().describe('least confidence with which an answer is taken'),
  months: z.number().int().min(1).max(240).nullable().default(null).describe('only what was said within so many months counts'),
  optionWords: z.record(z.string(), phrases).default({}).describe('other words for an option'),
  shown: z
    .array(
      z.object({
        host: z.string().min(1).max(300),
        value: answered,
        says: z.string().max(2_000).describe('the sentence it stands in, word for word'),
        verdict: z.enum(['this', 'not']),
        reason: z.string().trim().max(120).optional(),
      }),
    )
    .max(60),
  leftOut: phrases.describe('words that were learnt and are to be left out'),
});
const value = z.union([answered, z.null()]);
const outcome = z.enum(['right', 'wrong', 'missing', 'unknown']);
const questionView = z.object({
  id: z.string(),
  type: z.string(),
  wording: z.string(),
  options: z.array(z.string()),
  usualLeast: z.number().describe('with how much confidence an answer is taken where the question says nothing'),
  draft,
  learnt: z.array(z.object({ phrase: z.string(), weight: z.number(), isStanding: z.boolean().optional() })),
  sites: z.array(
    z.object({
      host: z.string(),
      companyId: uuid,
      name: z.string(),
      known: value,
      knownFrom: z.string().nullable(),
      before: value,
      after: value,
      was: outcome,
      is: outcome,
    }),
  ),
  host: z.string().nullable(),
  places: z.array(
    z.object({
      value: answered,
      says: z.string(),
      under: z.string(),
      url: z.string(),
      date: z.number().nullable(),
      before: z.number(),
      after: z.number(),
    }),
  ),
  gained: z.int(),
  changed: z.int(),
  lost: z.int(),
  unread: z.array(z.object({ id: uuid, name: z.string(), isKnown: z.boolean() })),
  mayUndo: z.boolean(),
});

/** Dossiers: research on a record, as a page and as files. */
export const RESEARCH_OPERATIONS = {
  getResearchSettings: op({
    method: 'GET',
    path: '/research',
    summary: 'Where research looks, and what is asked of every company.',
    needs: 'look',
    answer: settings,
  }),
  saveResearchSettings: op({
    method: 'PUT',
    path: '/research',
    changes: ['settings'],
    summary: 'Change where research looks and what it asks. A question that cannot be read is refused by its name.',
    needs: 'edit flows',
    body: settings,
    answer: settings,
  }),
  tryQuestion: op({
    method: 'POST',
    path: '/questions/{name}/try',
    changes: [],
    summary: 'What a question answers on sites read before, as it is or with a draft of what is known of it. Nothing is kept.',
    needs: 'look',
    body: z.object({ draft: draft.optional(), host: z.string().max(300).nullable().optional() }),
    answer: questionView,
  }),
  keepQuestion: op({
    method: 'PUT',
    path: '/questions/{name}',
    changes: ['settings', 'things'],
    summary: 'Keep what is known of a question, with what its examples teach.',
    needs: 'edit flows',
    body: draft,
    answer: questionView,
  }),
  undoQuestion: op({
    method: 'POST',
    path: '/questions/{name}/undo',
    changes: ['settings', 'things'],
    summary: 'Bring back what was known of a question before it was last kept.',
    needs: 'edit flows',
    answer: questionView,
  }),
  askDossier: op({
    method: 'POST',
    path: '/dossiers',
    changes: ['dossiers'],
    summary: 'Ask for a dossier of a person or a company. It is made in the background.',
    needs: 'change records',
    body: z.object({
      kind: z.enum(['person', 'company']),
      id: uuid,
      afresh: z.boolean().default(false).describe('read everything again, also what was read within a week'),
      mailTo: z.email().nullable().default(null).describe('send it there when it is ready'),
    }),
    answer: z.object({ id: uuid }),
    status: 202,
  }),
  recheckFact: op({
    method: 'POST',
    path: '/companies/{id}/check',
    changes: ['records', 'record:{id}'],
    summary: 'Read the company’s site again for the one question that fills this field.',
    needs: 'change records',
    body: z.object({ field: z.string().max(40) }),
    answer: z.object({ found: z.boolean(), says: z.string() }),
  }),
  getDossier: op({
    method: 'GET',
    path: '/dossiers/{id}',
    summary: 'A dossier, or how far it is.',
    needs: 'look',
    answer: s.dossierViewSchema,
  }),
  dossierFile: op({
    method: 'GET',
    path: '/dossiers/{id}/file',
    summary: 'A dossier as PDF or Markdown.',
    needs: 'look',
    query: z.object({ as: z.enum(['pdf', 'markdown']) }),
    answer: z.string(),
    givesFile: ['application/pdf', 'text/markdown'],
  }),
  sendDossier: op({
    method: 'POST',
    path: '/dossiers/{id}/send',
    changes: ['dossiers'],
    summary: 'Send a dossier to a colleague, as text and PDF.',
    needs: 'change records',
    body: z.object({
      to: z.email().max(320),
      confirm: z.email().max(320).optional().describe('the same address again, for somebody nobody here knows'),
    }),
    answer: ok,
  }),
} as const;
