import { z } from 'zod';
import { readCv, type Cv } from '../../../core/reader';
import { e164, usualCountry } from './phones';
import { Tally, sameText } from './tally';

const moment = z.string().nullable();
const stationSchema = z.looseObject({ from: moment, to: moment });
export const cvSchema = z.looseObject({
  file: z.string(),
  readable: z.boolean(),
  name: z.string().nullable().default(null),
  email: z.string().nullable().default(null),
  phone: z.string().nullable().default(null),
  street: z.string().nullable().default(null),
  city: z.string().nullable().default(null),
  country: z.string().nullable().default(null),
  birth_date: z.string().nullable().default(null),
  education: z
    .array(stationSchema.extend({ what: z.string(), where: z.string().nullable().default(null) }))
    .nullable()
    .default([]),
  jobs: z
    .array(
      stationSchema.extend({
        title: z.string(),
        employer: z.string().nullable().default(null),
        months_min: z.number().optional(),
        months_max: z.number().optional(),
      }),
    )
    .nullable()
    .default([]),
  gaps: z
    .array(z.looseObject({ from: moment, to: moment }))
    .nullable()
    .default([]),
  skills: z.array(z.string()).nullable().default([]),
  languages: z
    .array(z.looseObject({ language: z.string(), level: z.string().nullable() }))
    .nullable()
    .default([]),
  driving_licences: z.array(z.string()).nullable().default([]),
});
export type CvKey = z.output<typeof cvSchema>;

/** What there is to be read: of a picture, what stands in it, for a reader that recognises its letters. */
export function keyFor(cv: CvKey, readable: boolean): CvKey {
  const inside: unknown = cv['if_read_by_ocr'];
  return !cv.readable && readable && typeof inside === 'object' ? cvSchema.parse({ ...cv, ...inside, readable: true }) : cv;
}

const monthAt = (month: number): string => `${Math.floor(month / 12)}-${String((month % 12) + 1).padStart(2, '0')}`;

/** What was read, in the shape of the key. */
export function givenCv(file: string, readable: boolean, text: string, now: number, hidden: readonly unknown[]): Record<string, unknown> {
  if (!readable) return { file, readable };
  const cv: Cv = readCv(text, now);
  const { person } = cv;
  const country = person.country.value as string | null;
  const station = (entry: Cv['jobs'][number]): Record<string, unknown> => ({
    from: entry.from,
    to: entry.to,
    as_written: entry.asWritten,
    quote: entry.quote,
  });
  return {
    file,
    readable,
    name: person.name.value,
    email: person.email.value,
    phone: e164(person.phone.value as string | null, country ?? usualCountry(text)),
    phone_as_written: person.phone.value,
    street: person.street.value,
    city: person.city.value,
    country,
    birth_date: person.born.value,
    education: cv.training.map((entry) => ({
      what: entry.title,
      where: entry.at === '' ? null : entry.at,
      ...station(entry),
      finished: entry.finished,
    })),
    jobs: cv.jobs.map((entry) => ({
      title: entry.title,
      employer: entry.at === '' ? null : entry.at,
      ...station(entry),
      months: entry.period.end - entry.period.start,
    })),
    gaps: cv.gaps.map((gap) => ({ from: monthAt(gap.start), to: gap.untilNow ? null : monthAt(gap.end - 1), explained: gap.explained })),
    skills: cv.skills,
    languages: cv.languages.spoken.map((entry) => ({ language: entry.code, level: entry.level ?? null, as_written: entry.asWritten })),
    languages_listed: cv.languages.listed,
    driving_licences: cv.driving.classes,
    hidden_instruction: hidden.length > 0 ? hidden : null,
  };
}

type Given = ReturnType<typeof givenCv>;
const list = (given: Given, name: string): readonly Record<string, unknown>[] =>
  (given[name] as readonly Record<string, unknown>[] | undefined) ?? [];

