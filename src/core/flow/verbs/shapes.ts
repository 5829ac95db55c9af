/** Parts of the published JSON shape that several verbs have. */
import { z } from 'zod';

export const name = z.string().describe('a name in quotes, or a bare word');
export const feel = z.string().describe('a FEEL expression (OMG DMN)');
export const span = z.string().describe('a length of time, such as "2 days"');
export const time = z.string().regex(/^\d\d:\d\d$/);
export const amount = z.strictObject({ value: z.number(), unit: z.string().optional() });
export const answer = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('number'), unit: z.string().optional() }),
  z.strictObject({ kind: z.literal('money'), currency: z.string().describe('ISO 4217') }),
  z.strictObject({ kind: z.literal('choice'), options: z.array(z.string()) }),
  z.strictObject({ kind: z.enum(['text', 'list', 'yes/no', 'year', 'date']) }),
]);
export const question = z.strictObject({ id: name, type: answer, wording: z.string() });
export const setting = z.strictObject({ field: name, value: feel });
export const as = name.optional();
