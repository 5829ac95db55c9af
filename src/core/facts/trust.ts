import { fold } from '../base';
import type { Fact, FactDraft, SourceKind } from './fact';

/**
 * How far a source is trusted, higher first. What people told us (CRM, file, form, API, reply) counts alike, so that
 * among those the newer one wins, and what is read out of their papers comes right behind; what was found and can be pointed
 * at counts more; a person counts most.
 */
const RANK: Record<SourceKind, number> = {
  hand: 100,
  confirmed: 90,
  register: 60,
  site: 60,
  news: 60,
  directory: 55,
  jobs: 50,
  lookup: 50,
  reply: 40,
  crm: 40,
  file: 40,
  form: 40,
  mail: 40,
  calendar: 40,
  api: 40,
  document: 39,
  flow: 30,
};

/** Sources whose order a business may choose for a field; what people set and confirm counts before all of them. */
export const ORDERABLE: readonly SourceKind[] = (Object.keys(RANK) as SourceKind[]).filter(
  (source) => source !== 'hand' && source !== 'confirmed',
);
const FIRST = RANK.confirmed - 1;

/** How far a field trusts a source: those it names come in that order right behind people, all others as usual (undefined). */
export function ownRankOf(order: readonly string[] | undefined, source: SourceKind): number | undefined {
  const at = order?.indexOf(source) ?? -1;
  return at < 0 || !ORDERABLE.includes(source) ? undefined : FIRST - at;
}
const rankOf = (fact: FactDraft): number => fact.ownRank ?? RANK[fact.source];

/** Facts less sure than this only win where nothing surer is known. */
const DOUBTFUL_BELOW = 0.5;

/** Order of trust: by hand > confirmed > the field's own order of sources > source rank > newer > surer. Facts that found nothing come last. Ties by id. */
export function byTrust<F extends FactDraft & { readonly id?: string }>(a: F, b: F): number {
  if ((a.value === null) !== (b.value === null)) return a.value === null ? 1 : -1;
  const unsure = Number(a.confidence < DOUBTFUL_BELOW) - Number(b.confidence < DOUBTFUL_BELOW);
  if (unsure !== 0) return unsure;
  const rank = rankOf(b) - rankOf(a);
  if (rank !== 0) return rank;
  if (a.observedAt !== b.observedAt) return b.observedAt - a.observedAt;
  if (a.confidence !== b.confidence) return b.confidence - a.confidence;
  return (a.id ?? '') < (b.id ?? '') ? -1 : 1;
}

/** The fact whose value the record shows, or undefined when there is none with a value. */
export function chooseCurrent<F extends FactDraft & { readonly id?: string }>(facts: readonly F[]): F | undefined {
  let best: F | undefined;
  for (const fact of facts) if (fact.value !== null && (best === undefined || byTrust(fact, best) < 0)) best = fact;
  return best;
}

/** A phone number, however it is parted and whether or not its country is said. */
const NUMBER = /^\+?[\d][\d ()/.-]{6,}\d$/;

/** The same thing said: whatever the case, the accents and the plural of a word. */
function sameSaid(a: Fact['value'], b: Fact['value']): boolean {
  if (typeof a !== 'string' || typeof b !== 'string') return a === b;
  if (NUMBER.test(a) && NUMBER.test(b)) {
    const [short = '', long = ''] = [a, b]
      .map((number) => number.replace(/\D/g, '').replace(/^0+/, ''))
      .sort((x, y) => x.length - y.length);
    return long.endsWith(short);
  }
  const plain = (text: string): string =>
    fold(text)
      .trim()
      .replace(/(?<=[a-z]{3})e?s$/, '');
  return plain(a) === plain(b);
}

/** Facts that say something else than the current one, best first: shown under it, never deleted. */
export function competing(facts: readonly Fact[]): readonly Fact[] {
  const current = chooseCurrent(facts);
  return facts.filter((fact) => fact.value !== null && current !== undefined && !sameSaid(fact.value, current.value)).sort(byTrust);
}
