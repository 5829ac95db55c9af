import { stableHash } from '../core/base';

export type PersonaKind = 'silent' | 'yes' | 'price' | 'away' | 'bounce' | 'unsubscribe' | 'later' | 'elsewhere';

/** How a stand-in recipient behaves: what they answer and after how long. */
export interface Persona {
  readonly kind: PersonaKind;
  readonly afterMs: number;
  readonly text: string;
}

const HOUR = 3_600_000;
const WORDS: Readonly<Record<Exclude<PersonaKind, 'silent' | 'bounce'>, readonly string[]>> = {
  yes: [
    'Thursday after three would suit. Could you bring figures for the two old bays first?',
    'Sounds good, we were talking about exactly this last week. Call me tomorrow morning.',
    'Yes, please send me more on the screens. Friday would suit for a call.',
  ],
  price: [
    'Thanks. The numbers may look fine but honestly the price is above what I can put in front of the board before spring.',
    'We have seen your offer at the fair: too expensive for a site of our size.',
  ],
  away: [
    'I am out of the office until 2 December. For urgent matters please call the nursery.',
    'Ich bin bis 1 December abwesend und danach wieder erreichbar.',
  ],
  unsubscribe: ['Please take me off your list.', 'Unsubscribe, thank you.'],
  later: ['Not now, we are in the middle of planting. Ask me again in spring.', 'Perhaps next year.'],
  elsewhere: ['We already work with another supplier for this.'],
};
/** Shares of a hundred recipients. */
const SHARES: readonly (readonly [PersonaKind, number])[] = [
  ['silent', 46],
  ['yes', 16],
  ['price', 8],
  ['away', 8],
  ['later', 6],
  ['bounce', 6],
  ['unsubscribe', 6],
  ['elsewhere', 4],
];

/** A recipient's persona, from the address alone, or as `given` says. The same address always behaves the same. */
export function personaOf(address: string, given: ReadonlyMap<string, PersonaKind>): Persona {
  const dice = Number.parseInt(stableHash(address.toLowerCase()).slice(0, 8), 16) / 0xffffffff;
  let left = dice * 100;
  const kind = given.get(address.toLowerCase()) ?? SHARES.find(([, part]) => (left -= part) < 0)?.[0] ?? 'silent';
  const pick = Number.parseInt(stableHash(`words ${address.toLowerCase()}`).slice(0, 4), 16);
  const words = kind === 'silent' || kind === 'bounce' ? [] : WORDS[kind];
  const afterMs = kind === 'bounce' ? 20_000 : kind === 'away' ? 30_000 : HOUR * (1 + (pick % 30));
  return { kind, afterMs, text: words[pick % Math.max(1, words.length)] ?? '' };
}
