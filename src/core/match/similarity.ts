/** Letters of both names that are taken already: made once, since a list compares millions of pairs. */
let takenA = new Uint8Array(64);
let takenB = new Uint8Array(64);

/** Jaro similarity with Winkler's prefix bonus (p = 0.1, at most 4 letters); 1 is equal, 0 has nothing in common. */
export function jaroWinkler(a: string, b: string): number {
  if (a === b) return a === '' ? 0 : 1;
  const [lengthA, lengthB] = [a.length, b.length];
  if (lengthA > takenA.length) takenA = new Uint8Array(lengthA * 2);
  if (lengthB > takenB.length) takenB = new Uint8Array(lengthB * 2);
  takenA.fill(0, 0, lengthA);
  takenB.fill(0, 0, lengthB);
  const reach = Math.max(0, Math.floor(Math.max(lengthA, lengthB) / 2) - 1);
  let m = 0;
  for (let i = 0; i < lengthA; i++) {
    const letter = a.charCodeAt(i);
    const end = Math.min(lengthB, i + reach + 1);
    for (let j = Math.max(0, i - reach); j < end; j++) {
      if (takenB[j] === 1 || letter !== b.charCodeAt(j)) continue;
      takenA[i] = 1;
      takenB[j] = 1;
      m++;
      break;
    }
  }
  if (m === 0) return 0;
  let crossed = 0;
  for (let i = 0, j = 0; i < lengthA; i++) {
    if (takenA[i] !== 1) continue;
    while (takenB[j] !== 1) j++;
    if (a.charCodeAt(i) !== b.charCodeAt(j)) crossed++;
    j++;
  }
  const jaro = (m / lengthA + m / lengthB + (m - crossed / 2) / m) / 3;
  let prefix = 0;
  while (prefix < 4 && prefix < lengthA && a.charCodeAt(prefix) === b.charCodeAt(prefix)) prefix++;
  return jaro + prefix * 0.1 * (1 - jaro);
}
