import { z } from 'zod';
import { readBrief, type Brief } from '../../../core/reader';
import { e164, usualCountry } from './phones';
import { plainText, sameText, type Tally } from './tally';

const saidSchema = z.looseObject({ quote: z.string() });
export const briefSchema = z.looseObject({
  file: z.string(),
  is_brief: z.boolean(),
  requirements: z.array(saidSchema).default([]),
  excluded: z.array(saidSchema).default([]),
  budget: z
    .array(
      z.looseObject({
        amount: z.number().nullable(),
        amount_max: z.number().nullable().default(null),
        currency: z.string().nullable(),
        kind: z.string(),
        quote: z.string().optional(),
      }),
    )
    .default([]),
  not_budget: z.array(saidSchema).default([]),
  deadlines: z
    .array(
      z.looseObject({
        kind: z.string(),
        iso: z.string().nullable(),
        accept: z.array(z.string().nullable()).default([]),
        quote: z.string(),
      }),
    )
    .default([]),
  not_deadline: z.array(saidSchema).default([]),
  complexity: z.array(saidSchema).default([]),
  decision: z.looseObject({ quote: z.string() }).nullable().default(null),
  contact: z
    .looseObject({
      name: z.string().nullable().default(null),
      role: z.string().nullable().default(null),
      company: z.string().nullable().default(null),
      email: z.string().nullable().default(null),
      phone: z.string().nullable().default(null),
    })
    .nullable()
    .default(null),
});
export type BriefKey = z.output<typeof briefSchema>;

/** What was read, in the shape of the key. */
export function givenBrief(file: string, text: string, now: number): Record<string, unknown> {
  const brief: Brief = readBrief(text, now);
  const { budget, asker, decision } = brief;
  return {
    file,
    is_brief: brief.isBrief,
    requirements: brief.requirements,
    excluded: brief.excluded,
    budget: budget
      ? [{ amount: budget.amount, amount_max: budget.upTo, currency: budget.currency, kind: budget.kind, quote: budget.quote }]
      : [],
    deadlines: brief.deadlines,
    complexity: brief.signs,
    decision,
    contact: {
      name: asker.name,
      role: asker.role,
      company: asker.company,
      email: asker.email,
      phone: e164(asker.phone, usualCountry(text)),
    },
  };
}

type Given = ReturnType<typeof givenBrief>;
const listOf = (given: Given, name: string): readonly { readonly quote: string; readonly [key: string]: unknown }[] =>
  (given[name] as readonly { readonly quote: string }[] | undefined) ?? [];
const wordsOf = (text: string): ReadonlySet<string> => new Set(plainText(text).match(/[\p{L}\p{N}]{2,}/gu) ?? []);

/** Whether two passages are the same or one within the other, or say most of the same words. */
export function samePassage(key: string, given: string): boolean {
  const [a, b] = [plainText(key), plainText(given)];
  if (a.includes(b) || b.includes(a)) return true;
  const [x, y] = [wordsOf(a), wordsOf(b)];
  const both = [...x].filter((word) => y.has(word)).length;
  return both >= Math.min(x.size, y.size) * 0.75;
}

export function scoreBrief(key: BriefKey, given: Given, tally: Tally): void {
  const at = (field: string): string => `${key.file} ${field}`;
  tally.field('is a brief', at('is_brief'), key.is_brief, given['is_brief'] as boolean, (a, b) => a === b);
  passages('requirement', key.requirements, listOf(given, 'requirements'), key.file, tally, true);
  passages('not wanted', key.excluded, listOf(given, 'excluded'), key.file, tally, true);
  passages('sign', key.complexity, listOf(given, 'complexity'), key.file, tally, false);
  const print = (sum: { amount: unknown; amount_max: unknown; currency: unknown; kind: unknown } | undefined): string | null =>
    sum === undefined ? null : `${String(sum.amount)}…${String(sum.amount_max)} ${String(sum.currency)} ${String(sum.kind)}`;
  const is = listOf(given, 'budget')[0] as unknown as
    { amount: unknown; amount_max: unknown; currency: unknown; kind: unknown } | undefined;
  const wanted = key.budget.filter((sum) => sum.amount !== null);
  const hit = wanted.find((sum) => print(sum) === print(is)) ?? wanted[0];
  tally.field('budget', at('budget'), print(hit), print(is), sameText);
  for (const deadline of key.deadlines) {
    const accept = deadline.accept.length > 0 ? deadline.accept : [deadline.iso];
    const kind = deadline.kind.split(' ')[0] ?? '';
    const same = listOf(given, 'deadlines').filter((other) => other['kind'] === kind);
    const right = same.find((other) => accept.includes(other['iso'] as string | null));
    tally.field(
      'deadline',
      at(deadline.kind),
      String(deadline.iso),
      right ? String(deadline.iso) : same.length > 0 ? String(same[0]?.['iso']) : null,
      sameText,
    );
  }
  for (const wrong of key.not_deadline)
    if (listOf(given, 'deadlines').some((other) => samePassage(wrong.quote, other.quote)))
      tally.field('deadline', at('deadline'), null, wrong.quote, sameText);
  const decision = given['decision'] as { quote: string } | null;
  tally.field('decision', at('decision'), key.decision?.quote ?? null, decision?.quote ?? null, samePassage);
  const contact = given['contact'] as Readonly<Record<string, string | null>>;
  for (const field of ['name', 'role', 'company', 'email', 'phone'] as const)
    tally.field(`contact ${field}`, at(field), key.contact?.[field] ?? null, contact[field] ?? null, sameText);
}

function passages(
  field: string,
  key: readonly { readonly quote: string }[],
  given: readonly { readonly quote: string }[],
  file: string,
  tally: Tally,
  complete: boolean,
): void {
  for (const { quote } of key)
    tally.field(field, `${file} ${field}`, quote, given.find((other) => samePassage(quote, other.quote))?.quote ?? null, () => true);
  if (complete)
    for (const { quote } of given)
      if (!key.some((other) => samePassage(other.quote, quote))) tally.field(field, `${file} ${field}`, null, quote, sameText);
}
