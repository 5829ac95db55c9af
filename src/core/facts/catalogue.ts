import type { RecordKind } from '../base';

export type FieldType = 'text' | 'number' | 'yes/no' | 'date' | 'e-mail' | 'phone' | 'site' | 'year';
export type FactValue = string | number | boolean | null;

/** A typed property of a record. `column` names its place in the record's table: a typed column, never user text. */
export interface Field {
  readonly record: RecordKind;
  /** the name used in flows and conditions */
  readonly key: string;
  readonly label: string;
  readonly type: FieldType;
  readonly unit?: string;
  readonly group: 'Growing' | 'Firm' | 'Reach' | 'Person' | 'Candidate' | 'Deal';
  /** a sample value, shown while typing */
  readonly sample: string;
  /** worked out from what happened: never written */
  readonly computed?: true;
}

const field = (
  record: RecordKind,
  key: string,
  label: string,
  type: FieldType,
  group: Field['group'],
  sample: string,
  unit?: string,
): Field => ({
  record,
  key,
  label,
  type,
  group,
  sample,
  ...(unit === undefined ? {} : { unit }),
});

/** The standard fields. Every key is a column of the record's table of the same name. */
export const FIELDS: readonly Field[] = [
  field('person', 'name', 'name', 'text', 'Person', 'Mara Quill'),
  field('person', 'first_name', 'first name', 'text', 'Person', 'Mara'),
  field('person', 'last_name', 'family name', 'text', 'Person', 'Quill'),
  field('person', 'job_title', 'role', 'text', 'Person', 'technical director'),
  field('person', 'email', 'e-mail', 'e-mail', 'Reach', 'm.quill@oakmere-glass.example'),
  field('person', 'phone', 'phone', 'phone', 'Reach', '+44 1632 960417'),
  field('person', 'language', 'language', 'text', 'Person', 'en'),
  field('person', 'met_at', 'where we met', 'text', 'Person', 'B14'),
  field('person', 'status', 'status', 'text', 'Person', 'incomplete'),
  field('person', 'place', 'lives at', 'text', 'Candidate', 'Hessle'),
  field('person', 'employer', 'employer', 'text', 'Candidate', 'Larkfield Pumps'),
  field('person', 'jobs', 'employment', 'text', 'Candidate', '2019-03 – now: service technician, Larkfield Pumps'),
  field('person', 'years', 'years of work', 'number', 'Candidate', '7.5'),
  field('person', 'service_years', 'years of field service', 'number', 'Candidate', '4'),
  field('person', 'gaps', 'gaps in employment', 'text', 'Candidate', 'none'),
  field('person', 'education', 'education', 'text', 'Candidate', '2012 – 2016: mechatronics technician'),
  field('person', 'skills', 'skills', 'text', 'Candidate', 'PLC programming, Modbus'),
  field('person', 'languages', 'languages', 'text', 'Candidate', 'English (native), German (B2)'),
  field('person', 'licences', 'licences', 'text', 'Candidate', 'driving licence B'),
  field('person', 'driving', 'drives', 'yes/no', 'Candidate', 'yes'),
  field('company', 'name', 'company', 'text', 'Firm', 'Oakmere Glass'),
  field('company', 'website', 'site', 'site', 'Reach', 'oakmere-glass.example'),
  field('company', 'phone', 'company phone', 'phone', 'Reach', '+44 1632 960400'),
  field('company', 'city', 'place', 'text', 'Firm', 'Hessle'),
  field('company', 'country', 'country', 'text', 'Firm', 'GB'),
  field('company', 'employees', 'employees', 'number', 'Firm', '46'),
  field('company', 'sites', 'sites', 'number', 'Firm', '2'),
  field('company', 'heated_area', 'heated area', 'number', 'Growing', '4.2', 'ha'),
  field('company', 'main_crop', 'main crop', 'text', 'Growing', 'tomato'),
  field('company', 'controls', 'controls', 'text', 'Growing', 'Tessel 4'),
  field('company', 'controls_since', 'controls since', 'year', 'Growing', '2013'),
  field('company', 'expansion', 'expansion', 'yes/no', 'Growing', 'yes'),
  field('company', 'all_year', 'grows all year', 'yes/no', 'Growing', 'yes'),
  field('company', 'energy', 'energy', 'text', 'Growing', 'cogeneration'),
  field('company', 'service_contract', 'service contract', 'yes/no', 'Growing', 'no'),
  field('company', 'decider', 'who decides', 'text', 'Firm', 'Harriet Lowndes'),
  field('company', 'founded', 'founded', 'year', 'Firm', '1961'),
  field('company', 'status', 'company status', 'text', 'Firm', 'prospect'),
  field('deal', 'title', 'title', 'text', 'Deal', 'Oakmere, bays 3–4'),
  field('deal', 'stage', 'stage', 'text', 'Deal', 'Qualified'),
  field('deal', 'amount', 'amount', 'number', 'Deal', '38000', 'EUR'),
  { ...field('deal', 'pipeline', 'pipeline', 'text', 'Deal', 'Glasshouse sales'), computed: true },
  { ...field('deal', 'quiet_days', 'days of silence', 'number', 'Deal', '8'), computed: true },
  { ...field('deal', 'stage_days', 'days at this stage', 'number', 'Deal', '12'), computed: true },
];

const BY_NAME = new Map(FIELDS.map((entry) => [`${entry.record}.${entry.key}`, entry]));

/** The field of that record kind and key, or undefined. */
export function fieldOf(record: RecordKind, key: string): Field | undefined {
  return BY_NAME.get(`${record}.${key}`);
}

export function fieldsOf(record: RecordKind): readonly Field[] {
  return FIELDS.filter((entry) => entry.record === record);
}

/** Units that some field has: what a number in a flow may be followed by. */
export function fieldUnits(): readonly string[] {
  return [...new Set(FIELDS.flatMap((entry) => (entry.unit ? [entry.unit] : [])))];
}
