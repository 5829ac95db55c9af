import type { Instant } from '../../base';
import { DOCUMENT_PARTS, type DocumentKind } from '../../flow/syntax';
import { pickBrief } from './brief';
import { pickCv } from './cv';
import type { Picked } from './picked';

const PICK: { readonly [K in DocumentKind]: (text: string, now: Instant) => Readonly<Record<string, Picked>> } = {
  cv: pickCv,
  brief: pickBrief,
};

/** The parts of a document of a kind, in their order; a part that is not said has no quote. */
export function pickDocument(kind: DocumentKind, text: string, now: Instant): readonly (Picked & { readonly id: string })[] {
  const parts = PICK[kind](text, now);
  return Object.keys(DOCUMENT_PARTS[kind]).map((id) => ({ id, ...(parts[id] ?? { value: null, quote: null, confidence: 0 }) }));
}
