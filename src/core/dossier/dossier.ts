import { z } from 'zod';
import { SOURCE_KINDS } from '../facts';

const lineSchema = z.object({
  /** what the line answers or is about; empty for a sentence that stands alone */
  label: z.string(),
  text: z.string(),
  /** the words it rests on, when they are not the text itself */
  quote: z.string().nullable(),
  url: z.string().nullable(),
  source: z.enum(SOURCE_KINDS).nullable(),
  /** the day it is of */
  date: z.number().nullable(),
  /** 0 to 1 */
  confidence: z.number().nullable(),
  /** what other places say instead */
  others: z.array(z.string()).readonly(),
});
export type DossierLine = Readonly<z.infer<typeof lineSchema>>;

/** Where a line can be read outside Millrace; null for papers that were sent to us. */
export const publicUrl = (line: DossierLine): string | null => (line.url?.startsWith('http') ? line.url : null);

const sectionSchema = z.object({
  id: z.enum(['short', 'do', 'asked', 'news', 'people', 'applies', 'papers', 'talk', 'watch', 'unknown']),
  title: z.string(),
  lines: z.array(lineSchema).readonly(),
});
export type DossierSection = Readonly<z.infer<typeof sectionSchema>>;

export const dossierSchema = z.object({
  title: z.string(),
  /** one line under the title: place, role, status */
  under: z.string(),
  madeAt: z.number(),
  sections: z.array(sectionSchema).readonly(),
});
export type Dossier = Readonly<z.infer<typeof dossierSchema>>;
