import type { Instant } from '../../base';
import { DOCUMENT_PARTS, type DocumentKind } from '../../flow/syntax';
import { pickBrief } from './brief';
import { pickCv, type YearsIn } from './cv';
import type { Picked } from './picked';
import { pickTalk, readTalk } from './talk';

export { readBrief, type Brief } from './brief';
export { readTalk, type TalkRead } from './talk';
export { readCv, type Cv, type YearsIn } from './cv';

const PICK: {
  readonly [K in DocumentKind]: (text: string, now: Instant, counted: readonly YearsIn[]) => Readonly<Record<string, Picked>>;
} = {
  cv: pickCv,
  brief: pickBrief,
  call: pickTalk,
};

/** The words of a document that may answer questions: of a call what they said and did not take back. */
export const answering = (kind: DocumentKind | undefined, text: string, now: Instant): string =>
  kind === 'call' ? readTalk(text, now).statements : text;

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
  const parts: Readonly<Record<string, Picked>> = PICK[kind](text, now, counted);
  const ids = [...Object.keys(DOCUMENT_PARTS[kind]), ...(kind === 'cv' ? counted.map(({ id }) => id) : [])];
  return ids.map((id) => ({ id, ...(parts[id] ?? { value: null, quote: null, confidence: 0 }) }));
}