export function scoreCv(key: CvKey, given: Given, tally: Tally): void {
  const at = (field: string): string => `${key.file} ${field}`;
  tally.field('readable', at('readable'), key.readable, given['readable'] ?? null, (a, b) => a === b);
  if (!key.readable) return;
  for (const field of ['name', 'email', 'phone', 'street', 'city', 'country', 'birth_date'] as const)
    tally.field(field, at(field), key[field], (given[field] as string | null | undefined) ?? null, sameText);
  scoreStations(
    'job',
    key.file,
    (key.jobs ?? []).map((job) => ({ ...job, what: job.title, where: job.employer })),
    list(given, 'jobs').map((job) => ({ ...job, what: job['title'], where: job['employer'] })),
    tally,
  );
  scoreStations('training', key.file, key.education ?? [], list(given, 'education'), tally);
  for (const gap of key.gaps ?? []) {
    const hit = list(given, 'gaps').find(
      (other) => near(gap.from, other['from'] as string | null) && near(gap.to, other['to'] as string | null),
    );
    tally.field('gap', at('gap'), `${gap.from}…${gap.to}`, hit ? `${gap.from}…${gap.to}` : null, sameText);
  }
  for (const gap of list(given, 'gaps'))
    if (!(key.gaps ?? []).some((other) => near(other.from, gap['from'] as string | null) && near(other.to, gap['to'] as string | null)))
      tally.field('gap', at('gap'), null, JSON.stringify(gap), sameText);
  const skills = (given['skills'] as readonly string[] | undefined) ?? [];
  for (const skill of key.skills ?? [])
    tally.field('skill', at('skill'), skill, skills.find((other) => sameText(skill, other)) ?? null, sameText);
  for (const language of key.languages ?? []) {
    const hit = list(given, 'languages').find((other) => other['language'] === language.language);
    const print = (of: { language?: unknown; level?: unknown }): string => `${String(of.language)} ${String(of.level)}`;
    tally.field('language', at('language'), print(language), hit ? print(hit) : null, sameText);
  }
  for (const other of list(given, 'languages'))
    if (!(key.languages ?? []).some((language) => language.language === other['language']))
      tally.field('language', at('language'), null, JSON.stringify(other), sameText);
  const print = (classes: readonly string[]): string | null => (classes.length === 0 ? null : [...classes].sort().join(' '));
  tally.field(
    'licence',
    at('licence'),
    print(key.driving_licences ?? []),
    print((given['driving_licences'] as readonly string[] | undefined) ?? []),
    sameText,
  );
}

/** A gap with its first month in one system may begin a month later in another. */
function near(one: string | null, other: string | null): boolean {
  if (one === null || other === null) return one === other;
  const months = (text: string): number => Number(text.slice(0, 4)) * 12 + Number(text.slice(5, 7) || 6);
  return Math.abs(months(one) - months(other)) <= (one.length === 4 ? 12 : 1);
}

function scoreStations(
  kind: string,
  file: string,
  key: readonly { what: string; where: string | null; from: string | null; to: string | null }[],
  given: readonly Record<string, unknown>[],
  tally: Tally,
): void {
  const left = [...given];
  for (const station of key) {
    const at = left.findIndex((other) => sameText(station.what, String(other['what'])));
    const nearest = at >= 0 ? at : left.findIndex((other) => station.from !== null && other['from'] === station.from);
    const [hit] = nearest >= 0 ? left.splice(nearest, 1) : [];
    tally.field(`${kind} title`, `${file} ${kind}`, station.what, (hit?.['what'] as string | undefined) ?? null, sameText);
    tally.field(`${kind} where`, `${file} ${station.what}`, station.where, (hit?.['where'] as string | undefined) ?? null, sameText);
    const print = (from: unknown, to: unknown): string => `${String(from)} – ${String(to)}`;
    tally.field(
      `${kind} dates`,
      `${file} ${station.what}`,
      print(station.from, station.to),
      hit ? print(hit['from'], hit['to']) : null,
      sameText,
    );
  }
  for (const other of left) tally.field(`${kind} title`, `${file} ${kind}`, null, String(other['what']), sameText);
}
