import { fold } from '../../base';
import type { Standing } from '../asked';
import { pointsBack, type Said } from '../said';
import type { Scene } from '../scene';
import { PLACEHOLDER } from '../skills/empty';
import { DROPPED, FORMER, MAIN, NOT, OTHERS, PLANNED, RESERVE, WISHED } from '../skills/standing';
import { yes, type Features } from './measure';
import type { Clause } from './words';

const YEAR = 365.25 * 86_400_000;
const NEWS =
  /\b(?:news|blog|diary|journal|aktuell\w*|neuigkeiten|nachrichten|nieuws|noticias|actualites|actualidad|posts?|board|press|presse|archive?|chronik|history|geschichte|geschiedenis|historia|histoire)\b/;
const JOBS = /\b(?:jobs?|career\w*|karriere|stelle\w*|vacature\w*|werken|empleo|emploi|recrutement|join us|work with us)\b/;
const IMPRINT = /\b(?:impressum|imprint|legal|privacy|datenschutz|mentions|aviso|colofon|disclaimer|cookies?)\b/;
const ABOUT =
  /\b(?:about|us|ueber|uber|unternehmen|over|ons|quienes|nosotros|qui|sommes|facts|zahlen|home|start|index|welcome|willkommen|welkom|accueil|inicio)\b/;
/** What a pattern for pages says where nobody has put words of their own yet: signs, not proof. */
const TEMPLATE =
  /\b(?:your (?:company|business|firm|name|logo|text|slogan)|placeholder|write here|demo content|\w+ one, \w+ two|ihr (?:firmenname|text)|uw bedrijf|su empresa|votre entreprise|this domain|parked|coming soon|under construction page)\b/;
const QUALIFIED =
  /\b(?:e\.g|for example|such as|z\.b|zum beispiel|bijvoorbeeld|por ejemplo|par exemple|imagine|suppose|should you|lorem|example|muster\w*)\b/;
const YEAR_IN_TEXT = /(?:19|20)\d\d/g;

const SELF = /\b(?:we|us|our|ours|i|my|wir|uns|unser\w*|wij|we|ons|onze|nosotros|nuestr[oa]s?|nous|notre|nos)\b/;
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
    template: yes([folded, under, said.before?.folded ?? ''].some((text) => TEMPLATE.test(text) || PLACEHOLDER.test(text))),
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

/** By what a statement is known to tell of plans, of the past, of others, or of a part. */
const any =
  (...names: readonly string[]) =>
  (features: Features): boolean =>
    names.some((name) => (features[name] ?? 0) > 0);
export const STANDS: Readonly<Record<Standing, (features: Features) => boolean>> = {
  planned: any('planned', 'saidPlanned', 'headPlanned', 'saidWished', 'ahead', 'yearAhead'),
  former: any('former', 'saidFormer', 'oldYear', 'older', 'is leaving', 'is until'),
  'others’': any('others', 'saidOthers', 'headOthers', 'othersNamed', 'headOthersNamed', 'aboutOthers'),
  'only a part': any('is part', 'is elliptic', 'is more', 'is added'),
};

const NOT_OTHERS: Features = { others: 0, saidOthers: 0, headOthers: 0, subjectOthers: 0, backOthers: 0, aboutOthers: 0 };

/** Whether a question asks after others itself: where customers are asked for, a sentence about them is none about somebody else. */
export function asksOfOthers({ question }: Scene): boolean {
  const words = fold([question.wording, ...(question.words ?? [])].join(' ')).match(/[\p{L}]+/gu) ?? [];
  return words.some((each) => OTHERS.test(each));
}

/** How a candidate's clause and sentence stand to the present, of whom they speak, and when they were said. */
export function standing({ now, others }: Scene, said: Said, clause: Clause, ofOthers: boolean): Features {
  const age = said.date === null ? undefined : (now - said.date) / YEAR;
  const years = [...said.folded.matchAll(YEAR_IN_TEXT)].map((found) => Number(found[0]));
  const thisYear = new Date(now).getUTCFullYear();
  return {
    former: yes(FORMER.test(clause.text)),
    planned: yes(PLANNED.test(clause.text)),
    others: yes(OTHERS.test(clause.text)),
    denied: yes(NOT.test(clause.text)),
    main: yes(MAIN.test(clause.text)),
    reserve: yes(RESERVE.test(clause.text)),
    dated: yes(age !== undefined),
    old: age === undefined ? 0 : Math.min(1, Math.max(0, age / 6)),
    ahead: yes(age !== undefined && age < -0.02),
    oldYear: yes(years.length > 0 && Math.max(...years) < thisYear - 3),
    yearAhead: yes(years.some((year) => year > thisYear)),
    self: yes(SELF.test(said.folded)),
    // “Our sister house, the Moorhof, was renovated in 2024”: who the sentence is about stands at its head.
    subjectOthers: yes(OTHERS.test(openingOf(said))),
    backOthers: yes(othersBefore(said)),
    othersNamed: yes(said.tokens.some((token) => others.has(token.folded))),
    aboutOthers: yes(OTHERS.test(openingOf(said)) || othersBefore(said) || opensWith(said, others)),
    headOthersNamed: yes(said.headTokens.some((token) => others.has(token.folded))),
    ...standingOf(said),
    ...(ofOthers ? NOT_OTHERS : {}),
  };
}
