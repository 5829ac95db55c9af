import { z } from 'zod';

/** One person or company as a directory gives it. */
export const directoryHitSchema = z.object({
  id: z.string(),
  name: z.string(),
  title: z.string().nullable(),
  company: z.string().nullable(),
  host: z.string(),
  place: z.string().nullable(),
  country: z.string().nullable().describe('ISO 3166-1 alpha-2'),
  crop: z.string().nullable(),
  area: z.number().nullable().describe('hectares under glass'),
  employees: z.number().nullable(),
  url: z.string().nullable(),
});
export type DirectoryHit = Readonly<z.infer<typeof directoryHitSchema>>;
