import type { FirstDayGap, FirstDayShape } from '../../../api';

/** The sentences of the letter, in their order. */
export const SENTENCES: readonly FirstDayGap[] = ['where', 'sells', 'mailbox', 'people', 'stages', 'asked', 'good', 'beside'];

/** How the ribbon beside a sentence runs: as wide as what is possible by then, within what could be. */
export interface Reach {
  readonly gap: FirstDayGap;
  readonly stands: boolean;
  readonly before: number;
  readonly now: number;
  readonly most: number;
}

/** Name and place are one sentence. */
const sentenceOf = (gap: FirstDayGap): FirstDayGap => (gap === 'name' ? 'where' : gap);

export function reachOf(letter: Pick<FirstDayShape, 'possible' | 'notes'>): readonly Reach[] {
  let [now, most] = [0, 0];
  return SENTENCES.map((gap) => {
    const own = letter.possible.filter((entry) => sentenceOf(entry.gap) === gap);
    const before = now;
    now += own.filter((entry) => entry.isPossible).length;
    most += own.length;
    const stands = letter.notes[gap].stands && (gap !== 'where' || letter.notes.name.stands);
    return { gap, stands, before, now, most };
  });
}

/** Who is asked in, of “Ivo Castell, ivo@firm.example” in either order; undefined without an address. */
export function readColleague(text: string): { readonly name: string; readonly email: string } | undefined {
  const email = /[^\s,;<>]{1,64}@[^\s,;<>]{1,255}/.exec(text)?.[0];
  if (email === undefined) return undefined;
  const name = text
    .replace(email, ' ')
    .replace(/[<>,;]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  return { name, email };
}
