import { companyName, companySite, personName } from './normalise';
import { jaroWinkler } from './similarity';

/** Addresses and numbers a person is found by; numbers in E.164. */
export interface Reach {
  readonly email: string | null;
  readonly otherEmail: string | null;
  readonly phone: string | null;
  readonly mobile: string | null;
}
/** Those among a person's values, by field. */
export function reachOf(values: Readonly<Record<string, unknown>>): Reach {
  const text = (value: unknown): string | null => (typeof value === 'string' && value !== '' ? value : null);
  return { email: text(values.email), otherEmail: text(values.other_email), phone: text(values.phone), mobile: text(values.mobile) };
}

export interface MatchPerson extends Reach {
  readonly id: string;
  readonly name: string;
  readonly companyId: string | null;
  readonly companyName: string | null;
}

export interface MatchCompany {
  readonly id: string;
  readonly name: string;
  readonly website: string | null;
  readonly phone: string | null;
  readonly city: string | null;
  readonly country: string | null;
}

/** One field's part in the judgement; `weight` in bits, positive for "same" (Fellegi–Sunter log₂ m/u). */
export interface Evidence {
  readonly field: string;
  readonly ours: string;
  readonly theirs: string;
  readonly agrees: 'yes' | 'partly' | 'no';
  readonly weight: number;
}

export interface Comparison {
  /** probability that the two are the same, 0 to 1 */
  readonly confidence: number;
  readonly evidence: readonly Evidence[];
}

export interface Verdict {
  readonly how: 'new' | 'same' | 'doubt';
  readonly otherId: string | null;
  readonly comparison: Comparison | null;
}

/**
 * Weights in bits: log₂(m/u) from rounded guesses of how often a field agrees within the same (m) and within different
 * (u) records. Learned weights replace them when the linkage learns from decisions. `prior` is log₂ of the odds before any evidence.
 */
const PERSON = {
  prior: -8,
  email: [14, -2],
  phone: [10, -1],
  nameSame: 9,
  nameClose: 6,
  nameNear: 2,
  nameOther: -9,
  company: [5, -3],
} as const;
const COMPANY = {
  prior: -7,
  site: [13, -4],
  phone: [9, -1],
  nameSame: 10,
  nameClose: 6,
  nameNear: 2,
  nameOther: -7,
  city: [2, -2],
  country: [0, -5],
} as const;

function decide(prior: number, evidence: readonly (Evidence | undefined)[]): Comparison {
  const kept = evidence.filter((entry) => entry !== undefined);
  const bits = kept.reduce((sum, entry) => sum + entry.weight, prior);
  return { confidence: Math.round((1 / (1 + 2 ** -bits)) * 10_000) / 10_000, evidence: kept };
}

function exact(
  field: string,
  ours: string | null,
  theirs: string | null,
  [agree, disagree]: readonly [number, number],
): Evidence | undefined {
  if (ours === null || theirs === null || ours === '' || theirs === '') return undefined;
  const same = ours === theirs;
  return { field, ours, theirs, agrees: same ? 'yes' : 'no', weight: same ? agree : disagree };
}

const some = (...values: readonly (string | null)[]): readonly string[] =>
  values.filter((value) => value !== null && value !== '') as string[];
/** One of ours that is theirs too, else the first of each; undefined where one side has none. */
function inCommon(ours: readonly string[], theirs: readonly string[]): readonly [string, string] | undefined {
  const both = ours.find((value) => theirs.includes(value));
  const [mine, other] = [both ?? ours[0], both ?? theirs[0]];
  return mine === undefined || other === undefined ? undefined : [mine, other];
}
/** Whichever of several addresses or numbers is the same. */
function shared(
  field: string,
  ours: readonly string[],
  theirs: readonly string[],
  weights: readonly [number, number],
): Evidence | undefined {
  const pair = inCommon(ours, theirs);
  return pair && exact(field, pair[0], pair[1], weights);
}

