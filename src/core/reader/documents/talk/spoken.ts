/** What is said aloud as it would be written: ordinals, addresses, numbers one by one; en, de, nl, fr and es. Text is folded. */

const ORDINALS: Readonly<Record<string, number>> = (() => {
  const out: Record<string, number> = {};
  const put = (words: string, first = 1): void => {
    for (const [i, forms] of words.split(' ').entries()) for (const form of forms.split('|')) out[form] = first + i;
  };
  put(
    'first second third fourth fifth sixth seventh eighth ninth tenth eleventh twelfth thirteenth fourteenth fifteenth sixteenth seventeenth eighteenth nineteenth twentieth',
  );
  put(
    'twenty-first twenty-second twenty-third twenty-fourth twenty-fifth twenty-sixth twenty-seventh twenty-eighth twenty-ninth thirtieth thirty-first',
    21,
  );
  const german =
    'erst zweit dritt viert funft sechst siebt acht neunt zehnt elft zwolft dreizehnt vierzehnt funfzehnt sechzehnt siebzehnt achtzehnt neunzehnt zwanzigst einundzwanzigst zweiundzwanzigst dreiundzwanzigst vierundzwanzigst funfundzwanzigst sechsundzwanzigst siebenundzwanzigst achtundzwanzigst neunundzwanzigst dreissigst einunddreissigst';
  for (const [i, stem] of german.split(' ').entries())
    for (const end of ['e', 'en', 'er', 'em'])
      if (`${stem}${end}` !== 'achten' && `${stem}${end}` !== 'achter') out[`${stem}${end}`] = i + 1;
  out['achten'] = 8;
  put(
    'eerste tweede derde vierde vijfde zesde zevende achtste negende tiende elfde twaalfde dertiende veertiende vijftiende zestiende zeventiende achttiende negentiende twintigste eenentwintigste tweeentwintigste drieentwintigste vierentwintigste vijfentwintigste zesentwintigste zevenentwintigste achtentwintigste negenentwintigste dertigste eenendertigste',
  );
  return out;
})();
const PLAIN_DAYS: Readonly<Record<string, number>> = {
  premier: 1,
  primero: 1,
  uno: 1,
  deux: 2,
  dos: 2,
  trois: 3,
  tres: 3,
  quatre: 4,
  cuatro: 4,
  cinq: 5,
  cinco: 5,
  six: 6,
  seis: 6,
  sept: 7,
  siete: 7,
  huit: 8,
  ocho: 8,
  neuf: 9,
  nueve: 9,
  dix: 10,
  diez: 10,
  onze: 11,
  once: 11,
  douze: 12,
  doce: 12,
  treize: 13,
  trece: 13,
  quatorze: 14,
  catorce: 14,
  quinze: 15,
  quince: 15,
  seize: 16,
  dieciseis: 16,
  'dix-sept': 17,
  diecisiete: 17,
  'dix-huit': 18,
  dieciocho: 18,
  'dix-neuf': 19,
  diecinueve: 19,
  vingt: 20,
  veinte: 20,
  'vingt et un': 21,
  veintiuno: 21,
  'vingt-deux': 22,
  veintidos: 22,
  'vingt-trois': 23,
  veintitres: 23,
  'vingt-quatre': 24,
  veinticuatro: 24,
  'vingt-cinq': 25,
  veinticinco: 25,
  'vingt-six': 26,
  veintiseis: 26,
  'vingt-sept': 27,
  veintisiete: 27,
  'vingt-huit': 28,
  veintiocho: 28,
  'vingt-neuf': 29,
  veintinueve: 29,
  trente: 30,
  treinta: 30,
  'trente et un': 31,
  'treinta y uno': 31,
};
const ROMANCE_MONTH =
  'janvier|fevrier|mars|avril|mai|juin|juillet|aout|septembre|octobre|novembre|decembre|de enero|de febrero|de marzo|de abril|de mayo|de junio|de julio|de agosto|de septiembre|de octubre|de noviembre|de diciembre';
const byLength = (words: readonly string[]): string => [...words].sort((a, b) => b.length - a.length).join('|');
const ORDINAL = new RegExp(`(?<!\\p{L})(${byLength(Object.keys(ORDINALS))})(?!\\p{L})`, 'gu');
const PLAIN_DAY = new RegExp(`(?<!\\p{L})(${byLength(Object.keys(PLAIN_DAYS))}) (?=(?:${ROMANCE_MONTH})(?!\\p{L}))`, 'gu');

/** “the twenty-second of January” → “the 22 of January”; ordinals that count something else are changed too: for dates only. */
export const withDays = (folded: string): string =>
  folded.replace(PLAIN_DAY, (_, word: string) => `${PLAIN_DAYS[word] ?? word} `).replace(ORDINAL, (word) => `${ORDINALS[word] ?? word}`);

const AT = '(?:at|aet|et|ad|arroba|apenstaartje|arobase|klammeraffe|affenschwanz)';
const JOINS: readonly (readonly [RegExp, string])[] = [
  [/^(?:dot|punkt|punt|punto|point)$/, '.'],
  [/^(?:dash|hyphen|minus|bindestrich|strich|streepje|koppelteken|min|guion|tiret|moins)$/, '-'],
  [/^(?:underscore|unterstrich|laag streepje|guion bajo|tiret bas)$/, '_'],
];
const JOIN =
  '(?:dot|punkt|punt|punto|point|dash|hyphen|minus|bindestrich|strich|streepje|koppelteken|min|guion|tiret|moins|underscore|unterstrich)';
