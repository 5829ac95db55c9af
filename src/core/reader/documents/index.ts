import type { Instant } from '../../base';
import { DOCUMENT_PARTS, type DocumentKind } from '../../flow/syntax';
import { pickBrief } from './brief';
import { pickCv, type YearsIn } from './cv';
import type { Picked } from './picked';

export { readBrief, type Brief } from './brief';
export { readCv, type Cv, type YearsIn } from './cv';

/**
 * The parts of a document of a kind, in their order; a part that is not said has no quote. Of a CV also the years of work
 * of each kind that is counted.
 */
export function pickDocument(
  kind: DocumentKind,
  text: string,
  now: Instant,
  counted: readonly YearsIn[] = [],
): readonly (Picked & { readonly id: string })[] {
  const parts: Readonly<Record<string, Picked>> = kind === 'cv' ? pickCv(text, now, counted) : pickBrief(text, now);
  const ids = [...Object.keys(DOCUMENT_PARTS[kind]), ...(kind === 'cv' ? counted.map(({ id }) => id) : [])];
  return ids.map((id) => ({ id, ...(parts[id] ?? { value: null, quote: null, confidence: 0 }) }));
}
