import { fold } from '../base';
import { topicOf, type TopicId } from './topics';

export interface PageLink {
  readonly url: string;
  readonly text: string;
}

/** What pages are called that say much about a firm, whatever is asked, with how much they are worth. */
const WORTH: readonly (readonly [RegExp, number])[] = [
  [
    /about|company|who-we|our-story|profile|facts|at-a-glance|numbers|figures|uber-uns|unternehmen|betrieb|profil|zahlen|wir\b|over-ons|bedrijf|feiten|cijfers|wie-zijn|nosotros|empresa|quienes|datos|o-nas|firma|a-propos|entreprise|exploitation|chiffres|qui-sommes|chi-siamo|azienda|history|geschichte|historie|histoire|historia/,
    5,
  ],
  [/news|aktuell|nieuws|noticias|aktualnosci|actualites|actu\b|novita|press|presse|prensa|blog|latest/, 3],
];
/** What pages are called that answer a question on that topic. */
const ON_TOPIC: Readonly<Record<TopicId, RegExp>> = {
  area: /glass|greenhouse|nursery|facilit|betrieb|gewachshaus|anlage|kas\b|kassen|kwekerij|invernadero|instalaciones|finca|vivero|szklarni|serre|site\b|facts/,
  controls:
    /technolog|technik|techniek|tecnolog|equipment|facilit|automat|climate|klima|klimaat|clima|how-we-grow|anlage|instalaciones|serres|innovation/,
  'controls since':
    /technolog|technik|techniek|tecnolog|equipment|facilit|automat|climate|klima|klimaat|clima|how-we-grow|anlage|instalaciones|serres|innovation/,
  expansion:
    /news|aktuell|nieuws|noticias|aktualnosci|actualites|actu\b|novita|press|presse|prensa|blog|latest|project|projets|proyectos|meldungen/,
  'all year': /crop|product|kultur|gewas|teelt|cultivo|upraw|season|saison/,
  contract: /technolog|technik|techniek|tecnolog|service|partner/,
  crop: /crop|product|kultur|gewas|teelt|assortiment|sortiment|cultivo|productions|upraw|colture|range/,
  energy: /energ|green|sustainab|nachhalt|umwelt|duurzaam|milieu|sostenib|medio-ambiente|durable|environnement|heat/,
  sites: /site|location|standort|locatie|vestiging|emplazamiento|centros|contact|kontakt|contacto/,
  employees: /team|jobs|career|karriere|vacanc|vacature|empleo|recrut|people/,
  decider:
    /team|people|management|contact|kontakt|ansprechpartner|impressum|imprint|contacto|equipo|equipe|mensen|medewerkers|direction|leitung|family|famille|familia|familie/,
};
const NOT_WORTH = /privacy|datenschutz|cookie|login|cart|warenkorb|agb|terms|voorwaarden|aviso-legal|mentions-legales|mailto:|tel:/;
const FILE = /\.(?:pdf|jpe?g|png|gif|webp|zip|docx?|xlsx?|mp4)(?:$|[?#])/i;
const ON_TOPIC_WORTH = 4;

/** Links of a site in the order they should be read for these questions; pages about nothing we ask come last or not at all. */
export function worthReading(
  links: readonly PageLink[],
  questions: readonly { readonly id: string; readonly wording: string }[] = [],
): readonly PageLink[] {
  const topics = new Set(questions.flatMap((question) => topicOf(question.id, question.wording) ?? []));
  const seen = new Set<string>();
  return links
    .map((link) => ({ link, worth: worthOf(link, topics) }))
    .filter(({ link, worth }) => worth > 0 && !seen.has(link.url) && seen.add(link.url))
    .sort((a, b) => b.worth - a.worth)
    .map(({ link }) => link);
}

function worthOf(link: PageLink, topics: ReadonlySet<TopicId>): number {
  const words = fold(`${link.url.replace(/^https?:\/\/[^/]+/, '')} ${link.text}`).replace(/\s+/g, '-');
  if (FILE.test(link.url) || NOT_WORTH.test(words)) return 0;
  const answers = [...topics].filter((topic) => ON_TOPIC[topic].test(words)).length;
  const anyway = Math.max(0.5, ...WORTH.map(([pattern, worth]) => (pattern.test(words) ? worth : 0)));
  return anyway + (answers === 0 ? 0 : ON_TOPIC_WORTH + answers);
}
