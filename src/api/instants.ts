/** Where in an answer moments stand, as `items.*.createdAt`: `*` is every item of a list and every value of a record. */
export type InstantPath = string;

/** ISO 8601 as JavaScript writes it; another text at the same place (of another kind of the same answer) stays as it is. */
const WRITTEN = /^\d{4}-\d\d-\d\dT[\d:.]+Z$/;

/** An answer as it came, with its moments in milliseconds. */
export function withInstants(answer: unknown, paths: readonly InstantPath[]): unknown {
  return paths.reduce((value, path) => readAt(value, path === '' ? [] : path.split('.')), answer);
}

function readAt(value: unknown, [step, ...rest]: readonly string[]): unknown {
  if (step === undefined) return typeof value === 'string' && WRITTEN.test(value) ? Date.parse(value) : value;
  if (typeof value !== 'object' || value === null) return value;
  if (Array.isArray(value)) return step === '*' ? value.map((item) => readAt(item, rest)) : value;
  if (step === '*') return Object.fromEntries(Object.entries(value).map(([name, inner]) => [name, readAt(inner, rest)]));
  return step in value ? { ...value, [step]: readAt((value as Record<string, unknown>)[step], rest) } : value;
}
