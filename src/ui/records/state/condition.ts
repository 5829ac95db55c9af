import type { Catalogue } from '../../../core/fields';
import { readCondition } from '../../../core/flow/check';
import { sayFeel } from '../../../core/flow/say';

export type About = 'person' | 'company';

/** What a typed condition means, in words, or what is wrong with it. An empty text asks nothing. */
export type ConditionReading =
  | { readonly kind: 'nothing' }
  | { readonly kind: 'means'; readonly says: string }
  | { readonly kind: 'wrong'; readonly says: string; readonly part: string };

export function readTyped(text: string, about: About, fields: Catalogue): ConditionReading {
  const typed = text.trim();
  if (typed === '') return { kind: 'nothing' };
  const read = readCondition(typed, about, fields);
  if (read.ok) return { kind: 'means', says: sayFeel(read.expr, fields) };
  const [problem] = read.problems;
  return {
    kind: 'wrong',
    says: problem?.message ?? 'this cannot be read',
    part: typed.slice(problem?.from ?? 0, problem?.to ?? typed.length),
  };
}

export interface FieldOption {
  readonly name: string;
  readonly label: string;
  readonly sample: string;
}

const MOST = 8;
const WORD = /[a-z_][a-z0-9_.]{0,200}$/i;

/** Fields that begin as the word before the caret does, or whose label holds it; none while a text in quotes is open. */
export function optionsAt(text: string, caret: number, about: About, fields: Catalogue): readonly FieldOption[] {
  const before = text.slice(0, caret);
  if ((before.match(/"/g)?.length ?? 0) % 2 === 1) return [];
  const word = WORD.exec(before)?.[0].toLowerCase() ?? '';
  if (word === '' && before.trim() !== '' && !/(?:and|or|\()\s*$/.test(before)) return [];
  const own = fields.all(about).map((field) => ({ name: field.key, field }));
  const firm = about === 'person' ? fields.all('company').map((field) => ({ name: `company.${field.key}`, field })) : [];
  return [...own, ...firm]
    .filter(({ name, field }) => name !== word && (name.startsWith(word) || (word.length > 2 && field.label.includes(word))))
    .slice(0, MOST)
    .map(({ name, field }) => ({ name, label: field.label, sample: `${field.sample}${field.unit ? ` ${field.unit}` : ''}` }));
}

/** The text with the word before the caret replaced by a field's name, and where the caret is then. */
export function takeOption(text: string, caret: number, name: string): { readonly text: string; readonly caret: number } {
  const before = text.slice(0, caret).replace(WORD, '');
  return { text: `${before}${name} ${text.slice(caret).trimStart()}`, caret: before.length + name.length + 1 };
}
