/** Fields as they are made and changed: a draft, what it would read, and how it is shown. */
import type { FieldRecord, FieldTrial, FieldUse, FieldView } from '../../../api';
import { plural } from '../../../core/base';
import { ORDERABLE, SOURCE_LABELS, type SourceKind } from '../../../core/facts';
import { keyFor, ownFieldSchema, readTyped, printValue, type FieldType, type OwnField } from '../../../core/fields';

/** A field as it is typed: every part a text. */
export interface Draft {
  readonly label: string;
  readonly key: string;
  readonly type: FieldType;
  readonly unit: string;
  readonly options: string;
  readonly group: string;
  readonly sample: string;
  readonly words: string;
  readonly least: string;
  readonly most: string;
  readonly isListed: boolean;
  readonly inDirectory: boolean;
  readonly isProtected: boolean;
  readonly staleMonths: string;
  /** sources by their names, with commas */
  readonly trust: string;
  readonly byBuilders: boolean;
}
export const EMPTY_DRAFT: Draft = {
  label: '',
  key: '',
  type: 'text',
  unit: '',
  options: '',
  group: 'Added by us',
  sample: '',
  words: '',
  least: '',
  most: '',
  isListed: false,
  inDirectory: false,
  isProtected: false,
  staleMonths: '',
  trust: '',
  byBuilders: false,
};

const sourceLabel = (source: string): string => (source in SOURCE_LABELS ? SOURCE_LABELS[source as SourceKind] : source);
/** A source by its name or its label, whatever its case. */
const sourceNamed = (text: string): SourceKind | undefined =>
  ORDERABLE.find((source) => [source, SOURCE_LABELS[source].toLowerCase()].includes(text.toLowerCase()));

export const draftOf = (field: OwnField): Draft => ({
  label: field.label,
  key: field.key,
  type: field.type,
  unit: field.unit ?? '',
  options: (field.options ?? []).join(', '),
  group: field.group,
  sample: field.sample,
  words: field.words.join(', '),
  least: field.least === undefined ? '' : String(field.least),
  most: field.most === undefined ? '' : String(field.most),
  isListed: field.isListed ?? false,
  inDirectory: field.inDirectory ?? false,
  isProtected: field.isProtected ?? false,
  staleMonths: field.staleMonths === undefined ? '' : String(field.staleMonths),
  trust: (field.trust ?? []).map((source) => sourceLabel(source)).join(', '),
  byBuilders: field.byHand === 'builders',
});

const listed = (text: string): string[] =>
  text
    .split(',')
    .map((word) => word.trim())
    .filter((word) => word !== '');
const hasUnit = (type: FieldType): boolean => type === 'number' || type === 'money';
const bound = (text: string): number | undefined => {
  const read = readTyped({ type: 'number' }, text);
  return read.ok && typeof read.value === 'number' ? read.value : undefined;
};

export type Made = { readonly ok: true; readonly field: OwnField } | { readonly ok: false; readonly why: string };

/** The field that a draft describes; what else is known of it stays. */
export function fieldFrom(record: FieldRecord, draft: Draft, before?: OwnField): Made {
  const key = draft.key === '' ? keyFor(draft.label) : draft.key;
  const {
    unit: _unit,
    options: _options,
    least: _least,
    most: _most,
    isListed: _isListed,
    inDirectory: _inDirectory,
    isProtected: _isProtected,
    staleMonths: _staleMonths,
    trust: _trust,
    byHand: _byHand,
    ...kept
  } = before ?? {};
  const [least, most, staleMonths] = [bound(draft.least), bound(draft.most), bound(draft.staleMonths)];
  for (const text of [draft.least, draft.most, draft.staleMonths])
    if (text.trim() !== '' && bound(text) === undefined) return { ok: false, why: `“${text}” is not a number` };
  const trusted = listed(draft.trust);
  const strange = trusted.find((text) => sourceNamed(text) === undefined);
  if (strange !== undefined)
    return { ok: false, why: `“${strange}” is no source: ${ORDERABLE.map((source) => SOURCE_LABELS[source]).join(', ')} are` };
  const read = ownFieldSchema.safeParse({
    ...kept,
    record,
    key,
    label: draft.label,
    type: draft.type,
    ...(hasUnit(draft.type) && draft.unit.trim() !== '' && { unit: draft.unit }),
    ...(draft.type === 'choice' && { options: listed(draft.options) }),
    ...(hasUnit(draft.type) && least !== undefined && { least }),
    ...(hasUnit(draft.type) && most !== undefined && { most }),
    ...(draft.isListed && { isListed: true }),
    ...(draft.inDirectory && { inDirectory: true }),
    ...(draft.isProtected && { isProtected: true }),
    ...(staleMonths !== undefined && { staleMonths }),
    ...(trusted.length > 0 && { trust: trusted.flatMap((text) => sourceNamed(text) ?? []) }),
    ...(draft.byBuilders && { byHand: 'builders' as const }),
    group: draft.group,
    sample: draft.sample,
    words: listed(draft.words),
  });
  if (!read.success) {
    const [issue] = read.error.issues;
    return {
      ok: false,
      why: draft.label.trim() === '' ? 'a field needs a label' : `${issue?.path.join(' ') ?? 'field'}: ${issue?.message ?? 'cannot be'}`,
    };
  }
  if (read.data.type === 'choice' && (read.data.options?.length ?? 0) < 2) return { ok: false, why: 'a choice needs at least two options' };
  return { ok: true, field: read.data };
}

