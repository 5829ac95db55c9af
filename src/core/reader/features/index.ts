/** Measures of what could answer a question, from which its probability is made. Refuses: knowing a trade. */
import type { Standing } from '../asked';
import type { Scene } from '../scene';
import { among } from './among';
import type { Features } from './measure';
import { asksOfOthers, standing, STANDS } from './standing';
import { clauseOf, wordsMet } from './words';
import { extremes, happening, happeningAsked } from './years';

export type { Features } from './measure';

/** The features of every candidate of a scene, in their order. */
export function featuresOf(scene: Scene): readonly Features[] {
  const total = scene.askedFor.reduce((sum, key) => sum + 0.4 + 0.6 * (scene.rarity.get(key) ?? 1), 0);
  const amongAll = among(scene, total);
  const extreme = extremes(scene);
  const asks = happeningAsked(scene);
  const learnt = (scene.question.learnt ?? []).filter(({ isStanding }) => isStanding === true);
  const ofOthers = asksOfOthers(scene);
  return scene.candidates.map((candidate, i) => {
    const { said, marks } = candidate;
    const met = scene.met.get(said);
    if (!met) return {};
    const clause = clauseOf(said, candidate.from);
    const features: Record<string, number> = {
      bias: 1,
      ...wordsMet(scene, candidate, met, clause, total),
      ...standing(scene, said, clause, ofOthers),
      ...amongAll(candidate, i, met),
      ...extreme.get(candidate),
      ...(asks.length > 0 ? happening(asks, candidate, clause) : {}),
    };
    for (const [name, value] of Object.entries(marks)) features[`is ${name}`] = value;
    for (const { phrase, weight } of learnt) if (STANDS[phrase as Standing]?.(features)) features.learntStanding = -weight;
    return features;
  });
}
