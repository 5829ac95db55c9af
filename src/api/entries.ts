import { z } from 'zod';
import { details, uuid } from './op';
import * as s from './schemas';

/** A file that came along, and what came in by a door. */
export const fileShape = z.object({
  id: uuid,
  question: z.string(),
  name: z.string(),
  kind: z.string(),
  size: z.number().int(),
  says: z.string().describe('what a reader of it should know: that it is a scan, that it was cut; empty for nothing'),
  hidden: z.array(z.object({ text: z.string(), why: z.string() })).describe('what stands in it where nobody sees it: evidence of nothing'),
});
export const entryShape = z.object({
  id: uuid,
  no: z.number().int(),
  receivedAt: s.instant,
  raw: z.record(z.string(), z.string()),
  answers: details,
  state: z.enum(['taken', 'refused']),
  why: z.string(),
  personId: uuid.nullable(),
  personName: z.string().nullable(),
});
