/** Who somebody is and how they are reached, by their papers. */
import { countryOf } from '../../../fields';
import { datesIn, isoOf } from '../../skills/dates';
import { plainFold, type DocumentLine } from '../lines';
import { nothing, picked, type Picked } from '../picked';
import { EMAIL, fitsAddress } from '../names';
import { piecesOf, tidy } from './stations';
import { BORN, ROLE } from './words';

export interface Person {
  readonly name: Picked;
  readonly email: Picked;
  readonly phone: Picked;
  readonly street: Picked;
  readonly city: Picked;
  /** ISO 3166 alpha-2 */
  readonly country: Picked;
  /** ISO 8601 */
  readonly born: Picked;
  /** street, postcode and town as they are written */
  readonly place: Picked;
}

const PHONE =
  /(?:\+|\(\+?|\b00|\b0|\(0)[\d][\d ()/.-]{5,20}\d|\(\d{3}\) ?\d{3}[ -]\d{4}|(?<![\d.,/-])[679]\d{2}(?: \d{2}){3}(?!\d)|(?<![\d.,/-])[679]\d{2}(?: \d{3}){2}(?!\d)/;
const LABEL =
  /^(?:e-?mail|mail|tel(?:efon|efoon|efono|ephone)?|phone|mobile|mobil(?:e|nummer)?|mobiel|movil|gsm|handy|portable|fax|address|adresse|anschrift|adres|direccion|domicilio|wohnort|woonplaats|place|town|city|residence|based in|location|lives? in|ort|residencia|ciudad|domicile|lieu|ville|linkedin|web(?:site)?)\s*[.:]\s*/;
const PLACE_LABEL =
  /^(?:address|place|town|city|lives? in|residence|based in|location|wohnort|wohnhaft in|adresse|anschrift|ort|woonplaats|adres|domicilio|direccion|residencia|ciudad|domicile|lieu|ville)\s*:\s*(\S.*)$/;
const POSTCODE =
  /(?<![\p{L}\p{N}])(?:[a-z]{1,2}\d[a-z\d]? ?\d[a-z]{2}|\d{4} ?[a-z]{2}|(?:(?:d|f|e|b|a|ch|nl)[- ])?\d{4,5})(?![\p{L}\p{N}])/u;
const STREET_NUMBER =
  /(?:^\d{1,4}[a-z]?(?:-\d{1,3})?,?\s+\p{L}|\p{L}[.]?\s+(?:n[.ºo°]*\s*)?\d{1,4}\s?[a-z]?(?:[-/]\d{1,3})?(?:\s?(?:bis|ter|[ivx]{1,4}|hs))?(?:,?\s+(?:flat|apt|unit|bus|app|piso|\d)\b.{0,14})?$|^c\/|^calle|^rue |^av(?:enue|enida|da)?\.? )/iu;
const NAME_LABEL = /^(?:full )?(?:name|naam|nombre|nom)(?: and surname| y apellidos| et prenom)?:\s+(.{3,60})$/i;
const SMALL = "de|van|der|den|von|zu|la|del|di|da|el|ten|ter|te|'t|y|le|du|dos|das|vom|op|af|ap|bin|al|mac|mc|o'";
const NAME_WORDS = new RegExp(`^(?:\\p{Lu}[\\p{L}'’.-]*|${SMALL})(?: (?:\\p{Lu}[\\p{L}'’.-]*|${SMALL})){1,5}$`, 'u');
const NO_NAME =
  /curriculum|vitae|lebenslauf|resume|\bcv\b|application|bewerbung|sollicitatie|solicitud|candidature|page \d|profile?\b|dear |geachte|sehr geehrte|kind regards|grusse|groet|saludo|cordial|onderwerp|betreff|subject|personal/;
const TITLES = /^(?:(?:dr|prof|ir|ing|dipl|mr|mrs|ms|mx|dhr|mevr|mw|herr|frau|sr|sra|mme|m)\.?(?:-ing\.?)?\s+)+/i;

export function personOf(lines: readonly DocumentLine[]): Person {
  const mine = lines.filter((line) => line.section !== 'references');
  const email = emailOf(mine);
  const address = addressOf(mine);
  return {
    name: nameOf(mine, email),
    email,
    phone: found(
      PHONE,
      mine.filter((line) => !line.bullet || line.section === 'contact' || line.section === ''),
      0.95,
    ),
    born: bornOf(mine),
    ...address,
  };
}

function found(pattern: RegExp, lines: readonly DocumentLine[], sure: number): Picked {
  // A number that is said to be no longer right, or of somebody else, is none.
  for (const line of lines) {
    if (/\bfax\b/.test(line.folded)) continue;
    const hit = pattern.exec(line.text);
    if (hit) return picked(tidy(hit[0]), line.text, sure);
  }
  return nothing();
}

function emailOf(lines: readonly DocumentLine[]): Picked {
  for (const line of lines) {
    const text = line.text.replace(/\s?(?:\(at\)|\[at\]|\(a\)| @ )\s?/gi, '@').replace(/\s?(?:\(dot\)|\[dot\])\s?/gi, '.');
    const hit = EMAIL.exec(text);
    if (hit) return picked(hit[0].replace(/\.$/, ''), line.text, 0.95);
  }
  return nothing();
}

function nameOf(lines: readonly DocumentLine[], email: Picked): Picked {
  for (const line of lines.slice(0, 40)) {
    const label = NAME_LABEL.exec(line.text);
    if (label && !/company|firm/.test(line.folded)) return picked(tidy((label[1] ?? '').split(/\s[|·]\s/)[0] ?? ''), line.text, 0.95);
  }
  // At the head of a CV, or at the foot of one that is a letter.
  const near = [
    ...lines.slice(0, 10).map((line, i) => ({ line, sure: 0.85 - i / 50 })),
    ...lines.slice(-8).map((line) => ({ line, sure: 0.6 })),
  ];
  const hits = near.flatMap(({ line, sure }) => {
    const bare = line.text.replace(
      /^(?:curriculum vitae|c\.?v\.?|lebenslauf|résumé|resume|currículum(?: vítae)?)(?: of| von| van| de| –| -|:)*\s+/i,
      '',
    );
    const parts = [bare, ...piecesOf(bare)].map((piece) => tidy(piece.replace(TITLES, '').replace(/,\s*(?:B|M)\.?(?:Sc|A|Eng)\b.*$/, '')));
    return parts
      .filter(
        (part) =>
          NAME_WORDS.test(part) &&
          part.length <= 50 &&
          !NO_NAME.test(plainFold(part)) &&
          !ROLE.test(plainFold(part)) &&
          countryOf(part) === undefined,
      )
      .map((part) => ({ part, line, score: sure + fitsAddress(part, typeof email.value === 'string' ? email.value : null) * 0.4 }));
  });
  const [best] = [...hits].sort((a, b) => b.score - a.score);
  return best ? picked(best.part, best.line.text, Math.min(0.95, best.score)) : nothing();
}

function bornOf(lines: readonly DocumentLine[]): Picked {
  for (const line of lines.slice(0, 60)) {
    const label = BORN.exec(line.even);
    if (!label) continue;
    const [date] = datesIn(line.even.slice(label.index + label[0].length), 0).filter((when) => when.grain === 'day');
    if (date && date.from < 24) return picked(isoOf(date), line.text, 0.95);
  }
  return nothing();
}

/** Where somebody lives: what stands beside their other ways to be reached. */
function addressOf(lines: readonly DocumentLine[]): Pick<Person, 'street' | 'city' | 'country' | 'place'> {
  const head = lines.filter(
    (line, i) => line.section === '' || line.section === 'contact' || (i >= lines.length - 8 && line.section !== 'jobs' && !line.bullet),
  );
  const whole = labelled(lines);
  const parts = (whole ? [whole] : head)
    .flatMap((line) =>
      line.text
        .replace(/^[^:]{2,24}:\s+/, (label) => (LABEL.test(plainFold(label)) || PLACE_LABEL.test(`${plainFold(label)} x`) ? '' : label))
        .split(/\s[|·•–—-]\s|\t|,\s+|\s{2,}|;\s+/)
        .map((text) => ({ text: tidy(text), line })),
    )
    .reduce<{ text: string; line: DocumentLine }[]>((out, part) => {
      // “Calle de los Telares, 22, 3.º B”: number and floor belong to the street.
      const last = out.at(-1);
      if (
        last &&
        last.line === part.line &&
        /^(?:c\/|calle|avenida|avda|plaza|paseo|rue|via|flat|unit|apartment)|\d\.?º?$|^\d{1,4}[a-z]?$/i.test(last.text) &&
        /^\d{1,4}\s?[a-z]?$|^\d{1,2}\.?[ºª°o]\s?\w{0,4}$|^(?:rue|quai|avenue|place)\s/i.test(part.text)
      )
        out[out.length - 1] = { text: `${last.text}, ${part.text}`, line: part.line };
      else out.push(part);
      return out;
    }, []);
  const streetAt = parts.findIndex(({ text }) => isStreet(text));
  const street = parts[streetAt];
  const countryAt = parts.findIndex(({ text }, at) => isCountry(text) && (streetAt < 0 || Math.abs(at - streetAt) <= 4));
  const country =
    parts[countryAt] ??
    parts.flatMap(({ text, line }) =>
      (/\(([\p{L} ]{2,30})\)$/u.exec(text)?.slice(1) ?? []).flatMap((within) => (isCountry(within) ? [{ text: within, line }] : [])),
    )[0];
  const near = (at: number): boolean => streetAt < 0 || (at > streetAt - 3 && at <= streetAt + 3);
  const hasPostcode = (text: string): boolean =>
    !isStreet(text) &&
    !EMAIL.test(text) &&
    !hasPhone(text) &&
    POSTCODE.test(plainFold(text)) &&
    datesIn(plainFold(text), 0).every((when) => when.grain === 'year') &&
    !/^(?:19|20)\d\d$/.test(text);
  const postcodeAt = parts.findIndex(({ text }, at) => near(at) && hasPostcode(text) && (isTown(text) || streetAt >= 0));
  const beside = streetAt >= 0 && parts[streetAt + 1] && isTown(parts[streetAt + 1]?.text ?? '') ? streetAt + 1 : -1;
  const cityAt = postcodeAt >= 0 ? postcodeAt : beside >= 0 ? beside : countryAt > 0 ? countryAt - 1 : -1;
  const city = parts[cityAt];
  const town = city && isTown(city.text) ? townOf(city.text) : '';
  const bare = postcodeAt >= 0 && town === '' ? parts[postcodeAt - 1] : undefined;
  const name = town !== '' ? town : bare && isTown(bare.text) ? townOf(bare.text) : '';
  const chosen = [street, name === '' ? undefined : town === '' ? bare : city].filter((part) => part !== undefined);
  return {
    street: street ? picked(street.text, street.line.text, 0.85) : nothing(),
    city: name === '' ? nothing() : picked(name, (town === '' ? bare : city)?.line.text ?? '', 0.85),
    country: country ? picked(countryNamed(country.text) ?? '', country.line.text, 0.9) : nothing(),
    place: placeOf(whole, chosen),
  };
}

function labelled(lines: readonly DocumentLine[]): DocumentLine | undefined {
  return lines.find((line) => line.section !== 'jobs' && line.section !== 'education' && PLACE_LABEL.test(line.folded));
}

function placeOf(whole: DocumentLine | undefined, parts: readonly { readonly text: string; readonly line: DocumentLine }[]): Picked {
  if (whole) return picked(whole.text.slice(whole.text.indexOf(':') + 1).trim(), whole.text, 0.9);
  const [first] = parts;
  return first
    ? picked(parts.map((part) => part.text).join(', '), [...new Set(parts.map((part) => part.line.text))].join(' … '), 0.8)
    : nothing();
}

const hasPhone = (text: string): boolean => PHONE.test(text) && text.replace(/\D/g, '').length >= 7;
const isStreet = (text: string): boolean =>
  text.length <= 60 &&
  !/^(?:flat|apartment|apt|unit|piso|app)\.?\s\S+$/i.test(text) &&
  STREET_NUMBER.test(text) &&
  !hasPhone(text) &&
  !EMAIL.test(text) &&
  !/\b(?:19|20)\d\d\b/.test(text) &&
  !/^\d{4,5}\s/.test(text) &&
  !/^[A-Z]\d?$/.test(text);
const bracketless = (text: string): string => text.replace(/[().]/g, '').trim();
const countryNamed = (text: string): string | undefined =>
  bracketless(text).length >= 2 && text.length <= 40 ? countryOf(bracketless(text)) : undefined;
const isCountry = (text: string): boolean => countryNamed(text) !== undefined;

/** The town beside its postcode, and without the letters a country puts before it. */
const townOf = (text: string): string =>
  tidy(
    text
      .replace(/\([\p{L} ]{1,40}\)$/u, '')
      .replace(/\b(?:[A-Z]{1,2}\d[A-Z\d]? ?\d[A-Z]{2}|\d{4} ?[A-Z]{2}\b|(?:(?:D|F|E|B|A|CH|NL)[- ])?\d{4,5})/u, ''),
  );
const isTown = (text: string): boolean => {
  const town = townOf(text);
  return /^\p{Lu}[\p{L}'’. /()-]{1,40}$/u.test(town) && !isCountry(town) && !ROLE.test(plainFold(town));
};
