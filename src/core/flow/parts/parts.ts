import { printDuration } from '../../base';
import type { Catalogue } from '../../fields';
import { clockText } from '../tree/notation';
import type { ClockTime, Expr, Named, Span, Wait, Word } from '../tree/tree';
import { sayFeel, sayPath } from './feel';

/** What kind of thing a part of a sentence is: it decides what may be put in its place. */
export type PartSlot =
  | 'condition'
  /** a text, a number or a day worked out */
  | 'formula'
  | 'number'
  | 'scorecard'
  | 'template'
  | 'plan'
  | 'chain'
  | 'team'
  | 'who'
  | 'pipeline'
  | 'stage'
  | 'opening'
  | 'document'
  | 'intake'
  | 'duration'
  | 'clock'
  | 'addressee'
  | 'webhook'
  | 'text';

/** One piece of a line as a person reads it. A part with a span can be changed in place: its text there is `source`. */
export interface Part {
  readonly text: string;
  readonly role: 'verb' | 'plain' | 'value' | 'clause';
  readonly edit?: Span & { readonly slot: PartSlot; readonly source: string; readonly quoted: boolean };
}

export const deed = (text: string): Part => ({ text, role: 'verb' });
export const plain = (text: string): Part => ({ text, role: 'plain' });
export const value = (text: string): Part => ({ text, role: 'value' });
export const named = (name: Named, slot: PartSlot, text = name.text): Part => ({
  text,
  role: 'value',
  edit: { from: name.from, to: name.to, slot, source: name.text, quoted: true },
});
/** `as name`, or nothing. */
export const asName = (name: Word | undefined): readonly Part[] => (name ? [plain('as'), value(name.text)] : []);
const feel = (expr: Expr, slot: 'condition' | 'formula', fields: Catalogue): Part => ({
  text: expr.parsed.expr ? sayFeel(expr.parsed.expr, fields) : expr.parsed.text || '…',
  role: 'value',
  edit: { from: expr.from, to: expr.to, slot, source: expr.parsed.text, quoted: false },
});
export const condition = (expr: Expr, fields: Catalogue): Part => feel(expr, 'condition', fields);
export const formula = (expr: Expr, fields: Catalogue): Part => feel(expr, 'formula', fields);
/** A figure that can be changed in place. */
export const figure = (amount: Span & { readonly value: number }, text: string, source = text): Part => ({
  text,
  role: 'value',
  edit: { from: amount.from, to: amount.to, slot: 'number', source, quoted: false },
});

export const length = (wait: Wait): Part => ({
  text: printDuration(wait.duration),
  role: 'value',
  edit: { from: wait.from, to: wait.to, slot: 'duration', source: printDuration(wait.duration), quoted: false },
});
export const clock = (time: ClockTime): Part => ({
  text: clockText(time.minute),
  role: 'value',
  edit: { from: time.from, to: time.to, slot: 'clock', source: clockText(time.minute), quoted: false },
});

/** A field's name as a line writes it (`status`, `company.size`), in words. */
export const fieldWords = (path: string, fields: Catalogue): string => {
  const words = sayPath(path.split('.'), fields);
  return words === path ? path.replace('email', 'e-mail').replace('.', ' ').replace(/_/g, ' ') : words;
};
