import { fold } from '../../base';
import type { Candidate } from '../find/candidate';
import type { Hit } from '../cues';
import type { Said } from '../said';
import type { Met, Scene } from '../scene';
import { yes, type Features } from './measure';
import { asked, best, cover, unasked, word } from './words';

const YEAR = 365.25 * 86_400_000;
const RECENT = 2;

/** What was said within two years stands above what nobody dated. */
function recentNews(newest: ReadonlySet<Candidate>, now: number): boolean {
  const [first] = newest;
  return first !== undefined && first.said.date !== null && now - first.said.date < RECENT * YEAR;
}

const valueKey = (candidate: Candidate): string => (typeof candidate.value === 'string' ? fold(candidate.value) : String(candidate.value));

/** In how many other sentences, and on how many other pages, the same value is stated. */
function agreement(candidates: readonly Candidate[]) {
  const texts = new Map<string, Set<string>>();
  const urls = new Map<string, Set<string>>();
  for (const candidate of candidates) {
    const key = valueKey(candidate);
    texts.set(key, (texts.get(key) ?? new Set()).add(candidate.said.folded));
    urls.set(key, (urls.get(key) ?? new Set()).add(candidate.said.url));
  }
  return {
    sentences: candidates.map((candidate) => Math.min(1, ((texts.get(valueKey(candidate))?.size ?? 1) - 1) / 3)),
    pages: candidates.map((candidate) => Math.min(1, ((urls.get(valueKey(candidate))?.size ?? 1) - 1) / 2)),
    alone: texts.size === 1,
  };
}

/** Of the dated statements that speak of what is asked, those of the newest day. */
function newestOf({ candidates, met, now, rarity }: Scene, total: number): ReadonlySet<Candidate> {
  const scene = { rarity };
  const fits = (candidate: Candidate): number => {
    const hits = met.get(candidate.said);
    return hits ? Math.max(cover(scene, [...hits.here, ...hits.head], total), best([...hits.here, ...hits.head].filter(word))) : 0;
  };
  const dated = candidates
    .filter((candidate) => candidate.said.date !== null && candidate.said.date <= now)
    .map((candidate) => ({ candidate, fit: fits(candidate) }));
  const most = Math.max(0, ...dated.map(({ fit }) => fit));
  const fitting = dated.filter(({ fit }) => fit >= most * 0.7 && fit > 0.3);
  const latest = Math.max(...fitting.map(({ candidate }) => candidate.said.date ?? 0));
  const others = candidates.some((candidate) => candidate.said.date !== latest);
  return new Set(!others ? [] : fitting.filter(({ candidate }) => candidate.said.date === latest).map(({ candidate }) => candidate));
}

const MEASURED_REACH = 4;
/** Whether the words behind a figure, in its own clause, are of what is asked: “12 t of linen”. */
function asksBehind({ said, to }: Candidate, hits: readonly Hit[]): boolean {
  const clause = said.tokens[Math.max(0, to - 1)]?.clause;
  return hits.some(
    (hit) =>
      (asked(hit) || word(hit)) &&
      hit.strength * hit.cue.weight >= 0.5 &&
      hit.from >= to &&
      hit.from - to < MEASURED_REACH &&
      said.tokens[hit.from]?.clause === clause,
  );
}

/** Of several amounts in a sentence, those that have what is asked behind them; the others have something else. */
function measures({ candidates, form, met }: Scene): ReadonlyMap<Candidate, Features> {
  const out = new Map<Candidate, Features>();
  if (form !== 'quantity' && form !== 'money') return out;
  const fitting = new Set<Said>();
  const fits = (candidate: Candidate): boolean => asksBehind(candidate, met.get(candidate.said)?.here ?? []);
  for (const candidate of candidates) if (fits(candidate)) fitting.add(candidate.said);
  for (const candidate of candidates) {
    const own = fits(candidate);
    out.set(candidate, { asksBehind: yes(own), rivalled: yes(!own && fitting.has(candidate.said)) });
  }
  return out;
}

/** What a candidate is among all of its scene: who agrees, what is newer, what stands there instead. */
export function among(scene: Scene, total: number): (candidate: Candidate, at: number, met: Met) => Features {
  const same = agreement(scene.candidates);
  const newest = newestOf(scene, total);
  const measured = measures(scene);
  const isWorded = (scene.question.words?.length ?? 0) > 0;
  return (candidate, at, met) => {
    const isNewest = newest.has(candidate);
    const hasNewer = newest.size > 0 && !isNewest;
    const bare = unasked(met);
    return {
      agree: same.sentences[at] ?? 0,
      agreePages: same.pages[at] ?? 0,
      alone: yes(same.alone),
      newest: yes(isNewest),
      older: yes(hasNewer && candidate.said.date !== null),
      overtaken: yes(hasNewer && candidate.said.date === null && recentNews(newest, scene.now)),
      bare: yes(bare),
      bareOnce: yes(bare && same.sentences[at] === 0),
      bareWorded: yes(bare && isWorded),
      aloneBare: yes(bare && same.alone),
      ...measured.get(candidate),
    };
  };
}