interface NameWeights {
  readonly nameSame: number;
  readonly nameClose: number;
  readonly nameNear: number;
  readonly nameOther: number;
}

function graded(field: string, ours: string, theirs: string, similarity: number, weights: NameWeights): Evidence {
  const [agrees, weight] =
    similarity >= 0.999
      ? (['yes', weights.nameSame] as const)
      : similarity >= 0.93
        ? (['partly', weights.nameClose] as const)
        : similarity >= 0.85
          ? (['partly', weights.nameNear] as const)
          : (['no', weights.nameOther] as const);
  return { field, ours, theirs, agrees, weight };
}

/**
 * Likeness of two names: given and family name must both be alike, straight or turned round, so that colleagues who share
 * one of them are not taken for one person. An initial agrees with any first name that begins with it, but only partly.
 */
function nameLikeness(xs: readonly string[], ys: readonly string[]): number {
  if (xs.length < 2 || ys.length < 2) return xs.join(' ') === ys.join(' ') ? 1 : jaroWinkler(xs.join(' '), ys.join(' ')) * 0.9;
  const [firstX = '', firstY = '', lastX = '', lastY = ''] = [xs[0], ys[0], xs.at(-1), ys.at(-1)];
  if ((firstX.length === 1 || firstY.length === 1) && firstX[0] === firstY[0]) return Math.min(0.95, jaroWinkler(lastX, lastY));
  return Math.max(bothAlike(firstX, firstY, lastX, lastY), bothAlike(firstX, lastY, lastX, firstY));
}

const PART_ALIKE = 0.86;
function bothAlike(a: string, b: string, c: string, d: string): number {
  const [one, other] = [jaroWinkler(a, b), jaroWinkler(c, d)];
  const worse = Math.min(one, other);
  return worse < PART_ALIKE ? worse * 0.8 : (one + other) / 2;
}

/** A person with what comparing needs made once: normalising costs more than comparing, and a list compares each one many times. */
export interface ReadyPerson extends MatchPerson {
  readonly nameParts: readonly string[];
  readonly firm: string | null;
  readonly addresses: readonly string[];
  readonly numbers: readonly string[];
}
export function readyPerson(person: MatchPerson): ReadyPerson {
  return {
    ...person,
    nameParts: personName(person.name).split(' '),
    addresses: some(person.email, person.otherEmail),
    numbers: some(person.phone, person.mobile),
    firm: person.companyName === null ? null : companyName(person.companyName),
  };
}

export function comparePeople(a: MatchPerson, b: MatchPerson): Comparison {
  return compareReadyPeople(readyPerson(a), readyPerson(b));
}

export function compareReadyPeople(a: ReadyPerson, b: ReadyPerson): Comparison {
  const sameFirm = a.companyId !== null && a.companyId === b.companyId;
  const firm = a.firm === null || b.firm === null ? undefined : sameFirm ? 1 : jaroWinkler(a.firm, b.firm);
  return decide(PERSON.prior, [
    shared('e-mail', a.addresses, b.addresses, PERSON.email),
    shared('phone', a.numbers, b.numbers, PERSON.phone),
    graded('name', a.name, b.name, nameLikeness(a.nameParts, b.nameParts), PERSON),
    firm === undefined
      ? undefined
      : {
          field: 'company',
          ours: a.companyName ?? '',
          theirs: b.companyName ?? '',
          agrees: firm >= 0.999 ? 'yes' : firm >= 0.92 ? 'partly' : 'no',
          weight: firm >= 0.999 ? PERSON.company[0] : firm >= 0.92 ? PERSON.company[0] - 2 : PERSON.company[1],
        },
  ]);
}

/**
 * The most that two people's confidence could be, found without comparing their names: what lies below the bar for asking
 * need not be compared at all. Never less than what `compareReadyPeople` gives.
 */
