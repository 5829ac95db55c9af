import { fold } from '../base';
import type { Standing } from './asked';
import type { Candidate } from './find/candidate';
import type { Hit } from './cues';
import { pointsBack, rowOf, type Said } from './said';
import { keyOf, type Met, type Scene } from './scene';
import { happenedIn, happenedNear } from './skills/happened';
import { DROPPED, FORMER, MAIN, NOT, OTHERS, PLANNED, RESERVE, WISHED } from './skills/standing';

/** What is known of one candidate, by name, 0 to 1: none of it knows a trade. `docs/questions.md` says what each means. */
export type Features = Readonly<Record<string, number>>;

const YEAR = 365.25 * 86_400_000;
const NEWS =
  /\b(?:news|blog|diary|journal|aktuell\w*|neuigkeiten|nachrichten|nieuws|noticias|actualites|actualidad|posts?|board|press|presse|archive?|chronik|history|geschichte|geschiedenis|historia|histoire)\b/;
const JOBS = /\b(?:jobs?|career\w*|karriere|stelle\w*|vacature\w*|werken|empleo|emploi|recrutement|join us|work with us)\b/;
const IMPRINT = /\b(?:impressum|imprint|legal|privacy|datenschutz|mentions|aviso|colofon|disclaimer|cookies?)\b/;
const ABOUT =
  /\b(?:about|us|ueber|uber|unternehmen|over|ons|quienes|nosotros|qui|sommes|facts|zahlen|home|start|index|welcome|willkommen|welkom|accueil|inicio)\b/;
/** Text of a site builder that nobody has replaced yet. */
const TEMPLATE =
  /\b(?:your (?:company|business|firm|name|logo|text|slogan)|lorem ipsum|sample text|placeholder|this is a (?:template|demo)|(?:change|replace|edit) this (?:text|in the editor)|write here|demo content|dies ist ein (?:blindtext|mustertext)|blindtext|mustertext|\w+ one, \w+ two|ihr (?:firmenname|text)|uw bedrijf|su empresa|votre entreprise|this domain|domain (?:is )?for sale|parked|coming soon|under construction page)\b/;
const QUALIFIED =
  /\b(?:e\.g|for example|such as|z\.b|zum beispiel|bijvoorbeeld|por ejemplo|par exemple|imagine|suppose|should you|lorem|example|muster\w*)\b/;
const YEAR_IN_TEXT = /(?:19|20)\d\d/g;

const ASKED: ReadonlySet<string> = new Set(['ask', 'head']);
const asked = (hit: Hit): boolean => ASKED.has(hit.cue.role);
const word = (hit: Hit): boolean => hit.cue.role === 'word';
const best = (hits: readonly Hit[]): number => hits.reduce((most, hit) => Math.max(most, hit.strength * hit.cue.weight), 0);

