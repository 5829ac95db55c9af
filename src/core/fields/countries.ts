/** Countries as people write them: ISO 3166 codes, their names in the languages of the lists we see, letters on cars. */
import { fold } from '../base';

/** ISO 3166-1 alpha-2, all that are assigned. */
export const COUNTRIES: readonly string[] =
  `AD AE AF AG AI AL AM AO AQ AR AS AT AU AW AX AZ BA BB BD BE BF BG BH BI BJ BL BM BN BO BQ BR BS BT BV BW BY BZ CA CC CD CF CG CH CI CK CL CM CN CO CR CU CV CW CX CY CZ DE DJ DK DM DO DZ EC EE EG EH ER ES ET FI FJ FK FM FO FR GA GB GD GE GF GG GH GI GL GM GN GP GQ GR GS GT GU GW GY HK HM HN HR HT HU ID IE IL IM IN IO IQ IR IS IT JE JM JO JP KE KG KH KI KM KN KP KR KW KY KZ LA LB LC LI LK LR LS LT LU LV LY MA MC MD ME MF MG MH MK ML MM MN MO MP MQ MR MS MT MU MV MW MX MY MZ NA NC NE NF NG NI NL NO NP NR NU NZ OM PA PE PF PG PH PK PL PM PN PR PS PT PW PY QA RE RO RS RU RW SA SB SC SD SE SG SH SI SJ SK SL SM SN SO SR SS ST SV SX SY SZ TC TD TF TG TH TJ TK TL TM TN TO TR TT TV TW TZ UA UG UM US UY UZ VA VC VE VG VI VN VU WF WS YE YT ZA ZM ZW`.split(
    ' ',
  );

const LANGUAGES = ['en', 'de', 'nl', 'fr', 'es', 'pl', 'it', 'da', 'sv', 'nb', 'pt'] as const;

/** What no table of names has. */
const BESIDES: Readonly<Record<string, string>> = {
  uk: 'GB',
  'u.k.': 'GB',
  'great britain': 'GB',
  england: 'GB',
  scotland: 'GB',
  wales: 'GB',
  'northern ireland': 'GB',
  grossbritannien: 'GB',
  engeland: 'GB',
  holland: 'NL',
  hollande: 'NL',
  'the netherlands': 'NL',
  'republic of ireland': 'IE',
  eire: 'IE',
  usa: 'US',
  'u.s.a.': 'US',
  'czech republic': 'CZ',
  // letters on cars (UN convention on road traffic), where they differ from the code
  d: 'DE',
  f: 'FR',
  b: 'BE',
  e: 'ES',
  i: 'IT',
  a: 'AT',
  p: 'PT',
  l: 'LU',
  h: 'HU',
  s: 'SE',
  n: 'NO',
  irl: 'IE',
  fin: 'FI',
};

let known: ReadonlyMap<string, string> | undefined;
function names(): ReadonlyMap<string, string> {
  if (known) return known;
  const all = new Map<string, string>(COUNTRIES.map((code) => [code.toLowerCase(), code]));
  for (const language of LANGUAGES) {
    const said = new Intl.DisplayNames(language, { type: 'region' });
    for (const code of COUNTRIES) {
      const name = fold(said.of(code) ?? '');
      if (name !== '' && !all.has(name)) all.set(name, code);
    }
  }
  for (const [name, code] of Object.entries(BESIDES)) all.set(fold(name), code);
  known = all;
  return all;
}

/** The ISO 3166 code of a country as somebody wrote it; undefined when it is none. */
export const countryOf = (text: string): string | undefined => names().get(fold(text.trim()));
