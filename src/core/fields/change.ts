import { convert, unitOf } from '../units';
import type { Field, FactValue } from './field';
import { checkTyped, printValue } from './typed';

/** What becomes of the figures when a field's unit changes: told in the new one, or left as they are because the unit was wrong. */
export type Figures = 'convert' | 'keep';

/**
 * A value of one field as a value of another, or of the same field with another type or unit. Undefined where it has none:
 * such a value is kept aside, never written over.
 */
export function valueAs(from: Field, to: Field, value: FactValue, figures: Figures = 'convert'): FactValue | undefined {
  if (value === null) return null;
  if (typeof value === 'number' && figures === 'convert' && from.unit !== undefined && to.unit !== undefined && from.unit !== to.unit) {
    const [was, now] = [unitOf(from.unit), unitOf(to.unit)];
    const told = was && now ? convert(value, was, now) : undefined;
    return told === undefined ? undefined : taken(to, told);
  }
  if (typeof value === 'number' && (to.type === 'number' || to.type === 'money' || to.type === 'year')) return taken(to, value);
  if (typeof value === 'boolean' && to.type === 'yes/no') return value;
  return taken(to, typeof value === 'string' ? value : printValue(value, from.unit));
}

function taken(to: Field, value: FactValue): FactValue | undefined {
  const reading = checkTyped(to, value);
  return reading.ok && reading.value !== null ? reading.value : undefined;
}

/** Whether a text speaks of a field by its name in flows: conditions, questions, slots and matchings all do. */
export const speaksOf = (text: string, key: string): boolean => new RegExp(`(?<!\\w)${key}(?!\\w)`).test(text);
