import type { Fact, FactValue } from '../facts';
import { clip, stableHash } from '../base';

/** What the writer may use of a fact. */
export type LineFact = Pick<Fact, 'id' | 'field' | 'value' | 'quote' | 'url' | 'source' | 'confidence'>;

export interface PersonalLine {
  readonly text: string;
  readonly fact: LineFact;
}

type Say = (value: FactValue, fact: LineFact) => string | undefined;

const SURE_ENOUGH = 0.5;
const amount = (value: FactValue): string =>
  typeof value === 'number' ? value.toLocaleString('en-GB', { maximumFractionDigits: 1 }) : String(value);
const quoted = (fact: LineFact): string => clip((fact.quote ?? '').replace(/[“”"]/g, ''), 110);

/** Several wordings per field, so that readers of one list do not all get the same sentence. Only the value and the quote go in. */
const WORDINGS: Readonly<Record<string, readonly Say[]>> = {
  heated_area: [
    (value) =>
      `You write on your site that you have ${amount(value)} ha under heated glass: at that size, vents and screens that work on their own pay back first.`,
    (value) => `With ${amount(value)} ha of heated glass, as your site says, small differences between bays start to cost real money.`,
    (value) => `Your site mentions ${amount(value)} ha under heated glass, which is the size our retrofits were made for.`,
  ],
  expansion: [
    (value, fact) =>
      value === true && fact.quote
        ? `I read on your site: “${quoted(fact)}” – a good moment to look at the controls of the old and the new bays together.`
        : undefined,
    (value, fact) =>
      value === true && fact.quote ? `Your plans (“${quoted(fact)}”) are the reason I write now rather than in spring.` : undefined,
  ],
  controls: [
    (value) =>
      `You mention ${amount(value)} as your climate control: we have taken over sites with older controllers bay by bay, without a lost week.`,
    (value) => `As you run ${amount(value)} today, the question is often what can stay: usually more than one thinks.`,
  ],
  main_crop: [
    (value) => `For ${amount(value)} growers the night temperature is usually where the first saving is.`,
    (value) => `We work with several ${amount(value)} growers on the same question.`,
  ],
};

/**
 * The line for this reader, from the first allowed field that has a sure enough fact; which wording is chosen follows
 * from the reader, so that the same reader always gets the same one and `avoid` (recent lines) is respected if it can be.
 */
export function personalLine(
  facts: readonly LineFact[],
  fields: readonly string[],
  seed: string,
  avoid: readonly string[],
): PersonalLine | undefined {
  let fallback: PersonalLine | undefined;
  for (const field of fields) {
    const fact = facts.find((entry) => entry.field === field && entry.value !== null && entry.confidence >= SURE_ENOUGH);
    if (fact === undefined) continue;
    const wordings = WORDINGS[field] ?? [];
    const start = Number.parseInt(stableHash(seed).slice(0, 6), 16);
    for (let i = 0; i < wordings.length; i++) {
      const text = wordings[(start + i) % wordings.length]?.(fact.value, fact);
      if (text === undefined) continue;
      if (!avoid.includes(text)) return { text, fact };
      fallback ??= { text, fact };
    }
  }
  return fallback;
}
