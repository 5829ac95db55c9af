import { z } from 'zod';
import { op, uuid } from './op';
import * as s from './schemas';

const ok = z.object({ ok: z.literal(true) });

/** Dossiers: research on a record, as a page and as files. */
export const RESEARCH_OPERATIONS = {
  askDossier: op({
    method: 'POST',
    path: '/dossiers',
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
    summary: 'Send a dossier to a colleague, as text and PDF.',
    needs: 'change records',
    body: z.object({ to: z.email() }),
    answer: ok,
  }),
} as const;
