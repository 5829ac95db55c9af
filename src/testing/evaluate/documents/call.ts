import { z } from 'zod';
import { readTalk, type TalkRead } from '../../../core/reader';
import { samePassage } from './brief';
import { e164, usualCountry } from './phones';
import { sameText, type Tally } from './tally';

const quoted = z.looseObject({ quote: z.string() });
export const callSchema = z.looseObject({
  file: z.string(),
  reason: quoted.nullable().default(null),
  goals: z.array(quoted).default([]),
  objections: z.array(quoted.extend({ kind: z.string(), accept: z.array(z.string()).default([]) })).default([]),
  outcome: quoted.nullable().default(null),
  next_step: z
    .looseObject({ date: z.string().nullable().default(null), time: z.string().nullable().default(null), quote: z.string() })
    .nullable()
    .default(null),
  facts: z.array(z.looseObject({ field: z.string(), value: z.unknown(), quote: z.string() })).default([]),
  not_facts: z.array(quoted).default([]),
});
export type CallKey = z.output<typeof callSchema>;

/** What was read, in the shape of the key. */
export function givenCall(file: string, text: string, now: number): Record<string, unknown> {
  const talk: TalkRead = readTalk(text, now);
  const currency = usualCountry(text) === 'GB' ? 'GBP' : 'EUR';
  const fact = (field: string, value: unknown, quote: string): readonly object[] => (value === null ? [] : [{ field, value, quote }]);
  return {
    file,
    reason: talk.reason === null ? null : { quote: talk.reason },
    goals: talk.goals.map((quote) => ({ quote })),
    objections: talk.objections,
    outcome: talk.outcome === null ? null : { quote: talk.outcome },
    next_step: talk.nextStep,
    promises: talk.promises,
    facts: [
      ...fact('email', talk.email?.value ?? null, talk.email?.quote ?? ''),
      ...fact('phone', e164(talk.phone?.value ?? null, usualCountry(text)), talk.phone?.quote ?? ''),
      ...fact('deadline', talk.deadline?.value ?? null, talk.deadline?.quote ?? ''),
      ...fact(
        'budget',
        talk.budget ? { amount: talk.budget.amount, currency: talk.budget.currency ?? currency } : null,
        talk.budget?.quote ?? '',
      ),
      ...fact('decision', talk.decision, talk.decision ?? ''),
    ],
    statements: talk.statements,
  };
}

type Given = ReturnType<typeof givenCall>;
interface Fact {
  readonly field: string;
  readonly value: unknown;
  readonly quote: string;
}

export function scoreCall(key: CallKey, given: Given, tally: Tally): void {
  const at = (field: string): string => `${key.file} ${field}`;
  const quote = (name: string): string | null => (given[name] as { quote: string } | null)?.quote ?? null;
  tally.field('reason', at('reason'), key.reason?.quote ?? null, quote('reason'), samePassage);
  tally.field('outcome', at('outcome'), key.outcome?.quote ?? null, quote('outcome'), samePassage);
  const goals = given['goals'] as readonly { quote: string }[];
  for (const goal of key.goals)
    tally.field('goal', at('goal'), goal.quote, goals.find((other) => samePassage(goal.quote, other.quote))?.quote ?? null, () => true);
  for (const goal of goals)
    if (!key.goals.some((other) => samePassage(other.quote, goal.quote))) tally.field('goal', at('goal'), null, goal.quote, sameText);
  const objections = given['objections'] as TalkRead['objections'];
  for (const objection of key.objections) {
    const hit = objections.find((other) => samePassage(objection.quote, other.quote));
    tally.field('objection', at('objection'), objection.quote, hit?.quote ?? null, () => true);
    if (hit)
      tally.field(
        'objection kind',
        at('kind'),
        objection.kind,
        [objection.kind, ...objection.accept].includes(hit.kind) ? objection.kind : hit.kind,
        sameText,
      );
  }
  for (const objection of objections)
    if (!key.objections.some((other) => samePassage(other.quote, objection.quote)))
      tally.field('objection', at('objection'), null, objection.quote, sameText);
  const next = given['next_step'] as TalkRead['nextStep'];
  tally.field('next day', at('next day'), key.next_step?.date ?? null, next?.date ?? null, sameText);
  const hour = (time: string | null | undefined): string | null => time?.replace(/^(?:at|um|om) /, '') ?? null;
  if (key.next_step?.time) tally.field('next time', at('next time'), hour(key.next_step.time), hour(next?.time), sameText);
  const facts = given['facts'] as readonly Fact[];
  for (const field of ['email', 'phone', 'deadline', 'budget'] as const) {
    const expected = key.facts.find((fact) => fact.field === field || (field === 'phone' && fact.field === 'mobile'));
    const is = facts.find((fact) => fact.field === field);
    const print = (value: unknown): string | null =>
      value === null || value === undefined ? null : typeof value === 'string' ? value : JSON.stringify(value);
    tally.field(field, at(field), print(expected?.value), print(is?.value), sameText);
  }
  const decision = key.facts.find((fact) => fact.field === 'decision');
  tally.field(
    'decision',
    at('decision'),
    decision?.quote ?? null,
    facts.find((fact) => fact.field === 'decision')?.quote ?? null,
    samePassage,
  );
}