const WORD = '[a-z0-9_]{1,40}';
const SPELLED = '(?:[a-z0-9][-. ]){2,30}[a-z0-9]';
const ADDRESS = new RegExp(
  `(?<![a-z0-9])((?:${SPELLED}|${WORD})(?: ${JOIN} (?:${WORD}))*),? ${AT} (${WORD}(?: ${JOIN} ${WORD})+)(?![a-z0-9]| ${AT} )`,
  'g',
);
const WRITTEN = /(?<![\w.+-])[\w.+-]{1,64}@[\w-]{1,63}(?:\.[\w-]{1,63}){1,8}/g;
/** “terrence, at the same”: the domain of the one before. */
const SAME = new RegExp(
  `(?<![a-z0-9])(?:i am|ich bin|ik ben|soy|je suis|mine is|meine ist)? ?(${WORD})(?:, (?:with|mit|met|con|avec) [^,.]{1,30})?,? ${AT} (?:the same|derselben|dem gleichen|hetzelfde|dezelfde|la misma|el mismo|la meme|le meme)`,
  'g',
);

const glued = (words: string): string =>
  words
    .split(' ')
    .map((word) => JOINS.find(([pattern]) => pattern.test(word))?.[1] ?? word)
    .join('');
const local = (words: string): string => (new RegExp(`^${SPELLED}$`).test(words) ? words.replace(/[-. ]/g, '') : glued(words));

/** E-mail addresses, written or spoken, in order. `before`: the domain of one said earlier. */
export function addressesIn(folded: string, before: string | null): readonly { readonly email: string; readonly at: number }[] {
  const out: { email: string; at: number }[] = [...folded.matchAll(WRITTEN)].map((found) => ({
    email: found[0].replace(/\.$/, ''),
    at: found.index,
  }));
  for (const found of folded.matchAll(ADDRESS)) {
    const domain = glued(found[2] ?? '');
    if (domain.includes('.')) out.push({ email: `${local(found[1] ?? '')}@${domain}`, at: found.index });
  }
  for (const found of folded.matchAll(SAME)) {
    const domain = out.at(-1)?.email.split('@')[1] ?? before;
    if (domain !== null) out.push({ email: `${found[1] ?? ''}@${domain}`, at: found.index });
  }
  return out.sort((a, b) => a.at - b.at);
}

const DIGIT: Readonly<Record<string, string>> = {
  oh: '0',
  o: '0',
  zero: '0',
  nought: '0',
  nil: '0',
  null: '0',
  nul: '0',
  cero: '0',
  one: '1',
  eins: '1',
  ein: '1',
  een: '1',
  uno: '1',
  un: '1',
  two: '2',
  zwei: '2',
  zwo: '2',
  twee: '2',
  dos: '2',
  deux: '2',
  three: '3',
  drei: '3',
  drie: '3',
  tres: '3',
  trois: '3',
  four: '4',
  vier: '4',
  cuatro: '4',
  quatre: '4',
  five: '5',
  funf: '5',
  vijf: '5',
  cinco: '5',
  cinq: '5',
  six: '6',
  sechs: '6',
  zes: '6',
  seis: '6',
  seven: '7',
  sieben: '7',
  zeven: '7',
  siete: '7',
  sept: '7',
  eight: '8',
  acht: '8',
  ocho: '8',
  huit: '8',
  nine: '9',
  neun: '9',
  negen: '9',
  nueve: '9',
  neuf: '9',
};
const TENS: Readonly<Record<string, number>> = {
  vingt: 20,
  trente: 30,
  quarante: 40,
  cinquante: 50,
  soixante: 60,
  'soixante-dix': 70,
  'quatre-vingt': 80,
  'quatre-vingts': 80,
  'quatre-vingt-dix': 90,
  veinte: 20,
  treinta: 30,
  cuarenta: 40,
  cincuenta: 50,
  sesenta: 60,
  setenta: 70,
  ochenta: 80,
  noventa: 90,
  dix: 10,
  onze: 11,
  douze: 12,
  treize: 13,
  quatorze: 14,
  quinze: 15,
  seize: 16,
  diez: 10,
  once: 11,
  doce: 12,
  trece: 13,
  catorce: 14,
  quince: 15,
};
const TIMES: Readonly<Record<string, number>> = { double: 2, doppel: 2, dubbel: 2, doble: 2, triple: 3, dreimal: 3 };
const PLUS = /^(?:plus|mas)$/;

/** Telephone numbers said digit by digit or written, as `0117…` or `+44117…`, in order. */
export function phonesIn(folded: string): readonly { readonly phone: string; readonly at: number }[] {
  const out: { phone: string; at: number }[] = [];
  for (const found of folded.matchAll(/(?<![\d.,])(?:\+|00|0)\d[\d ()/.-]{5,18}\d(?![\d])/g))
    out.push({ phone: found[0].replace(/[^\d+]/g, ''), at: found.index });
  let digits = '';
  let start = 0;
  let factor = 1;
  const close = (): void => {
    if (digits.replace('+', '').length >= 7) out.push({ phone: digits, at: start });
    digits = '';
    factor = 1;
  };
  for (const found of folded.matchAll(/[\p{L}-]+|\d+|[^\s\p{L}\d]/gu)) {
    const [word] = found;
    const digit = DIGIT[word] ?? (/^\d{1,4}$/.test(word) ? word : TENS[word] === undefined ? undefined : String(TENS[word]));
    if (digit !== undefined) {
      if (digits === '') start = found.index;
      digits += digit.repeat(factor);
      factor = 1;
    } else if (TIMES[word] !== undefined) {
      if (digits === '') start = found.index;
      factor = TIMES[word] ?? 1;
    } else if (PLUS.test(word) && digits === '') {
      start = found.index;
      digits = '+';
    } else if (!/^[,;–-]$/.test(word) && word !== 'und' && word !== 'and') close();
  }
  close();
  return out.sort((a, b) => a.at - b.at);
}
