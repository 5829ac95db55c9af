import type { Candidate } from '../find/candidate';
import type { Hit } from '../cues';
import { rowOf, type Said } from '../said';
import { keyOf, type Met, type Scene } from '../scene';
import { NOT } from '../skills/standing';
import { yes, type Features } from './measure';

const ASKED: ReadonlySet<string> = new Set(['ask', 'head']);
export const asked = (hit: Hit): boolean => ASKED.has(hit.cue.role);
export const word = (hit: Hit): boolean => hit.cue.role === 'word';
export const best = (hits: readonly Hit[]): number => hits.reduce((most, hit) => Math.max(most, hit.strength * hit.cue.weight), 0);

/** Share of the question's own words met, each weighed by how rare it is on the site. */
export function cover(scene: Pick<Scene, 'rarity'>, hits: readonly Hit[], total: number): number {
  const met = new Map<string, number>();
  for (const hit of hits) if (asked(hit)) met.set(keyOf(hit.cue), Math.max(met.get(keyOf(hit.cue)) ?? 0, hit.strength));
  let sum = 0;
  for (const [key, strength] of met) sum += strength * (0.4 + 0.6 * (scene.rarity.get(key) ?? 1));
  return total === 0 ? 0 : Math.min(1, sum / total);
}

/** How much of the question stands in the label of a row. */
function labelCover(scene: Scene, said: Said, hits: readonly Hit[], total: number): number {
  const row = rowOf(said);
  if (!row) return 0;
  const label = hits.filter((hit) => (said.tokens[hit.to - 1]?.to ?? 0) <= row.label.length + 1);
  return Math.max(cover(scene, label, total), 0.8 * best(label.filter(word)));
}

const signed = (hits: readonly Hit[]): { readonly for: number; readonly against: number } => ({
  for: Math.min(
    1.5,
    hits.filter((hit) => hit.cue.role === 'for').reduce((sum, hit) => sum + hit.cue.weight * hit.strength, 0),
  ),
  against: Math.min(
    1.5,
    hits.filter((hit) => hit.cue.role === 'against').reduce((sum, hit) => sum + hit.cue.weight * hit.strength, 0),
  ),
});

/** The words of the candidate's own clause. */
export interface Clause {
  readonly text: string;
  /** its words in the sentence, `to` exclusive */
  readonly from: number;
  readonly to: number;
}
export function clauseOf(said: Said, from: number): Clause {
  const { tokens } = said;
  const number = tokens[from]?.clause;
  let start = from;
  let end = from + 1;
  while (start > 0 && tokens[start - 1]?.clause === number) start -= 1;
  while (end < tokens.length && tokens[end]?.clause === number) end += 1;
  return { text: said.folded.slice(tokens[start]?.from ?? 0, tokens[end - 1]?.to ?? said.folded.length), from: start, to: end };
}

function distance(candidate: Candidate, hits: readonly Hit[]): { readonly words: number; readonly before: boolean } | undefined {
  let nearest: { words: number; before: boolean } | undefined;
  for (const hit of hits) {
    const words = hit.to <= candidate.from ? candidate.from - hit.to : hit.from >= candidate.to ? hit.from - candidate.to : 0;
    if (!nearest || words < nearest.words) nearest = { words, before: hit.to <= candidate.from };
  }
  return nearest;
}

/** Whether what is asked for is itself denied: “we have no booking system”. */
function deniedCue(said: Said, hits: readonly Hit[]): boolean {
  return hits.some((hit) => {
    if (!asked(hit) && !word(hit)) return false;
    const before = said.folded.slice(said.tokens[Math.max(0, hit.from - 4)]?.from ?? 0, said.tokens[hit.from]?.from ?? 0);
    const behind = said.folded.slice(said.tokens[hit.to - 1]?.to ?? 0, said.tokens[Math.min(said.tokens.length - 1, hit.to + 2)]?.to ?? 0);
    return NOT.test(before) || (said.language === 'de' && NOT.test(behind));
  });
}

/** 1 for a word asked for right beside the value, towards 0 far away; 0 for none. */
function nearness(candidate: Candidate, hits: readonly Hit[]): number {
  const near = distance(candidate, hits);
  return near ? 1 / (1 + near.words / 3) : 0;
}

