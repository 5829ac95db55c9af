/** Jaro similarity with Winkler's prefix bonus (p = 0.1, at most 4 letters); 1 is equal, 0 has nothing in common. */
export function jaroWinkler(a: string, b: string): number {
  if (a === b) return a === '' ? 0 : 1;
  const reach = Math.max(0, Math.floor(Math.max(a.length, b.length) / 2) - 1);
  const taken = new Array<boolean>(b.length).fill(false);
  const inA: string[] = [];
  for (let i = 0; i < a.length; i++) {
    for (let j = Math.max(0, i - reach); j < Math.min(b.length, i + reach + 1); j++) {
      if (taken[j] || a[i] !== b[j]) continue;
      taken[j] = true;
      inA.push(a[i] ?? '');
      break;
    }
  }
  const m = inA.length;
  if (m === 0) return 0;
  const inB = [...b].filter((_, j) => taken[j]);
  const transposed = inA.filter((letter, i) => letter !== inB[i]).length / 2;
  const jaro = (m / a.length + m / b.length + (m - transposed) / m) / 3;
  let prefix = 0;
  while (prefix < 4 && a[prefix] !== undefined && a[prefix] === b[prefix]) prefix++;
  return jaro + prefix * 0.1 * (1 - jaro);
}
