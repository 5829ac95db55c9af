import type { FactValue } from '../../fields';

/** One value out of a document with the words it rests on; `quote` null: it is not said. */
export interface Picked {
  readonly value: FactValue;
  readonly quote: string | null;
  /** 0 to 1 */
  readonly confidence: number;
}

const QUOTE_MAX = 300;

export const picked = (value: string | number | boolean, quote: string, confidence: number): Picked => ({
  value,
  quote: quote.length > QUOTE_MAX ? `${quote.slice(0, QUOTE_MAX - 1)}…` : quote,
  confidence,
});
export const nothing = (): Picked => ({ value: null, quote: null, confidence: 0 });
