/**
 * Between what shares the true one lies nineteen times in twenty, from hits of so many (Wilson, “Probable inference”, 1927). Shares of 0 to 1;
 * of none the whole range.
 */
export function shareInterval(hits: number, of: number): readonly [from: number, to: number] {
  if (of === 0) return [0, 1];
  const z = 1.96;
  const share = hits / of;
  const middle = (share + (z * z) / (2 * of)) / (1 + (z * z) / of);
  const half = (z * Math.sqrt((share * (1 - share)) / of + (z * z) / (4 * of * of))) / (1 + (z * z) / of);
  return [Math.max(0, middle - half), Math.min(1, middle + half)];
}
