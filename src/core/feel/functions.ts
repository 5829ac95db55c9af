import type { FeelValue } from './value';

export interface FeelFunction {
  readonly takes: readonly ('string' | 'number' | 'boolean' | 'list' | 'any')[];
  /** may be given any number of the last argument */
  readonly many?: boolean;
  readonly gives: 'string' | 'number' | 'boolean' | 'any';
  readonly run: (args: readonly FeelValue[]) => FeelValue;
}

const text = (value: FeelValue | undefined): string | undefined => (typeof value === 'string' ? value : undefined);
const number = (value: FeelValue | undefined): number | undefined =>
  typeof value === 'number' && Number.isFinite(value) ? value : undefined;
const list = (value: FeelValue | undefined): readonly FeelValue[] | undefined =>
  Array.isArray(value) ? (value as readonly FeelValue[]) : undefined;

function texts(run: (a: string, b: string) => FeelValue): FeelFunction['run'] {
  return ([a, b]) => {
    const [left, right] = [text(a), text(b)];
    return left === undefined || right === undefined ? null : run(left, right);
  };
}

function ofText(run: (a: string) => FeelValue): FeelFunction['run'] {
  return ([a]) => {
    const value = text(a);
    return value === undefined ? null : run(value);
  };
}

function ofNumber(run: (a: number) => number): FeelFunction['run'] {
  return ([a]) => {
    const value = number(a);
    return value === undefined ? null : run(value);
  };
}

function numbersOf(args: readonly FeelValue[]): number[] | undefined {
  const items = args.length === 1 ? (list(args[0]) ?? args) : args;
  const out = items.map(number);
  return out.length > 0 && out.every((value) => value !== undefined) ? out : undefined;
}

function ofNumbers(run: (values: readonly number[]) => number): FeelFunction['run'] {
  return (args) => {
    const values = numbersOf(args);
    return values === undefined ? null : run(values);
  };
}

/** DMN 1.4, table 72 ff.: wrong or missing arguments give null. */
export const FUNCTIONS: Readonly<Record<string, FeelFunction>> = {
  not: { takes: ['boolean'], gives: 'boolean', run: ([a]) => (typeof a === 'boolean' ? !a : null) },
  contains: { takes: ['string', 'string'], gives: 'boolean', run: texts((a, b) => a.includes(b)) },
  'starts with': { takes: ['string', 'string'], gives: 'boolean', run: texts((a, b) => a.startsWith(b)) },
  'ends with': { takes: ['string', 'string'], gives: 'boolean', run: texts((a, b) => a.endsWith(b)) },
  'upper case': { takes: ['string'], gives: 'string', run: ofText((a) => a.toUpperCase()) },
  'lower case': { takes: ['string'], gives: 'string', run: ofText((a) => a.toLowerCase()) },
  'string length': { takes: ['string'], gives: 'number', run: ofText((a) => [...a].length) },
  string: {
    takes: ['any'],
    gives: 'string',
    run: ([a]) => (typeof a === 'string' || typeof a === 'number' || typeof a === 'boolean' ? String(a) : null),
  },
  number: { takes: ['string'], gives: 'number', run: ofText((a) => (a.trim() !== '' && Number.isFinite(Number(a)) ? Number(a) : null)) },
  abs: { takes: ['number'], gives: 'number', run: ofNumber(Math.abs) },
  floor: { takes: ['number'], gives: 'number', run: ofNumber(Math.floor) },
  ceiling: { takes: ['number'], gives: 'number', run: ofNumber(Math.ceil) },
  min: { takes: ['any'], many: true, gives: 'number', run: ofNumbers((values) => Math.min(...values)) },
  max: { takes: ['any'], many: true, gives: 'number', run: ofNumbers((values) => Math.max(...values)) },
  sum: { takes: ['any'], many: true, gives: 'number', run: ofNumbers((values) => values.reduce((a, b) => a + b, 0)) },
  count: { takes: ['list'], gives: 'number', run: ([a]) => list(a)?.length ?? null },
  'list contains': { takes: ['list', 'any'], gives: 'boolean', run: ([a, b]) => list(a)?.includes(b ?? null) ?? null },
};
