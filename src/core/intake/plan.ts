import { stableId } from '../base';
import {
  companyKeys,
  companyName,
  compareReadyCompanies,
  compareReadyPeople,
  confidenceAtMost,
  judgeMatch,
  personKeys,
  reachOf,
  readyCompany,
  readyPerson,
  type Comparison,
  type MatchCompany,
  type MatchPerson,
  type ReadyCompany,
  type ReadyPerson,
  type Verdict,
} from '../match';
import type { RowReading } from './row';

/** What the CRM has that shares a key with the list. */
export interface Known {
  readonly people: readonly MatchPerson[];
  readonly companies: readonly MatchCompany[];
}

export interface PlanOptions {
  /** makes the ids of new records: the same list taken in twice under one id makes the same records */
  readonly importId: string;
  readonly askAbove: number;
  readonly sameAbove: number;
}

export interface RowPlan {
  readonly row: number;
  readonly kind: 'new' | 'known' | 'perhaps' | 'refused';
  readonly why: string;
  /** null: the row is refused, or of a company alone */
  readonly personId: string | null;
  readonly companyId: string | null;
  readonly newCompany: boolean;
  /** for `perhaps`: the record it may be */
  readonly otherId: string | null;
  readonly otherName: string | null;
  /** of a company alone that may be `otherId`: what speaks for it. Of people a flow asks */
  readonly doubt?: Pick<Comparison, 'confidence' | 'evidence'>;
}

/**
 * Blocks that share a key and are larger are passed over: such a key tells nobody apart, and comparing with them all would cost
 * the square of the list. A number or a site says more than a name; an address always counts.
 */
const MOST_ALIKE = { name: 24, number: 24, address: Number.POSITIVE_INFINITY } as const;
const sortOf = (key: string): keyof typeof MOST_ALIKE => (/^[nm]:/.test(key) ? 'name' : key.startsWith('e:') ? 'address' : 'number');

class Pool<T extends { readonly id: string }> {
  private readonly byKey = new Map<string, T[]>();
  private readonly ids = new Set<string>();
  constructor(private readonly keysOf: (entry: T) => readonly string[]) {}
  /** Nobody is there twice. */
  add(entry: T): void {
    if (this.ids.has(entry.id)) return;
    this.ids.add(entry.id);
    for (const key of this.keysOf(entry)) {
      const list = this.byKey.get(key);
      if (list) list.push(entry);
      else this.byKey.set(key, [entry]);
    }
  }
  /** Entries that share a key; `strong` looks at addresses, numbers and sites only. */
  near(entry: T, strong = false): readonly T[] {
    const found = new Map<string, T>();
    for (const key of this.keysOf(entry)) {
      const sort = sortOf(key);
      if (strong && sort === 'name') continue;
      const block = this.byKey.get(key) ?? [];
      if (block.length > MOST_ALIKE[sort]) continue;
      for (const other of block) found.set(other.id, other);
    }
    return [...found.values()];
  }
}

const text = (value: unknown): string | null => (typeof value === 'string' && value !== '' ? value : null);

const NOBODY = { personId: null, companyId: null, newCompany: false, otherId: null, otherName: null } as const;

/** Decides for each row what it will become; it is compared with what is known and with the rows before it. */
export class RowPlanner {
  private readonly people = new Pool<ReadyPerson>(personKeys);
  private readonly companies = new Pool<ReadyCompany>(companyKeys);
  private readonly firstRow = new Map<string, number>();

  constructor(private readonly options: PlanOptions) {}

  /** Tells of records that the next rows may be. */
  know(known: Known): void {
    for (const person of known.people) this.people.add(readyPerson(person));
    for (const company of known.companies) this.companies.add(readyCompany(company));
  }

  plan(row: number, reading: RowReading): RowPlan {
    if (reading.refused !== null) return { row, kind: 'refused', why: reading.refused, ...NOBODY };
    const { options } = this;
    const place = placeCompany(row, reading, this.companies, options);
    if (Object.keys(reading.record.person).length === 0) return this.planCompany(row, place);
    const me = readyPerson({
      id: stableId('import', options.importId, String(row), 'person'),
      name: text(reading.record.person.name) ?? text(reading.record.person.email) ?? '',
      ...reachOf(reading.record.person),
      companyId: place.id,
      companyName: place.name,
    });
    const near = this.people.near(me).filter((other) => confidenceAtMost(me, other) >= options.askAbove);
    const verdict = judgeMatch(
      near.map((other) => ({ ...compareReadyPeople(me, other), otherId: other.id })),
      options.askAbove,
      options.sameAbove,
    );
    const other = near.find((entry) => entry.id === verdict.otherId);
    const company = verdict.how === 'same' && other ? ofKnownPerson(place, other) : place;
    if (company.fresh) this.companies.add(company.fresh);
    const base = { row, companyId: company.id, newCompany: company.fresh !== undefined };
    if (verdict.how === 'same' && other) {
      const inFile = this.firstRow.get(other.id);
      return {
        ...base,
        kind: 'known',
        why: inFile === undefined ? `joined by ${mainEvidence(verdict)}` : `same as row ${inFile}`,
        personId: other.id,
        otherId: null,
        otherName: other.name,
      };
    }
    this.people.add(me);
    this.firstRow.set(me.id, row);
    if (verdict.how === 'doubt' && other)
      return {
        ...base,
        kind: 'perhaps',
        why: `perhaps ${other.name} (${verdict.comparison?.confidence.toFixed(2) ?? ''})`,
        personId: me.id,
        otherId: other.id,
        otherName: other.name,
      };
    return {
      ...base,
      kind: 'new',
      why: base.newCompany ? 'with a new company' : base.companyId === null ? 'without a company' : 'company known',
      personId: me.id,
      otherId: null,
      otherName: null,
    };
  }

