import { z } from 'zod';
import { agreedAnswerSchema, type AgreedAnswer } from '../answers';
import { pipelineSchema, type Pipeline } from '../flow/check';
import { chainSchema, type LookupChain } from '../lookup';
import { scorecardSchema, type Scorecard } from '../score';
import { planSchema, templateSchema, type FollowUpPlan, type MessageTemplate } from '../writer';

/** Kinds that are made and changed in the product; a `template` is called a text where people read it. */
export const THING_KINDS = ['scorecard', 'template', 'plan', 'pipeline', 'answer', 'chain'] as const;
export type ThingKind = (typeof THING_KINDS)[number];
export const isThingKind = (kind: string): kind is ThingKind => (THING_KINDS as readonly string[]).includes(kind);

export type Thing =
  | { readonly kind: 'scorecard'; readonly body: Scorecard }
  | { readonly kind: 'template'; readonly body: MessageTemplate }
  | { readonly kind: 'plan'; readonly body: FollowUpPlan }
  | { readonly kind: 'pipeline'; readonly body: Pipeline }
  | { readonly kind: 'answer'; readonly body: AgreedAnswer }
  | { readonly kind: 'chain'; readonly body: LookupChain };
export type ThingBody = Thing['body'];

const SCHEMAS = {
  scorecard: scorecardSchema,
  template: templateSchema,
  plan: planSchema,
  pipeline: pipelineSchema,
  answer: agreedAnswerSchema,
  chain: chainSchema,
} as const;

/** What was sent as the body of a kind, or where it does not fit. */
export function thingBody(kind: ThingKind, body: unknown): { readonly thing: Thing } | { readonly at: string; readonly says: string } {
  const read = SCHEMAS[kind].safeParse(body);
  if (read.success) return { thing: { kind, body: read.data } as Thing };
  const [issue] = read.error.issues;
  return { at: (issue?.path ?? []).join('.'), says: z.prettifyError(read.error) };
}
