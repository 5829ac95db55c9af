import { z } from 'zod';
import { RECORD_KINDS } from '../core/base';
import { dossierSchema } from '../core/dossier';
import { SOURCE_KINDS } from '../core/facts';
import { instant } from './op';

export { instant };

const id = z.uuid();
const value = z.union([z.string(), z.number(), z.boolean(), z.null()]);
export const money = z.number().int().describe('millionths of a euro');

export const problemSchema = z
  .object({ type: z.string(), title: z.string(), status: z.number().int(), detail: z.string() })
  .loose()
  .describe('RFC 9457 problem document');

export const factSchema = z.object({
  id: z.string(),
  record: z.object({ kind: z.enum(RECORD_KINDS), id }),
  field: z.string(),
  value,
  source: z.enum(SOURCE_KINDS),
  sourceRef: z.string(),
  url: z.string().optional(),
  quote: z.string().optional(),
  confidence: z.number().min(0).max(1),
  observedAt: instant,
});
export const knownSchema = z.object({
  record: z.string(),
  recordId: id,
  key: z.string(),
  label: z.string(),
  group: z.string(),
  unit: z.string().nullable(),
  isStale: z.boolean().describe('older than a value of this field may be'),
  fact: factSchema.nullable(),
  others: z.array(factSchema),
});
/** Values of the workspace’s own fields, by their names in flows; a field without a value is not there. */
export const ownValues = z.record(z.string(), z.union([z.string(), z.number(), z.boolean(), z.null()]));

export const personSchema = z.object({
  id,
  name: z.string(),
  firstName: z.string().nullable(),
  lastName: z.string().nullable(),
  jobTitle: z.string().nullable(),
  email: z.string().nullable(),
  phone: z.string().nullable(),
  otherEmail: z.string().nullable(),
  mobile: z.string().nullable(),
  language: z.string().nullable(),
  status: z.string().nullable(),
  metAt: z.string().nullable(),
  own: ownValues,
  companyId: id.nullable(),
  companyName: z.string().nullable(),
  ownerName: z.string().nullable(),
  createdAt: instant,
  mergedInto: id.nullable(),
});
export const companySchema = z.object({
  id,
  name: z.string(),
  website: z.string().nullable(),
  phone: z.string().nullable(),
  city: z.string().nullable(),
  country: z.string().nullable(),
  status: z.string().nullable(),
  own: ownValues,
  people: z.number().int(),
  createdAt: instant,
  mergedInto: id.nullable(),
});
export const dealSchema = z.object({
  id,
  title: z.string(),
  pipeline: z.string(),
  stage: z.string(),
  amount: z.number().nullable().describe('EUR'),
  companyId: id.nullable(),
  companyName: z.string().nullable(),
  personId: id.nullable(),
  personName: z.string().nullable(),
  ownerName: z.string().nullable(),
  stageSince: instant,
  createdAt: instant,
});
const scalar = z.union([z.string(), z.number(), z.boolean(), z.null()]);
const standingPlan = z.object({ id, isNew: z.boolean(), says: z.string() });
export const importSchema = z.object({
  id,
  fileName: z.string(),
  label: z.string(),
  matching: z.array(z.string()),
  says: z.array(z.string()).describe('what was noticed about the list as a whole'),
  matchingFrom: z.string().nullable().describe('the list whose matching was taken over, having the same headings'),
  defaultCountry: z.string(),
  flowId: id.nullable(),
  state: z.enum(['looked at', 'queued', 'running', 'done', 'failed']),
  total: z.number().int(),
  doneRows: z.number().int(),
  counts: z.record(z.string(), z.number()),
  problem: z.string().nullable(),
  createdAt: instant,
  finishedAt: instant.nullable(),
});
export const previewSchema = z.object({
  import: importSchema,
  table: z.object({
    encoding: z.string(),
    delimiter: z.string(),
    headingRow: z.number().int(),
    parts: z.array(z.string()),
    part: z.string(),
  }),
  columns: z.array(z.object({ heading: z.string(), target: z.string(), why: z.string(), sure: z.boolean(), samples: z.array(z.string()) })),
  counts: z
    .object({
      new: z.number().int(),
      known: z.number().int(),
      perhaps: z.number().int(),
      refused: z.number().int(),
      newCompanies: z.number().int(),
      newDeals: z.number().int(),
      newApplications: z.number().int(),
    })
    .nullable()
    .describe('of all rows; null while those of a long list are counted: ask again'),
  rows: z.array(
    z.object({
      row: z.number().int(),
      fileRow: z.number().int(),
      cells: z.array(z.string()),
      plan: z.object({
        row: z.number().int(),
        kind: z.enum(['new', 'known', 'perhaps', 'refused']),
        why: z.string(),
        personId: id.nullable(),
        companyId: id.nullable(),
        newCompany: z.boolean(),
        otherId: id.nullable().describe('of `perhaps`: the record it may be'),
        otherName: z.string().nullable(),
      }),
      reading: z.object({
        record: z.object({
          person: z.record(z.string(), scalar),
          company: z.record(z.string(), scalar),
          note: z.string().nullable(),
          standing: z.object({
            deal: z.object({ pipeline: z.string(), stage: z.string(), title: z.string(), values: z.record(z.string(), scalar) }).nullable(),
            application: z
              .object({ opening: z.string(), openingId: id, stage: z.string(), values: z.record(z.string(), scalar) })
              .nullable(),
          }),
        }),
        remarks: z.array(z.object({ target: z.string(), raw: z.string(), says: z.string() })).describe('what was changed or left out'),
        refused: z.string().nullable(),
      }),
      standing: z
        .object({ deal: standingPlan.nullable(), application: standingPlan.nullable() })
        .describe('what becomes of the deal and the application that the row tells of'),
      changes: z.array(z.object({ field: z.string(), from: scalar, to: scalar })).describe('of somebody known: what the row would change'),
    }),
  ),
});
export const pageOf = <T extends z.ZodType>(item: T) =>
  z.object({ items: z.array(item), next: z.string().nullable().describe('give it back as `cursor` for the next page') });
export const valuesSchema = z
  .record(z.string().max(60), value)
  .refine((values) => Object.keys(values).length <= 100, 'at most 100 values at once');
export const valueChange = z.object({
  values: valuesSchema,
  was: valuesSchema.optional().describe('the values you have seen: 409 when one has changed meanwhile'),
});
export const okSchema = z.object({ ok: z.literal(true) });

export const dossierViewSchema = z.object({
  id: z.uuid(),
  state: z.enum(['queued', 'done', 'failed']),
  step: z.string().describe('what is being done just now'),
  problem: z.string().nullable(),
  pages: z.number().int(),
  costMicro: z.number().describe('millionths of a euro'),
  tookMs: z.number().int(),
  createdAt: instant,
  createdByName: z.string().nullable(),
  content: dossierSchema.nullable(),
});