export function confidenceAtMost(a: ReadyPerson, b: ReadyPerson): number {
  const field = (ours: readonly string[], theirs: readonly string[], [agree, disagree]: readonly [number, number]): number => {
    const pair = inCommon(ours, theirs);
    return pair === undefined ? 0 : pair[0] === pair[1] ? agree : disagree;
  };
  let bits = PERSON.prior + PERSON.nameSame + field(a.addresses, b.addresses, PERSON.email) + field(a.numbers, b.numbers, PERSON.phone);
  if (a.firm !== null && b.firm !== null) {
    const alike = a.firm === b.firm || (a.companyId !== null && a.companyId === b.companyId) || jaroWinkler(a.firm, b.firm) >= 0.92;
    bits += alike ? PERSON.company[0] : PERSON.company[1];
  }
  return 1 / (1 + 2 ** -bits);
}

/** A company with what comparing needs made once. */
export interface ReadyCompany extends MatchCompany {
  readonly site: string | null;
  readonly plainName: string;
  readonly place: string | null;
}
export function readyCompany(company: MatchCompany): ReadyCompany {
  return {
    ...company,
    site: companySite(company.website),
    plainName: companyName(company.name),
    place: company.city?.toLowerCase() ?? null,
  };
}

export function compareCompanies(a: MatchCompany, b: MatchCompany): Comparison {
  return compareReadyCompanies(readyCompany(a), readyCompany(b));
}

export function compareReadyCompanies(a: ReadyCompany, b: ReadyCompany): Comparison {
  return decide(COMPANY.prior, [
    exact('site', a.site, b.site, COMPANY.site),
    exact('phone', a.phone, b.phone, COMPANY.phone),
    graded('name', a.name, b.name, jaroWinkler(a.plainName, b.plainName), COMPANY),
    exact('place', a.place, b.place, COMPANY.city),
    exact('country', a.country, b.country, COMPANY.country),
  ]);
}

/** The likeliest of the candidates, judged by the two bars. */
export function judgeMatch(
  candidates: readonly (Comparison & { readonly otherId: string })[],
  askAbove: number,
  sameAbove: number,
): Verdict {
  let best: (Comparison & { readonly otherId: string }) | undefined;
  for (const entry of candidates)
    if (best === undefined || entry.confidence > best.confidence || (entry.confidence === best.confidence && entry.otherId < best.otherId))
      best = entry;
  if (best === undefined || best.confidence < askAbove) return { how: 'new', otherId: null, comparison: best ?? null };
  return { how: best.confidence >= sameAbove ? 'same' : 'doubt', otherId: best.otherId, comparison: best };
}

/** First consonants of a word: survives most typos of vowels and doubled letters. */
const skeleton = (word: string): string =>
  (
    word.slice(0, 1) +
    word
      .slice(1)
      .replace(/[aeiouyhw]/g, '')
      .replace(/(.)\1+/g, '$1')
  ).slice(0, 4);

/** Blocking keys: two records are compared only when they share one. */
export function personKeys(person: Reach & { readonly name: string }): readonly string[] {
  const parts = personName(person.name)
    .split(' ')
    .filter((part) => part !== '');
  const [first = '', last = ''] = [parts[0], parts.at(-1)];
  return [
    ...[...new Set(some(person.email, person.otherEmail))].map((email) => `e:${email}`),
    ...[...new Set(some(person.phone, person.mobile))].map((phone) => `p:${phone}`),
    ...(parts.length > 1 ? [`n:${skeleton(last)}:${first.slice(0, 1)}`, `n:${skeleton(first)}:${last.slice(0, 1)}`] : []),
  ];
}

export function companyKeys(company: Pick<MatchCompany, 'name' | 'website' | 'phone'>): readonly string[] {
  const host = companySite(company.website);
  const name = companyName(company.name);
  const parts = name.split(' ');
  return [
    ...(host ? [`s:${host}`] : []),
    ...(company.phone ? [`p:${company.phone}`] : []),
    ...(name === ''
      ? []
      : [`n:${skeleton(parts[0] ?? '')}`, ...(parts[1] ? [`m:${skeleton(parts[1])}:${(parts[0] ?? '').slice(0, 1)}`] : [])]),
  ];
}
