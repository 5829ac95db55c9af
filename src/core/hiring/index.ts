/**
 * Openings that candidates apply for. Promises: an opening's stages are two or more, each once. Refuses: judging anybody.
 */
import { z } from 'zod';

export const openingSchema = z.object({
  place: z.string().max(120).default(''),
  description: z.string().max(4_000).default(''),
  /** what a good candidate has, one line each */
  criteria: z.array(z.string().trim().min(1).max(300)).max(30).default([]),
  stages: z
    .array(z.string().trim().min(1).max(60))
    .min(2)
    .max(12)
    .refine((stages) => new Set(stages).size === stages.length, 'two stages have the same name'),
  isOpen: z.boolean().default(true),
});
export type OpeningBody = z.infer<typeof openingSchema>;

/** What a new opening begins with. */
export const USUAL_STAGES = ['Received', 'Read', 'Talk', 'Trial day', 'Offer', 'Hired', 'Declined'] as const;
