/** A lookup chain as it is typed. */

/** A figure with a point or a comma; undefined where none is typed. */
export function amountIn(text: string): number | undefined {
  const amount = Number(text.trim().replace(',', '.'));
  return text.trim() === '' || !Number.isFinite(amount) || amount <= 0 ? undefined : amount;
}
/** Euros as they are typed, in millionths. */
export function microOf(text: string): number | undefined {
  const euros = Number(text.trim().replace(',', '.'));
  return text.trim() === '' || !Number.isFinite(euros) || euros < 0 ? undefined : Math.round(euros * 1_000_000);
}
/** A list in which one entry has gone a place up or down. */
export function moved<T>(list: readonly T[], at: number, by: -1 | 1): T[] {
  const out = [...list];
  const [entry] = out.splice(at, 1);
  if (entry !== undefined) out.splice(at + by, 0, entry);
  return out;
}
/** A whole number of calls at the same time, from 1 to 64. */
export function timesIn(text: string): number | undefined {
  const amount = amountIn(text);
  return amount === undefined ? undefined : Math.min(64, Math.max(1, Math.round(amount)));
}
