import { z } from 'zod';

/** What an objection is about: an agreed answer to one bears its name, one to a question the question's topic. */
export const OBJECTIONS = ['price', 'timing', 'authority', 'need', 'competitor', 'trust'] as const;

/** Other things people write that an answer may be agreed to. */
export const OTHER_KINDS = ['interested', 'not now', 'wrong person', 'decline'] as const;

/** What the team has agreed to say, with when it fits and what may not be said. */
export const agreedAnswerSchema = z.object({
  name: z.string().min(1),
  /** an objection, another kind of answer, or a question's topic in a few words */
  about: z.string().trim().min(1).max(60),
  /** how people ask it, in any language */
  asks: z.array(z.string().trim().min(1).max(200)).max(40).default([]),
  /** FEEL over person, company and deal; empty: always */
  when: z.string().max(300).default(''),
  /** its words by language; a sentence whose slot has no value is left out */
  texts: z
    .array(z.object({ language: z.string().min(2).max(5), body: z.string().min(1).max(2_000) }))
    .min(1)
    .max(7),
  /** words that may not be in the message: one of them stops it */
  notSay: z.array(z.string().trim().min(1).max(120)).max(30).default([]),
});
export type AgreedAnswer = z.infer<typeof agreedAnswerSchema>;

export const isOtherKind = (about: string): about is (typeof OTHER_KINDS)[number] => (OTHER_KINDS as readonly string[]).includes(about);
export const isObjection = (about: string): about is (typeof OBJECTIONS)[number] => (OBJECTIONS as readonly string[]).includes(about);
