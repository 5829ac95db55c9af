/**
 * Wordings of a text that are tried against each other, as far as they have come. Measured by answers worth having within a week;
 * whose week is not over is not counted. Nothing is decided by it: which words stay is a person's to say.
 */
import type { WordingsTried } from '../../api';
import { compared, pairsOf, templateSchema } from '../../core/writer';
import { thing } from '../flows/things';
import { Refusal, type World } from '../platform/world';
import { triedOutcomes } from './store/messages';

/** Answers worth having: they lead on. */
const GOOD_KINDS = ['interested', 'question', 'meeting accepted'] as const;
const WITHIN_MS = 7 * 86_400_000;

export async function wordingsTried(world: World, id: string): Promise<WordingsTried> {
  const text = templateSchema.safeParse((await thing(world, id)).body);
  if (!text.success) throw new Refusal('not valid', 'only texts have wordings');
  const pairs = pairsOf(text.data);
  const outcomes =
    pairs.length === 0
      ? []
      : await triedOutcomes(
          world.db,
          pairs.map(({ pair }) => pair),
          { kinds: GOOD_KINDS, withinMs: WITHIN_MS, now: await world.clock.now() },
        );
  const of = (pair: string, arm: 'usual' | 'tried'): boolean[] =>
    outcomes.filter((entry) => entry.pair === pair && entry.arm === arm).map(({ good }) => good);
  return {
    items: pairs.map(({ pair, usual, tried }) => {
      const found = compared(of(pair, 'usual'), of(pair, 'tried'));
      return {
        usualAt: usual,
        triedAt: tried,
        usual: { ...found.usual, range: [...found.usual.range] },
        tried: { ...found.tried, range: [...found.tried.range] },
        evidence: Math.min(1e9, found.evidence),
        verdict: found.verdict,
      };
    }),
  };
}
