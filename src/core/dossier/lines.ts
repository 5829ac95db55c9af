import { SOURCE_LABELS, type Fact } from '../facts';
import { printValue } from '../fields';
import type { DossierLine } from './dossier';

export const line = (more: Partial<DossierLine> & { readonly text: string }): DossierLine => ({
  label: '',
  quote: null,
  url: null,
  source: null,
  date: null,
  confidence: null,
  others: [],
  ...more,
});

/** A fact as a line: its value in words, with what it rests on. */
export function ofFact(fact: Fact, label: string, text: string, others: readonly Fact[], unit?: string): DossierLine {
  return line({
    label,
    text,
    quote: fact.quote ?? null,
    url: fact.url ?? null,
    source: fact.source,
    date: fact.observedAt,
    confidence: fact.confidence,
    others: others.map((other) => `${printValue(other.value, unit)} (${SOURCE_LABELS[other.source]})`),
  });
}
