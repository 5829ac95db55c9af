import { z } from 'zod';
import { RECORD_KINDS, type DeepReadonly } from '../base';

export const FIELD_TYPES = [
  'text',
  'long text',
  'number',
  'money',
  'yes/no',
  'date',
  'year',
  'choice',
  'list',
  'e-mail',
  'phone',
  'site',
  'country',
  'language',
] as const;
export type FieldType = (typeof FIELD_TYPES)[number];
export type FactValue = string | number | boolean | null;

/** The name of a field in flows: it never changes once used, the label may. */
export const fieldKeySchema = z
  .string()
  .regex(/^[a-z][a-z0-9_]{0,59}$/, 'a name in flows is small letters, digits and _, and begins with a letter, such as delivery_days');

const word = z.string().trim().min(1).max(60);

/** Something to say when a condition holds. */
const pointSchema = z.object({
  label: z.string().trim().min(1).max(60),
  /** FEEL over the company's fields by their keys, and `year`, this year */
  when: z.string().min(1).max(300),
  /** a sentence; `{…}` holds FEEL over the same */
  says: z.string().min(1).max(300),
});
const dossierPartSchema = z.object({
  /** stands in short at the head, as this sentence says it */
  leads: z.string().min(1).max(300).optional(),
  /** what a conversation can begin with */
  talk: z.array(pointSchema).max(10).optional(),
  /** what speaks against them, or should be known first */
  watch: z.array(pointSchema).max(10).optional(),
});
export type Point = z.infer<typeof pointSchema>;

/** A field of the workspace's own, as it is kept, sent and exchanged. */
export const ownFieldSchema = z.object({
  record: z.enum(RECORD_KINDS),
  key: fieldKeySchema,
  label: z.string().trim().min(1).max(60),
  type: z.enum(FIELD_TYPES),
  /** a sign or UCUM code of a unit of measure, a currency, or what is counted: `ha`, `EUR`, `vans` */
  unit: z.string().trim().min(1).max(20).optional(),
  /** of a choice, in their order */
  options: z.array(word).max(60).optional(),
  /** the heading it stands under on a record */
  group: z.string().trim().min(1).max(40),
  /** a value as people would type it, shown while typing */
  sample: z.string().trim().max(120).default(''),
  /** what else people call it: for lists and typed phrases, in any language */
  words: z.array(word).max(60).default([]),
  /** no value above or below can be: such a row of a list is refused */
  most: z.number().optional(),
  least: z.number().optional(),
  /** a bare figure above this, in a list whose column names no unit, is in that other unit */
  bare: z.object({ above: z.number(), unit: z.string().min(1).max(20) }).optional(),
  /** a value older than this counts as stale */
  staleMonths: z.number().int().min(1).max(240).optional(),
  /** sources whose word counts before that of all others, in this order: see `core/facts` */
  trust: z.array(z.string().min(1).max(20)).max(17).optional(),
  /** who may set it by hand; without it, whoever may change records */
  byHand: z.enum(['builders']).optional(),
  /** counts years of work that these words speak of, out of a CV */
  yearsIn: z.array(word).max(40).optional(),
  /** directories know it: searches ask by it, and what they find brings it */
  inDirectory: z.boolean().optional(),
  /** a column of lists of records */
  isListed: z.boolean().optional(),
  /** what a dossier makes of it */
  dossier: dossierPartSchema.optional(),
  /** never used in scoring, never shown to a text model */
  isProtected: z.boolean().optional(),
  /** kept with its values, and offered nowhere */
  isRetired: z.boolean().optional(),
});
export type OwnField = DeepReadonly<z.infer<typeof ownFieldSchema>>;

/** A typed property of a record: one that every business has, in a column of its own, or one of the workspace's own. */
export interface Field extends OwnField {
  /** every business has it: `key` is a column of the record's table */
  readonly isStandard?: true;
  /** worked out from what happened: never written */
  readonly isComputed?: true;
  /** of a standard field: what this workspace calls it besides */
  readonly ownWords?: readonly string[];
}

/** A name in flows made of a label: `Delivery days` is `delivery_days`. */
export const keyFor = (label: string): string =>
  label
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/ß/g, 'ss')
    .replace(/[^a-z0-9]+/g, '_')
    .slice(0, 60)
    .replace(/^[_0-9]{1,60}/, '')
    .replace(/(?<!_)_{1,60}$/, '');
