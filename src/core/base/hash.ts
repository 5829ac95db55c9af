/**
 * 128-bit non-cryptographic hash (cyrb-style multiply-xor mixing, four lanes), as 32 hex digits.
 * Used for ids that must come out the same when the same decision is replayed; never for secrets.
 */
export function stableHash(text: string): string {
  const [a, b, c, d] = mix(text);
  return [a ^ b ^ c ^ d, b ^ a, c ^ a, d ^ a].map(hex).join('');
}

/** The first digits of the hash, at most eight, for many short names. */
export function shortHash(text: string, digits = 8): string {
  const [a, b, c, d] = mix(text);
  return ((a ^ b ^ c ^ d) >>> (32 - 4 * digits)).toString(16).padStart(digits, '0');
}

const hex = (lane: number): string => (lane >>> 0).toString(16).padStart(8, '0');

function mix(text: string): readonly [number, number, number, number] {
  let a = 1779033703,
    b = 3144134277,
    c = 1013904242,
    d = 2773480762;
  for (let i = 0; i < text.length; i++) {
    const k = text.charCodeAt(i);
    a = b ^ Math.imul(a ^ k, 597399067);
    b = c ^ Math.imul(b ^ k, 2869860233);
    c = d ^ Math.imul(c ^ k, 951274213);
    d = a ^ Math.imul(d ^ k, 2716044179);
  }
  a = Math.imul(c ^ (a >>> 18), 597399067);
  b = Math.imul(d ^ (b >>> 22), 2869860233);
  c = Math.imul(a ^ (c >>> 17), 951274213);
  d = Math.imul(b ^ (d >>> 19), 2716044179);
  return [a, b, c, d];
}

/** The hash in the shape of a UUID (version 8: custom), so that the database's `uuid` type takes it. */
export function stableId(...parts: readonly string[]): string {
  const h = stableHash(parts.join('\u0000'));
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-8${h.slice(13, 16)}-a${h.slice(17, 20)}-${h.slice(20, 32)}`;
}
