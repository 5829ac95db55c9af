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
  /** values of the workspace's own fields of a company, by their keys */
  values: z.record(z.string(), z.union([z.string(), z.number(), z.boolean()])).default({}),
  employees: z.number().nullable(),
  url: z.string().nullable(),
});
export type DirectoryHit = Readonly<z.infer<typeof directoryHitSchema>>;