  /** A company without anybody who works there. */
  private planCompany(row: number, { id, fresh, verdict, other }: Place): RowPlan {
    if (fresh) {
      this.companies.add(fresh);
      this.firstRow.set(fresh.id, row);
    }
    const base = { row, personId: null, companyId: id, newCompany: fresh !== undefined, otherId: null, otherName: null };
    if (!fresh) {
      const inFile = this.firstRow.get(id ?? '');
      const why = inFile === undefined ? `joined by ${verdict ? mainEvidence(verdict) : 'name'}` : `same as row ${inFile}`;
      return { ...base, kind: 'known', why, otherName: other?.name ?? null };
    }
    if (verdict?.how === 'doubt' && other) {
      const why = `perhaps ${other.name} (${verdict.comparison?.confidence.toFixed(2) ?? ''})`;
      const doubt = verdict.comparison ?? { confidence: 0, evidence: [] };
      return { ...base, kind: 'perhaps', why, otherId: other.id, otherName: other.name, doubt };
    }
    return { ...base, kind: 'new', why: 'not in the CRM' };
  }
}

/** Plans all rows at once. */
export function planRows(
  readings: readonly { readonly row: number; readonly reading: RowReading }[],
  known: Known,
  options: PlanOptions,
): readonly RowPlan[] {
  const planner = new RowPlanner(options);
  planner.know(known);
  return readings.map(({ row, reading }) => planner.plan(row, reading));
}

interface Place {
  readonly id: string | null;
  readonly name: string | null;
  /** set when the company is not known yet */
  readonly fresh: ReadyCompany | undefined;
  /** what it was taken for, and by what */
  readonly verdict: Verdict | undefined;
  /** the one it is, or may be */
  readonly other: ReadyCompany | undefined;
}

/** A known person's own company speaks for itself when the row names it, even where the name alone would be too little. */
function ofKnownPerson(place: Place, person: MatchPerson): Place {
  const sameName = place.name !== null && person.companyName !== null && companyName(place.name) === companyName(person.companyName);
  return place.fresh && person.companyId !== null && sameName ? { ...place, id: person.companyId, fresh: undefined } : place;
}

function placeCompany(row: number, reading: RowReading, pool: Pool<ReadyCompany>, options: PlanOptions): Place {
  const { company } = reading.record;
  const name = text(company.name) ?? text(company.website);
  if (name === null) return { id: null, name: null, fresh: undefined, verdict: undefined, other: undefined };
  const me = readyCompany({
    id: stableId('import', options.importId, String(row), 'company'),
    name,
    website: text(company.website),
    phone: text(company.phone),
    city: text(company.city),
    country: text(company.country),
  });
  const judge = (strong: boolean): Verdict =>
    judgeMatch(
      pool.near(me, strong).map((other) => ({ ...compareReadyCompanies(me, other), otherId: other.id })),
      options.askAbove,
      options.sameAbove,
    );
  // Who shares site or number is looked at first: when that settles it, the many with a like name need not be compared.
  const first = judge(true);
  const near = pool.near(me);
  const judged = first.how === 'same' ? first : judge(false);
  const called = judged.how !== 'same' && reading.record.standing.deal !== null ? onlyOneCalled(me, near) : undefined;
  const verdict: Verdict = called ? { ...judged, how: 'same', otherId: called.id } : judged;
  const other = near.find((entry) => entry.id === verdict.otherId);
  return verdict.how === 'same'
    ? { id: verdict.otherId, name, fresh: undefined, verdict, other }
    : { id: me.id, name, fresh: me, verdict, other };
}

/**
 * A list of deals names its companies over and over, mostly by their name alone: the only one that is called exactly so is meant,
 * unless site, place or country say otherwise.
 */
function onlyOneCalled(me: ReadyCompany, near: readonly ReadyCompany[]): ReadyCompany | undefined {
  const differs = (one: string | null, other: string | null): boolean => one !== null && other !== null && one !== other;
  const called = near.filter((other) => other.plainName === me.plainName);
  const [only] = called;
  if (called.length !== 1 || !only) return undefined;
  return differs(me.site, only.site) || differs(me.place, only.place) || differs(me.country, only.country) ? undefined : only;
}

function mainEvidence(verdict: Verdict): string {
  const strongest = [...(verdict.comparison?.evidence ?? [])].sort((a, b) => b.weight - a.weight)[0];
  return strongest?.field ?? 'name';
}
