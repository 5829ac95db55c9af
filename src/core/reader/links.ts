import { fold } from '../base';
import type { Asked } from './asked';
import { CueBook } from './cues';
import { LANGUAGES } from './language';
import { tokensOf } from './tokens';

export interface PageLink {
  readonly url: string;
  readonly text: string;
  /** what stands there is shown inside the page that links to it */
  readonly isFrame?: true;
}

/** What pages are called that say much about a firm, whatever is asked, with how much they are worth. */
const WORTH: readonly (readonly [RegExp, number])[] = [
  [
    /about|company|who-we|our-story|profile|facts|at-a-glance|numbers|figures|uber-uns|ueber-uns|unternehmen|betrieb|profil|zahlen|wir\b|over-ons|bedrijf|feiten|cijfers|wie-zijn|nosotros|empresa|quienes|datos|o-nas|firma|a-propos|entreprise|exploitation|chiffres|qui-sommes|chi-siamo|azienda|history|geschichte|historie|histoire|historia/,
    5,
  ],
  [/technolog|technik|techniek|tecnolog|technique|equipment|ausstattung|facilit|anlage|instalaciones|installations|innovation/, 2.5],
  [
    /news|aktuell|nieuws|noticias|aktualnosci|actualites|actu\b|novita|press|presse|prensa|blog|latest|project|projets|proyectos|meldungen/,
    3,
  ],
  [/team|people|management|ansprechpartner|equipo|equipe|mensen|medewerkers|direction|leitung/, 2.5],
  [/impressum|imprint|contact|kontakt|contacto|mentions-legales|aviso-legal/, 1.5],
];
const WHO = /^(?:who|wer|wie|quien|qui)\b/;
const PEOPLE =
  /team|people|management|contact|kontakt|ansprechpartner|impressum|imprint|contacto|equipo|equipe|mensen|medewerkers|direction|leitung|family|familie|famille|familia/;
const NEWS =
  /news|aktuell|nieuws|noticias|aktualnosci|actualites|actu\b|press|presse|prensa|blog|latest|project|projets|proyectos|meldungen/;
const NOT_WORTH = /cookie|login|cart|warenkorb|agb|terms|voorwaarden|mailto:|tel:/;
/** Read only for what stands nowhere else: an address, who answers for the site. */
const LAST = /privacy|datenschutz/;
const FILE = /\.(?:pdf|jpe?g|png|gif|webp|zip|docx?|xlsx?|mp4)(?:$|[?#])/i;
const ASKED_FOR = 4;
/** The parts a page is made of come before all others: without them it says nothing. */
const FRAME = 10;

/** Puts links of a site in the order they should be read for these questions; pages about nothing we ask come last or not at all. */
export function linkJudge(questions: readonly Asked[] = []): (links: readonly PageLink[]) => readonly PageLink[] {
  const books = questions.map((question) => new CueBook(question));
  const folded = questions.map((question) => fold(question.wording));
  const people = folded.some((wording) => WHO.test(wording));
  const events = questions.some(
    (question, i) => question.months !== undefined || /last \d+ months|letzten \d+ monaten|announced/.test(folded[i] ?? ''),
  );
  const known = new Map<string, number>();
  const worthOf = (link: PageLink): number => {
    const key = `${link.url} ${link.text}`;
    const kept = known.get(key);
    if (kept !== undefined) return kept;
    const text = fold(`${link.url.replace(/^https?:\/\/[^/]+/, '')} ${link.text}`);
    const words = text.replace(/\s+/g, '-');
    let worth = 0;
    if (!FILE.test(link.url) && !NOT_WORTH.test(words)) {
      const answers = books.filter((book) =>
        LANGUAGES.some((language) =>
          book
            .in(language)
            .hits(tokensOf(text, language))
            .some((hit) => hit.cue.role !== 'not' && hit.strength * hit.cue.weight >= 0.5),
        ),
      ).length;
      const called = Math.max(0.5, ...WORTH.map(([pattern, each]) => (pattern.test(words) ? each : 0)));
      const more = (people && PEOPLE.test(words) ? 3 : 0) + (events && NEWS.test(words) ? 3 : 0);
      worth = LAST.test(words)
        ? 0.2
        : called + more + (link.isFrame === true ? FRAME : 0) + (answers === 0 ? 0 : ASKED_FOR + Math.min(3, answers) / 3);
    }
    known.set(key, worth);
    return worth;
  };
  return (links) => {
    const seen = new Set<string>();
    return links
      .map((link) => ({ link, worth: worthOf(link) }))
      .filter(({ link, worth }) => worth > 0 && !seen.has(link.url) && seen.add(link.url))
      .sort((a, b) => b.worth - a.worth)
      .map(({ link }) => link);
  };
}
