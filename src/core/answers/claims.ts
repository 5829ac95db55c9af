import { z } from 'zod';
import { fold } from '../base';
import { isSmall, languageOf, sentencesOf, stemOf, type Language } from '../reader';

/** Something the business says of itself, with who stands behind it and what proves it. */
export const statementSchema = z.object({
  id: z.string().min(1).max(60),
  says: z.string().min(1).max(400),
  by: z.string().max(120).default(''),
  proof: z.string().max(400).default(''),
});
export type Statement = z.infer<typeof statementSchema>;

/** A sentence of fixed words that says something of the business; `coveredBy`: the statement that stands behind it. */
export interface Claim {
  readonly says: string;
  /** the words that make it a claim */
  readonly because: string;
  readonly coveredBy: Statement | null;
}

/** Who speaks, in five languages. */
const OURS =
  /(?<![\p{L}])(?:we|us|our|ours|wir|uns|unser(?:e|er|en|em|es)?|wij|we|ons|onze|nous|notre|nos|nosotros|nosotras|nuestr[oa]s?)(?![\p{L}])/u;
/** Words that weigh, compare or promise: without one, what we say of ourselves is mere courtesy. */
const WEIGHS: readonly RegExp[] = [
  /(?<!\d)\d[\d.,]{0,14}(?:\s?%)?/u,
  /(?<![\p{L}])(?:several|many|most|all|every|dozens|hundreds|thousands|always|never|only|first|leading|largest|best|fastest|proven|guarantee\w*|certified|award\w*|specialis\w+|expert\w*|experience|customers?|clients?|references?|without|save\w*|halve\w*|double\w*|cut\w*|reduce\w*)(?![\p{L}])/u,
  /(?<![\p{L}])(?:mehrere|viele|meiste\w*|alle|jede\w*|dutzende|hunderte|immer|nie|einzige\w*|erste\w*|fuhrend\w*|grosste\w*|beste\w*|schnellste\w*|bewahrt\w*|garantier\w*|zertifiziert\w*|spezialis\w+|erfahrung\w*|kunden|referenz\w*|ohne|spar\w+|halbier\w*|senk\w*)(?![\p{L}])/u,
  /(?<![\p{L}])(?:meerdere|veel|meeste|alle|elke|tientallen|honderden|altijd|nooit|enige|eerste|leidend\w*|grootste|beste|snelste|bewezen|garander\w*|gecertificeerd\w*|gespecialiseerd\w*|ervaring|klanten|referenties?|zonder|bespaar\w*|bespar\w*|halver\w*)(?![\p{L}])/u,
  /(?<![\p{L}])(?:plusieurs|beaucoup|plupart|tous|toutes|chaque|toujours|jamais|seul\w*|premier\w*|leader|meilleur\w*|prouv\w*|garanti\w*|certifi\w*|specialis\w*|experience|clients?|references?|sans|economis\w*|redui\w*)(?![\p{L}])/u,
  /(?<![\p{L}])(?:varios|varias|muchos|muchas|mayoria|todos|todas|cada|siempre|nunca|unic[oa]s?|primer\w*|lider|mejor\w*|probad[oa]s?|garantiz\w*|certificad[oa]s?|especializ\w*|experiencia|clientes?|referencias?|sin|ahorr\w*|reduc\w*)(?![\p{L}])/u,
];
const SLOT = /\{[^{}]{0,600}\}/g;
/** So much of what a claim says must stand in one statement. */
const COVERED = 0.6;

/** Words that help to ask and say nothing of what is asked, where the lists of small words lack them. */
const HELPING = new Set(
  'does did doing could would should might shall please already konnten wurden bitte kunt zou zouden graag peut peuvent pouvez puis faut puede pueden podria'.split(
    ' ',
  ),
);

/** The stems of the words of a text that say something. */
export const tellingOf = (text: string, language: Language): ReadonlySet<string> =>
  new Set(
    (fold(text).match(/[\p{L}\p{N}]+/gu) ?? [])
      .filter((word) => word.length > 2 && !isSmall(word, language) && !HELPING.has(word))
      .map((word) => stemOf(word, language)),
  );

/** The statement that says most of what a claim says, if any says enough. */
export function standsBehind(says: string, statements: readonly Statement[], language: Language): Statement | null {
  const words = tellingOf(says, language);
  let best: Statement | null = null;
  let most = COVERED;
  for (const statement of statements) {
    const own = tellingOf(statement.says, language);
    const share = words.size === 0 ? 1 : [...words].filter((word) => own.has(word)).length / words.size;
    if (share >= most) [best, most] = [statement, share];
  }
  return best;
}

/**
 * Sentences of a text that say something weighty of the business by fixed words: “we …” with a figure, a comparison, a promise
 * or other people's example. What a slot says is the fact's, and is left out.
 */
export function claimsIn(text: string, statements: readonly Statement[]): readonly Claim[] {
  const language = languageOf(fold(text).match(/[\p{L}]+/gu) ?? []);
  return sentencesOf(text).flatMap((sentence): Claim[] => {
    if (sentence.trimEnd().endsWith('?')) return [];
    const bare = fold(sentence.replace(SLOT, ' '));
    if (!OURS.test(bare)) return [];
    const because = WEIGHS.map((pattern) => pattern.exec(bare)?.[0]).find((found) => found !== undefined);
    if (because === undefined) return [];
    return [{ says: sentence.trim(), because, coveredBy: standsBehind(bare, statements, language) }];
  });
}