/** Share of the question's own words met, each weighed by how rare it is on the site. */
function cover(scene: Pick<Scene, 'rarity'>, hits: readonly Hit[], total: number): number {
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
function clauseOf(said: Said, from: number): { readonly text: string; readonly from: number; readonly to: number } {
  const { tokens } = said;
  const number = tokens[from]?.clause;
  let start = from;
  let end = from + 1;
  while (start > 0 && tokens[start - 1]?.clause === number) start -= 1;
  while (end < tokens.length && tokens[end]?.clause === number) end += 1;
  return { text: said.folded.slice(tokens[start]?.from ?? 0, tokens[end - 1]?.to ?? said.folded.length), from: start, to: end };
}

const yes = (found: boolean): number => (found ? 1 : 0);

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

const SELF = /\b(?:we|us|our|ours|i|my|wir|uns|unser\w*|wij|we|ons|onze|nosotros|nuestr[oa]s?|nous|notre|nos)\b/;
const RECENT = 2;

/** What was said within two years stands above what nobody dated. */
function recentNews(newest: ReadonlySet<Candidate>, now: number): boolean {
  const [first] = newest;
  return first !== undefined && first.said.date !== null && now - first.said.date < RECENT * YEAR;
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

/** How sentences stand, kept for each: many candidates share one. */
const standings = new WeakMap<Said, Features>();
function standingOf(said: Said): Features {
  const kept = standings.get(said);
  if (kept) return kept;
  const { folded, under, title } = said;
  const page = `${title} ${fold(said.url.replace(/^https?:\/\/[^/]*/, '')).replace(/[^a-z]+/g, ' ')}`;
  const found: Features = {
    saidFormer: yes(FORMER.test(folded)),
    saidPlanned: yes(PLANNED.test(folded)),
    saidWished: yes(WISHED.test(folded)),
    saidDenied: yes(NOT.test(folded)),
    saidOthers: yes(OTHERS.test(folded)),
    saidReserve: yes(RESERVE.test(folded)),
    saidDropped: yes(DROPPED.test(folded)),
    saidMain: yes(MAIN.test(folded)),
    qualified: yes(QUALIFIED.test(folded)),
    template: yes(TEMPLATE.test(folded) || TEMPLATE.test(under) || (said.before !== null && TEMPLATE.test(said.before.folded))),
    headOthers: yes(OTHERS.test(under)),
    headFormer: yes(FORMER.test(under) || NEWS.test(under)),
    headPlanned: yes(PLANNED.test(under)),
    news: yes(NEWS.test(page)),
    jobs: yes(JOBS.test(page) || JOBS.test(under)),
    imprint: yes(IMPRINT.test(page)),
    about: yes(ABOUT.test(page)),
    row: yes(said.kind === 'row'),
    item: yes(said.kind === 'item'),
    data: yes(said.kind === 'data'),
    heading: yes(said.kind === 'heading'),
    short: yes(said.tokens.length <= 6),
    long: yes(said.tokens.length > 30),
    copyrightLine: yes(/^\W{0,3}(?:©|\(c\)|copyright)/i.test(said.text)),
    asks: yes(said.text.trimEnd().endsWith('?')),
    underAsks: yes(said.head.trimEnd().endsWith('?')),
  };
  standings.set(said, found);
  return found;
}

/** The words a sentence begins with, up to its first comma. */
const openingOf = (said: Said): string => said.folded.slice(0, 60).split(/[,;:–—]/)[0] ?? '';
const THERE = /^(?:there|dort|daar|er is daar|alli|ahi|la-bas|y )\b/;
/** Whether it goes on about somebody else, whom the sentence before named. */
function othersBefore(said: Said): boolean {
  const before = THERE.test(said.folded) ? said.before : pointsBack(said);
  return before !== null && before !== undefined && OTHERS.test(openingOf(before)) && !SELF.test(said.folded);
}

/** Whether one of some names stands among the first words of a sentence. */
const OPENING = 5;
const opensWith = ({ tokens }: Said, names: ReadonlySet<string>): boolean =>
  tokens.slice(0, OPENING).some((token) => names.has(token.folded));

/** Whether nothing that was asked for stands in the sentence or above it. */
const unasked = (met: Met): boolean => [...met.here, ...met.head].every((hit) => !asked(hit) && !word(hit));

/** By what a statement is known to tell of plans, of the past, of others, or of a part. */
const any =
  (...names: readonly string[]) =>
  (features: Features): boolean =>
    names.some((name) => (features[name] ?? 0) > 0);
const STANDS: Readonly<Record<Standing, (features: Features) => boolean>> = {
  planned: any('planned', 'saidPlanned', 'headPlanned', 'saidWished', 'ahead', 'yearAhead'),
  former: any('former', 'saidFormer', 'oldYear', 'older', 'is leaving', 'is until'),
  'others’': any('others', 'saidOthers', 'headOthers', 'othersNamed', 'headOthersNamed', 'aboutOthers'),
  'only a part': any('is part', 'is elliptic', 'is more', 'is added'),
};

/** Where customers are asked for, a sentence about customers is none about somebody else. */
const NOT_OTHERS: Features = { others: 0, saidOthers: 0, headOthers: 0, subjectOthers: 0, backOthers: 0, aboutOthers: 0 };

/** The features of every candidate of a scene, in their order. */
export function featuresOf(scene: Scene): readonly Features[] {
  const { candidates, now } = scene;
  const total = scene.askedFor.reduce((sum, key) => sum + 0.4 + 0.6 * (scene.rarity.get(key) ?? 1), 0);
  const same = agreement(candidates);
  const newest = newestOf(scene, total);
  const extreme = extremes(scene);
  const asks = happeningAsked(scene);
  const measured = measures(scene);
  const standingsLearnt = (scene.question.learnt ?? []).filter(({ isStanding }) => isStanding === true);
  const asksOfOthers = (fold([scene.question.wording, ...(scene.question.words ?? [])].join(' ')).match(/[\p{L}]+/gu) ?? []).some((each) =>
    OTHERS.test(each),
  );
  return candidates.map((candidate, i) => {
    const { said } = candidate;
    const met = scene.met.get(said);
    if (!met) return {};
    const clause = clauseOf(said, candidate.from);
    const inClause = met.here.filter((hit) => hit.from < clause.to && hit.to > clause.from);
    const around = [...met.head, ...met.before];
    const near = distance(
      candidate,
      met.here.filter((hit) => asked(hit) || word(hit) || hit.cue.role === 'for'),
    );
    const words = met.here.filter(word);
    const learnt = signed(met.here);
    const learntNear = signed(inClause);
    const learntAround = signed(met.head);
    const coverHere = cover(scene, met.here, total);
    const age = said.date === null ? undefined : (now - said.date) / YEAR;
    const years = [...said.folded.matchAll(YEAR_IN_TEXT)].map((found) => Number(found[0]));
    const features: Record<string, number> = {
      bias: 1,
      label: labelCover(scene, said, met.here, total),
      cover: coverHere,
      coverClause: cover(scene, inClause, total),
      coverAll: cover(scene, [...met.here, ...around], total),
      coverPage: cover(scene, met.page, total),
      full: yes(cover(scene, [...met.here, ...met.head], total) > 0.75),
      headHere: best(met.here.filter((hit) => hit.cue.role === 'head')),
      headAbove: best(met.head.filter((hit) => hit.cue.role === 'head')),
      word: best(words),
      wordClause: best(inClause.filter(word)),
      wordAbove: best(met.head.filter(word)),
      wordBefore: best(met.before.filter(word)),
      wordPage: best(met.page.filter(word)),
      words: Math.min(1, new Set(words.map((hit) => hit.cue.says)).size / 3),
      phrase: yes(words.some((hit) => hit.to - hit.from > 1)),
      not: best(met.here.filter((hit) => hit.cue.role === 'not')),
      notClause: best(inClause.filter((hit) => hit.cue.role === 'not')),
      reserve: yes(RESERVE.test(clause.text)),
      notAbove: best(met.head.filter((hit) => hit.cue.role === 'not')),
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
      headNear: nearness(
        candidate,
        met.here.filter((hit) => hit.cue.role === 'head'),
      ),
      behind: yes(near?.before === true),
      unmet: yes(near === undefined),
      former: yes(FORMER.test(clause.text)),
      planned: yes(PLANNED.test(clause.text)),
      others: yes(OTHERS.test(clause.text)),
      denied: yes(NOT.test(clause.text)),
      main: yes(MAIN.test(clause.text)),
      deniedCue: yes(deniedCue(said, met.here)),
      dated: yes(age !== undefined),
      old: age === undefined ? 0 : Math.min(1, Math.max(0, age / 6)),
      ahead: yes(age !== undefined && age < -0.02),
      oldYear: yes(years.length > 0 && Math.max(...years) < new Date(now).getUTCFullYear() - 3),
      yearAhead: yes(years.some((year) => year > new Date(now).getUTCFullYear())),
      agree: same.sentences[i] ?? 0,
      agreePages: same.pages[i] ?? 0,
      alone: same.alone ? 1 : 0,
      newest: newest.has(candidate) ? 1 : 0,
      older: newest.size > 0 && said.date !== null && !newest.has(candidate) ? 1 : 0,
      overtaken: newest.size > 0 && said.date === null && !newest.has(candidate) && recentNews(newest, now) ? 1 : 0,
      self: yes(SELF.test(said.folded)),
      // “Our sister house, the Moorhof, was renovated in 2024”: who the sentence is about stands at its head.
      subjectOthers: yes(OTHERS.test(openingOf(said))),
      backOthers: yes(othersBefore(said)),
      bareOnce: yes(same.sentences[i] === 0 && unasked(met)),
      bare: yes(unasked(met)),
      bareWorded: yes((scene.question.words?.length ?? 0) > 0 && unasked(met)),
      aloneBare: yes(same.alone && unasked(met)),
      othersNamed: yes(said.tokens.some((token) => scene.others.has(token.folded))),
      aboutOthers: yes(OTHERS.test(openingOf(said)) || othersBefore(said) || opensWith(said, scene.others)),
      headOthersNamed: yes(said.headTokens.some((token) => scene.others.has(token.folded))),
      ...extreme.get(candidate),
      ...measured.get(candidate),
      ...(asks.length > 0 ? happening(asks, candidate, clause) : {}),
      ...standingOf(said),
      ...(asksOfOthers ? NOT_OTHERS : {}),
    };
    for (const [name, value] of Object.entries(candidate.marks)) features[`is ${name}`] = value;
    for (const { phrase, weight } of standingsLearnt) if (STANDS[phrase as Standing]?.(features)) features.learntStanding = -weight;
    // “6 t, of which 5 t washed hot”: the part is meant when the words asked for stand with it, the whole when they stand with that.
    if (candidate.marks.part === 1 && scene.form !== 'count' && inClause.some((hit) => asked(hit) || word(hit))) features.partAsked = 1;
    if (candidate.marks.whole === 1) features.wholeOfAsked = 1;
    if (
      scene.form !== 'count' &&
      PARTED.test(said.folded.slice(said.tokens[candidate.to - 1]?.to ?? 0)) &&
      partAsked(said, candidate, met.here)
    )
      features.wholeOfAsked = 1;
    return features;
  });
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

/** What must have happened in the year asked for: by the wording, else by the words it goes by. */
function happeningAsked({ form, question }: Scene): readonly string[] {
  if (form !== 'year' && form !== 'date') return [];
  const asked = happenedIn(fold(question.wording));
  return asked.length > 0 ? asked : happenedIn(fold((question.words ?? []).join(' ; ')));
}

/** Whether what is asked for happened in the candidate's own clause (or sentence), or something else did. */
function happening(
  asked: readonly string[],
  { said, from, to, marks }: Candidate,
  clause: { readonly from: number; readonly to: number },
): Features {
  const [start, end] = [said.tokens[clause.from]?.from ?? 0, said.tokens[clause.to - 1]?.to ?? said.folded.length];
  const [at, behind] = [said.tokens[from]?.from ?? 0, said.tokens[to - 1]?.to ?? 0];
  const told = happenedNear(said.folded.slice(start, end), at - start, behind - start);
  const near = told.length > 0 ? told : happenedNear(said.folded, at, behind);
  const fits = near.some((kind) => asked.includes(kind));
  return {
    datedHappening: fits ? (marks.dateline ?? 0) : 0,
    happened: yes(fits),
    happenedElse: yes(near.length > 0 && !fits),
    happenedHere: yes(told.length > 0 && fits),
  };
}

const LAST_ASKED =
  /\b(?:last|latest|newest|most recent|zuletzt|letzte[nrs]?|neueste[nrs]?|laatste|nieuwste|ultim[oa]|mas reciente|dernier\w*|plus recent\w*)\b/;
const FIRST_ASKED =
  /\b(?:found\w*|established|first|begin|began|start\w*|since|open\w*|gegrundet|grundung|seit|opgericht|sinds|fundad\w*|desde|fonde\w*|depuis|oldest)\b/;

/** Of the years near the words asked for: the latest and the earliest, where the question asks for one of them. */
function extremes(scene: Scene): ReadonlyMap<Candidate, Features> {
  const out = new Map<Candidate, Features>();
  if (scene.form !== 'year' && scene.form !== 'date') return out;
  const wording = fold(scene.question.wording);
  const near = scene.candidates.filter((candidate) => (scene.met.get(candidate.said)?.here.length ?? 0) > 0);
  const values = near.map((candidate) => String(candidate.value)).sort();
  const last = LAST_ASKED.test(wording);
  const first = !last && FIRST_ASKED.test(wording);
  for (const candidate of near) {
    const value = String(candidate.value);
    out.set(candidate, {
      latestAsked: yes(last && value === values.at(-1)),
      laterAsked: yes(last && value !== values.at(-1)),
      earliestAsked: yes(first && value === values[0]),
      notEarliestAsked: yes(first && value !== values[0]),
    });
  }
  return out;
}
