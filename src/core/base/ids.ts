declare const kind: unique symbol;

/** A string that knows what it names, so that a fact's id is never passed where a record's is wanted. */
export type Brand<K extends string> = string & { readonly [kind]: K };

export type PersonId = Brand<'person'>;
export type CompanyId = Brand<'company'>;
export type DealId = Brand<'deal'>;
export type FactId = Brand<'fact'>;
export type TripId = Brand<'trip'>;
export type RecordId = PersonId | CompanyId | DealId;

export const RECORD_KINDS = ['person', 'company', 'deal', 'opening', 'application'] as const;
export type RecordKind = (typeof RECORD_KINDS)[number];
export interface RecordRef {
  readonly kind: RecordKind;
  readonly id: string;
}

/** The one place where a plain string becomes an id; callers have just read it from a decoder or the database. */
export function brandId<B extends Brand<string>>(raw: string): B {
  return raw as B;
}

export function sameRecord(a: RecordRef, b: RecordRef): boolean {
  return a.kind === b.kind && a.id === b.id;
}
