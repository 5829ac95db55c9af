import { stableHash } from '../core/base';

export const PERSONA_KINDS = ['silent', 'yes', 'price', 'away', 'bounce', 'unsubscribe', 'later', 'elsewhere', 'complains'] as const;
export type PersonaKind = (typeof PERSONA_KINDS)[number];

/** How a stand-in recipient behaves: what they answer and after how long. */
export interface Persona {
  readonly kind: PersonaKind;
  readonly afterMs: number;
  readonly text: string;
}

const HOUR = 3_600_000;
/** What recipients of each kind write, as the world has it. */
export type PersonaWords = Readonly<Record<Exclude<PersonaKind, 'silent' | 'bounce' | 'complains'>, readonly string[]>>;
/** Shares of a hundred recipients. */
const SHARES: readonly (readonly [PersonaKind, number])[] = [
  ['silent', 46],
  ['yes', 16],
  ['price', 8],
  ['away', 8],
  ['later', 6],
  ['bounce', 6],
  ['unsubscribe', 6],
  ['elsewhere', 3],
  ['complains', 1],
];

/** A recipient's persona, from the address alone, or as `given` says. The same address always behaves the same. */
export function personaOf(address: string, given: ReadonlyMap<string, PersonaKind>, said: PersonaWords): Persona {
  const dice = Number.parseInt(stableHash(address.toLowerCase()).slice(0, 8), 16) / 0xffffffff;
  let left = dice * 100;
  const kind = given.get(address.toLowerCase()) ?? SHARES.find(([, part]) => (left -= part) < 0)?.[0] ?? 'silent';
  const pick = Number.parseInt(stableHash(`words ${address.toLowerCase()}`).slice(0, 4), 16);
  const words = kind === 'silent' || kind === 'bounce' || kind === 'complains' ? [] : said[kind];
  const afterMs = kind === 'bounce' ? 20_000 : kind === 'away' ? 30_000 : HOUR * (1 + (pick % 30));
  return { kind, afterMs, text: words[pick % Math.max(1, words.length)] ?? '' };
}
