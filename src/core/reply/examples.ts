import { languageOf, sentencesOf, stemOf } from '../reader';
import type { Objection, ReplyKind } from './kinds';
import { plain } from './plain';

/** Words that a person has shown to mean something else than was understood. */
export interface ReplyExample {
  readonly id: string;
  /** a sentence as somebody wrote it */
  readonly words: string;
  readonly kind: ReplyKind;
  readonly objection: Objection | null;
}
export interface Taught {
  readonly example: ReplyExample;
  /** the sentence that is like it */
  readonly quote: string;
  /** 0 to 1 */
  readonly alike: number;
}

/** So alike must a sentence be … */
const ALIKE = 0.75;
/** … and one of so few words the same. */
const FEW = 3;

/** The words of a sentence by their stems; figures and the names of days and months all say the same: when. */
function stems(sentence: string): readonly string[] {
  const words = plain(sentence).match(/[\p{L}]+|\p{N}+/gu) ?? [];
  const language = languageOf(words);
  return words.map((word) => (/^\p{N}/u.test(word) || WHEN.has(word) ? '#' : stemOf(word, language)));
}
const WHEN: ReadonlySet<string> = new Set(
  [
    'january february march april may june july august september october november december monday tuesday wednesday thursday friday',
    'januar februar marz mai juni juli oktober dezember montag dienstag mittwoch donnerstag freitag',
    'januari februari maart mei augustus maandag dinsdag woensdag donderdag vrijdag',
    'janvier fevrier mars avril juin juillet aout septembre octobre novembre decembre lundi mardi mercredi jeudi vendredi',
    'enero febrero marzo abril mayo junio julio agosto septiembre octubre noviembre diciembre lunes martes miercoles jueves viernes',
  ].flatMap((names) => names.split(' ')),
);

/** How alike two sentences are: twice what both say over what each says (Dice 1945), counted in stems; short ones must be the same. */
export function alikeAs(one: string, other: string): number {
  const [a, b] = [stems(one), stems(other)];
  if (a.length === 0 || b.length === 0) return 0;
  const left = new Map<string, number>();
  for (const word of a) left.set(word, (left.get(word) ?? 0) + 1);
  let both = 0;
  for (const word of b) {
    const n = left.get(word) ?? 0;
    if (n === 0) continue;
    both += 1;
    left.set(word, n - 1);
  }
  const alike = (2 * both) / (a.length + b.length);
  return Math.min(a.length, b.length) <= FEW && alike < 1 ? 0 : alike;
}

/** The example that a text is most like; undefined: none is like it. Of equals the first counts. */
export function taughtBy(text: string, examples: readonly ReplyExample[]): Taught | undefined {
  let best: Taught | undefined;
  for (const quote of examples.length === 0 ? [] : sentencesOf(text))
    for (const example of examples) {
      const alike = alikeAs(quote, example.words);
      if (alike >= ALIKE && alike > (best?.alike ?? 0)) best = { example, quote, alike };
    }
  return best;
}
