import { z } from 'zod';

/**
 * Fixed text with slots: `{first_name or "there"}`, `{company.name}`, `{personal line}`. `personal.fields` says which
 * facts the personal line may rest on, best first.
 */
export const templateSchema = z.object({
  name: z.string().min(1),
  language: z.string().default('en'),
  subject: z.string().min(1),
  body: z.string().min(1),
  personal: z.object({ fields: z.array(z.string()), required: z.boolean() }).optional(),
  maxLength: z.number().int().positive().default(900),
});
export type MessageTemplate = z.infer<typeof templateSchema>;

/** A follow-up plan: touches on working-day offsets from the first, and how the mailbox is paced. */
export const planSchema = z.object({
  name: z.string().min(1),
  mailbox: z.string().min(1),
  touches: z.array(z.object({ day: z.number().int().nonnegative(), template: z.string().min(1) })).min(1),
  hours: z.object({ from: z.string().regex(/^\d\d:\d\d$/), to: z.string().regex(/^\d\d:\d\d$/) }),
});
export type FollowUpPlan = z.infer<typeof planSchema>;
export type Touch = FollowUpPlan['touches'][number];
