import { fold } from '../base';

export interface PageLink {
  readonly url: string;
  readonly text: string;
}

/** What the pages worth reading are called, with how much they are worth. */
const WORTH: readonly (readonly [RegExp, number])[] = [
  [
    /about|company|who-we|uber-uns|unternehmen|over-ons|bedrijf|nosotros|empresa|o-nas|firma|a-propos|entreprise|chi-siamo|azienda|history|geschichte/,
    5,
  ],
  [/glass|greenhouse|nursery|technolog|technik|techniek|tecnolog|betrieb|kas|invernadero|szklarni|serre|production|produktion|teelt/, 4],
  [/news|aktuell|nieuws|noticias|aktualnosci|actualites|novita|press|blog/, 4],
  [/crop|product|kultur|gewas|cultivo|upraw|jobs|karriere|vacature/, 2],
];
const NOT_WORTH = /privacy|datenschutz|cookie|login|cart|agb|terms|impressum|mailto:|tel:/;
const FILE = /\.(?:pdf|jpe?g|png|gif|webp|zip|docx?|xlsx?|mp4)(?:$|[?#])/i;

/** Links of a site in the order they should be read; pages about nothing we ask are left out. */
export function worthReading(links: readonly PageLink[]): readonly PageLink[] {
  const seen = new Set<string>();
  return links
    .map((link) => ({ link, worth: worthOf(link) }))
    .filter(({ link, worth }) => worth > 0 && !seen.has(link.url) && seen.add(link.url))
    .sort((a, b) => b.worth - a.worth)
    .map(({ link }) => link);
}

function worthOf(link: PageLink): number {
  const words = fold(`${link.url.replace(/^https?:\/\/[^/]+/, '')} ${link.text}`).replace(/\s+/g, '-');
  if (FILE.test(link.url) || NOT_WORTH.test(words)) return 0;
  return Math.max(0.5, ...WORTH.map(([pattern, worth]) => (pattern.test(words) ? worth : 0)));
}