const PARTED = /\b(?:of which|of them|of those|davon|darunter|waarvan|waaronder|de l[oa]s cuales|dont)\b/;
/** Whether words asked for stand behind “of which”, and not with the whole. */
function partAsked(said: Said, candidate: Candidate, hits: readonly Hit[]): boolean {
  const cut = said.folded.search(PARTED);
  const met = hits.filter((hit) => asked(hit) || word(hit));
  const behind = met.filter((hit) => (said.tokens[hit.from]?.from ?? 0) > cut);
  const fresh = behind.filter((hit) => !met.some((other) => other.cue === hit.cue && (said.tokens[other.from]?.from ?? 0) < cut));
  return cut >= 0 && (said.tokens[candidate.from]?.from ?? 0) < cut && fresh.length > 0;
}

/** Whether nothing that was asked for stands in the sentence or above it. */
export const unasked = (met: Met): boolean => [...met.here, ...met.head].every((hit) => !asked(hit) && !word(hit));

/** How much of what is asked is met where the candidate stands, around it, and how near. */
export function wordsMet(scene: Scene, candidate: Candidate, met: Met, clause: Clause, total: number): Features {
  const { said } = candidate;
  const inClause = met.here.filter((hit) => hit.from < clause.to && hit.to > clause.from);
  const near = distance(
    candidate,
    met.here.filter((hit) => asked(hit) || word(hit) || hit.cue.role === 'for'),
  );
  const words = met.here.filter(word);
  const heads = met.here.filter((hit) => hit.cue.role === 'head');
  const not = (hits: readonly Hit[]): number => best(hits.filter((hit) => hit.cue.role === 'not'));
  const learnt = signed(met.here);
  const learntNear = signed(inClause);
  const learntAround = signed(met.head);
  return {
    label: labelCover(scene, said, met.here, total),
    cover: cover(scene, met.here, total),
    coverClause: cover(scene, inClause, total),
    coverAll: cover(scene, [...met.here, ...met.head, ...met.before], total),
    coverPage: cover(scene, met.page, total),
    full: yes(cover(scene, [...met.here, ...met.head], total) > 0.75),
    headHere: best(heads),
    headAbove: best(met.head.filter((hit) => hit.cue.role === 'head')),
    word: best(words),
    wordClause: best(inClause.filter(word)),
    wordAbove: best(met.head.filter(word)),
    wordBefore: best(met.before.filter(word)),
    wordPage: best(met.page.filter(word)),
    words: Math.min(1, new Set(words.map((hit) => hit.cue.says)).size / 3),
    phrase: yes(words.some((hit) => hit.to - hit.from > 1)),
    not: not(met.here),
    notClause: not(inClause),
    notAbove: not(met.head),
    learntFor: learnt.for,
    learntAgainst: learnt.against,
    learntForClause: learntNear.for,
    learntAgainstClause: learntNear.against,
    learntAbove: learntAround.for - learntAround.against,
    near: near ? 1 / (1 + near.words / 4) : 0,
    nearest: yes(near !== undefined && near.words <= 1),
    far: yes(near !== undefined && near.words > 10),
    wordNear: nearness(candidate, words),
    askNear: nearness(candidate, met.here.filter(asked)),
    headNear: nearness(candidate, heads),
    behind: yes(near?.before === true),
    unmet: yes(near === undefined),
    deniedCue: yes(deniedCue(said, met.here)),
    ...parts(scene, candidate, met, inClause),
  };
}

/** “6 t, of which 5 t washed hot”: the part is meant when the words asked for stand with it, the whole when they stand with that. */
function parts({ form }: Scene, candidate: Candidate, met: Met, inClause: readonly Hit[]): Features {
  const { said, marks, to } = candidate;
  const counts = form === 'count';
  const parted = !counts && PARTED.test(said.folded.slice(said.tokens[to - 1]?.to ?? 0)) && partAsked(said, candidate, met.here);
  return {
    partAsked: yes(marks.part === 1 && !counts && inClause.some((hit) => asked(hit) || word(hit))),
    wholeOfAsked: yes(marks.whole === 1 || parted),
  };
}
