import { z } from 'zod';
import { ownFieldSchema } from '../core/fields';
import { op, type View } from './op';
import * as s from './schemas';

const record = ownFieldSchema.shape.record;
export type FieldRecord = View<typeof record>;
const use = z.object({
  kind: z.enum(['flow', 'scorecard', 'text', 'form', 'webhook', 'question', 'list', 'lookup chain', 'plan']),
  name: z.string(),
  href: z.string().nullable(),
});
const fieldsView = z.object({
  kind: record,
  fields: z.array(
    z.object({
      field: ownFieldSchema.extend({ isStandard: z.boolean(), isComputed: z.boolean(), ownWords: z.array(z.string()).optional() }),
      uses: z.array(use),
      filled: z.number().int().describe('on how many records it has a value'),
    }),
  ),
  of: z.number().int().describe('how many records of the kind there are'),
  undo: z
    .object({ id: z.number(), says: z.string(), by: z.string().nullable(), at: s.instant })
    .nullable()
    .describe('what was changed last and can be had back'),
});
const edit = z.discriminatedUnion('does', [
  z.object({ does: z.literal('change'), field: ownFieldSchema, figures: z.enum(['convert', 'keep']).default('convert') }),
  z.object({ does: z.literal('join'), record, key: z.string(), into: z.string() }),
  z.object({ does: z.literal('retire'), record, key: z.string(), isRetired: z.boolean() }),
]);
const trial = z.object({
  rechosen: z.int().describe('records on which another of the values known would count'),
  facts: z.number().int(),
  same: z.number().int(),
  changed: z.number().int(),
  aside: z.number().int().describe('values that would not fit: kept aside, nothing is lost'),
  samples: z.array(z.object({ from: z.string(), to: z.string().nullable(), n: z.number().int() })),
  uses: z.array(use),
});

/** One thing that speaks of a field, and where it is changed. */
export type FieldUse = View<typeof use>;
export type FieldsView = View<typeof fieldsView>;
export type FieldView = FieldsView['fields'][number];
/** The field as it would be (its record and name stay), its values going over to another field, or retiring it. */
export type FieldEdit = View<typeof edit>;
/** What would become of the values of a field under a change; a sample's `to` is null where the value is put aside. */
export type FieldTrial = View<typeof trial>;

/** Fields: what a business knows of its records. */
export const FIELD_OPERATIONS = {
  listFields: op({
    method: 'GET',
    path: '/fields',
    summary: 'The fields of a kind of record, with what uses each and on how many records it has a value.',
    needs: 'look',
    query: z.object({ record: record.default('company') }),
    answer: fieldsView,
  }),
  makeField: op({
    method: 'POST',
    path: '/fields',
    changes: ['everything'],
    summary: 'Make a field of the workspace’s own. Its name in flows never changes.',
    needs: 'edit flows',
    body: ownFieldSchema,
    answer: fieldsView,
    status: 201,
  }),
  tryField: op({
    method: 'POST',
    path: '/fields/try',
    changes: [],
    summary: 'What a change of a field would do to every value. Nothing is changed.',
    needs: 'look',
    body: edit,
    answer: trial,
  }),
  editField: op({
    method: 'POST',
    path: '/fields/edit',
    changes: ['everything'],
    summary: 'Change a field, join it with another, or retire it. Values that do not fit are kept aside.',
    needs: 'edit flows',
    body: edit,
    answer: fieldsView,
  }),
  undoField: op({
    method: 'POST',
    path: '/fields/undo',
    changes: ['everything'],
    summary: 'Take the last change of a field back, with its values.',
    needs: 'edit flows',
    body: z.object({ id: z.number().int() }),
    answer: fieldsView,
  }),
};
