/** Pages on which nobody says anything: folded words of addresses nobody lives at, and of text that came with a page's pattern. */

/** An address that is for sale, parked, or taken over to earn from clicks. */
export const PARKED =
  /\bdomain(?: name)?\b.{0,60}\b(?:for sale|to buy|parked|has expired)\b|buy this domain|this domain is parked|domain parking|parked (?:free|domain)|domain\b.{0,60}\b(?:zu verkaufen|zum verkauf)\b|\b(?:domein|domeinnaam)\b.{0,60}\bte koop\b|\bdominio\b.{0,60}\b(?:en|a la) venta\b|nom de domaine\b.{0,60}\ba vendre\b|may earn a commission|default web page|apache2? default page|future home of/;

/** Text that nobody has replaced yet. */
export const PLACEHOLDER =
  /\b(?:lorem ipsum|placeholder text|this is (?:a template|placeholder|sample|dummy|demo)|(?:change|replace|edit) this (?:text|in the editor)|replace it in the editor|sample text|blindtext|mustertext|texte? factice|texto de (?:ejemplo|relleno)|voorbeeldtekst)\b/;
