import { z } from 'zod';
import type { DeepReadonly } from '../base';
import { CHANNELS } from './channels';

/**
 * A sentence that rests on one fact: `With {value} vans, as your site says, …`. Slots are `{value}`, `{quote}` and
 * `{day}`; a fact that lacks one of them makes no line of it.
 */
const linePatternSchema = z.object({
  field: z.string().min(1),
  says: z.string().min(1).max(400),
  /** FEEL over `value` and `quote`; empty: always */
  when: z.string().max(300).default(''),
});
export type LinePattern = z.infer<typeof linePatternSchema>;

/**
 * The text in other words: in another language, or for readers of whom a condition holds. What the personal line may rest on is the text's;
 * its sentences are the wording's own.
 */
const wordingSchema = z.object({
  language: z.string().default('en'),
  /** FEEL over the reader's record; empty: all who read the language */
  when: z.string().max(300).default(''),
  subject: z.string().min(1),
  body: z.string().min(1),
  lines: z.array(linePatternSchema).max(200).default([]),
  /** tried against the words a reader would get otherwise: every second one gets these */
  tried: z.boolean().optional(),
});
export type Wording = DeepReadonly<z.infer<typeof wordingSchema>>;

/**
 * Fixed text with slots: `{first_name or "there"}`, `{company.name}`, `{personal line}`. `personal.fields` says which
 * facts the personal line may rest on, best first.
 */
export const templateSchema = z.object({
  name: z.string().min(1),
  /** what it is written for; left out: e-mail. The subject of a call or a letter is what it is about. */
  channel: z.enum(CHANNELS).optional(),
  language: z.string().default('en'),
  subject: z.string().min(1),
  body: z.string().min(1),
  personal: z
    .object({
      fields: z.array(z.string()),
      required: z.boolean(),
      // Without any of a field, neutral ones are made of the words found.
      lines: z.array(linePatternSchema).max(200).default([]),
    })
    .optional(),
  maxLength: z.number().int().positive().default(900),
  wordings: z.array(wordingSchema).max(20).optional(),
});
export type MessageTemplate = DeepReadonly<z.infer<typeof templateSchema>>;

const touchSchema = z.object({
  day: z.number().int().nonnegative(),
  /** the text; its channel is the touch's */
  template: z.string().min(1),
  /** the text for whom this one does not reach, usually of another channel */
  otherwise: z.string().min(1).optional(),
  /** FEEL over the reader's record and `done`, looked at when it is due; empty: always */
  when: z.string().max(300).optional(),
});

/** A follow-up plan: touches on working-day offsets from the first, and how the mailbox is paced. */
export const planSchema = z.object({
  name: z.string().min(1),
  mailbox: z.string().min(1),
  touches: z.array(touchSchema).min(1),
  hours: z.object({ from: z.string().regex(/^\d\d:\d\d$/), to: z.string().regex(/^\d\d:\d\d$/) }),
});
export type FollowUpPlan = DeepReadonly<z.infer<typeof planSchema>>;
export type Touch = FollowUpPlan['touches'][number];

/** The names of the texts a touch may take. */
export const textsOf = ({ template, otherwise }: Pick<Touch, 'template' | 'otherwise'>): readonly string[] =>
  otherwise === undefined ? [template] : [template, otherwise];