/** How people may write a value of such a field. */
function writings(field: OwnField): readonly string[] {
  const { sample, unit } = field;
  switch (field.type) {
    case 'number':
    case 'money':
      return [sample, ...(unit === undefined ? [] : [`${sample === '' ? '6' : sample} ${unit}`]), 'ca. 50', 'six', 'several'];
    case 'yes/no':
      return ['yes', 'nein', 'perhaps'];
    case 'year':
      return [sample, 'since 2013', 'lately'];
    case 'date':
      return ['2026-11-24', 'tomorrow'];
    case 'choice':
      return [...(field.options ?? []).slice(0, 2), 'another'];
    default:
      return [sample];
  }
}

/** What the field makes of what people write: what it reads, or that it refuses. */
export function readings(field: OwnField): readonly { readonly typed: string; readonly reads: string | null }[] {
  return [...new Set(writings(field))]
    .filter((typed) => typed !== '')
    .map((typed) => {
      const read = readTyped(field, typed);
      return { typed, reads: read.ok ? printValue(read.value, field.unit) : null };
    });
}

/** A field as a flow about people names it. What openings say is said of the application a line opens. */
export const inFlows = ({ record, key }: Pick<OwnField, 'record' | 'key'>): string =>
  record === 'person' ? key : `${record === 'opening' ? 'application' : record}.${key}`;

/** How many things use a field, by kind: “3 flows · 2 scorecards”. */
export function usesText(uses: readonly FieldUse[]): string {
  const counts = new Map<string, number>();
  for (const use of uses) counts.set(use.kind, (counts.get(use.kind) ?? 0) + 1);
  return [...counts].map(([kind, n]) => plural(n, kind)).join(' · ');
}

/** By group, in the order of their first field; own groups first. */
export function grouped(fields: readonly FieldView[]): readonly { readonly name: string; readonly fields: readonly FieldView[] }[] {
  const own = fields.filter(({ field }) => !field.isStandard);
  const names = [...new Set([...own, ...fields].map(({ field }) => field.group))];
  return names.map((name) => ({ name, fields: fields.filter(({ field }) => field.group === name) }));
}

/** What a trial says in a sentence. */
export function trialText({ facts, same, changed, aside, rechosen }: FieldTrial): string {
  const other = rechosen === 0 ? '' : ` On ${plural(rechosen, 'record')} another of the values that are known counts.`;
  if (facts === 0) return 'No value is stored yet: nothing changes but the field.';
  const parts = [
    ...(same > 0 ? [same === 1 ? '1 stays as it is' : `${same.toLocaleString('en-GB')} stay as they are`] : []),
    ...(changed > 0 ? [changed === 1 ? '1 is told anew' : `${changed.toLocaleString('en-GB')} are told anew`] : []),
    ...(aside > 0
      ? [aside === 1 ? '1 does not fit and is kept aside' : `${aside.toLocaleString('en-GB')} do not fit and are kept aside`]
      : []),
  ];
  return `Of ${plural(facts, 'value')}, ${parts.join(', ')}.${other}`;
}
