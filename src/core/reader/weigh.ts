import { fold } from '../base';
import type { Candidate } from './said';

/** One value with everything that speaks for it, best statement first. */
export interface Supported {
  readonly value: Candidate['value'];
  readonly best: Candidate;
  readonly score: number;
  /** on how many pages it stands */
  readonly pages: number;
  /** said in a sentence, not only in a heading */
  readonly spoken: boolean;
}

const same = (a: Candidate['value'], b: Candidate['value']): boolean =>
  typeof a === 'number' && typeof b === 'number'
    ? Math.abs(a - b) <= Math.max(Math.abs(a), Math.abs(b)) * 0.01
    : fold(String(a)) === fold(String(b));

const AGREEMENT = 0.5;

/**
 * The values stated, each with its support, the one to take first. A value said on several pages counts more; of two with
 * like support the one with the newer date is taken, then the one said first.
 */
export function weigh(candidates: readonly Candidate[], sumUp = false): readonly Supported[] {
  const groups: Candidate[][] = [];
  for (const candidate of candidates) {
    const group = groups.find(([first]) => first !== undefined && same(first.value, candidate.value));
    if (group) group.push(candidate);
    else groups.push([candidate]);
  }
  return groups
    .flatMap((group): Supported[] => {
      const [best] = [...group].sort((a, b) => b.score - a.score);
      if (!best) return [];
      const pages = new Set(group.map((candidate) => candidate.said.url)).size;
      const total = sumUp
        ? group.reduce((sum, candidate) => sum + candidate.score, 0)
        : best.score + Math.min(1.5, (pages - 1) * AGREEMENT);
      return [{ value: best.value, best, score: total, pages, spoken: group.some((candidate) => candidate.said.kind !== 'heading') }];
    })
    .sort((a, b) => (Math.abs(a.score - b.score) > 0.25 ? b.score - a.score : (b.best.date ?? 0) - (a.best.date ?? 0)));
}
