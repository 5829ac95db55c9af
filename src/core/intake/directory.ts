import { z } from 'zod';
import { countryOf } from '../fields';
import { textAt, type Provider } from '../lookup';

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

/** Entries of a described service as people or companies; those without a name are none. */
export function hitsIn({ name: service, record }: Pick<Provider, 'name' | 'record'>, entries: readonly unknown[]): readonly DirectoryHit[] {
  return entries.flatMap((entry): readonly DirectoryHit[] => {
    const at = (part: keyof Provider['record']): string => textAt(entry, record[part] ?? '');
    const [person, company, site] = [at('name'), at('company'), at('site')];
    const name = person === '' ? company : person;
    if (name === '') return [];
    const profile = at('profile');
    return [
      {
        id: `${service} ${profile === '' ? `${name} ${site === '' ? company : site}` : profile}`,
        name,
        title: orNull(at('title')),
        company: orNull(company),
        host: site,
        place: orNull(at('place')),
        country: countryOf(at('country')) ?? null,
        values: {},
        employees: null,
        url: /^https?:\/\//.test(profile) ? profile : null,
      },
    ];
  });
}
const orNull = (text: string): string | null => (text === '' ? null : text);
