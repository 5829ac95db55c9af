/** What can be told from an entry alone: whether somebody only tries the form, is rude, or has no mailbox of their own. */
import { fold } from '../base';
import { sentencesOf } from './sentences';
import { PARKED } from './skills/empty';

export interface Screened {
  /** one plain sentence */
  readonly says: string;
  /** what decided it, folded: the same again is the same case */
  readonly about: string;
}

const TEST_WORDS =
  /^(?:te+st(?:ing|e|en|er|o|user|entry)?\d*|asdf\w*|qwe(?:r|rt|rty|rtz|rtzu)?\w*|foo(?:bar)?|bar|baz|blah?|bla|xyz|abc|x+|n\/?a|none|nobody|no name|dummy|lorem(?: ipsum)?|hallo|hello|prueba|essai|probe|proef)$/;
/** Alone enough, whatever stands beside it. */
const CERTAINLY_TEST = /^(?:te+st(?:ing|er|user)?\d*|asdf\w*|qwer\w*)$/;
const KEY_RUNS = /asdf|sdfg|dfgh|fghj|hjkl|qwer|wert|erty|yxcv|zxcv|jkl;|12345|(.)\1{4,}/;
const NO_VOWEL = /^[bcdfghjklmnpqrstvwxz]{5,}$/;

/** Signs that an entry is a try: names that are keys in a row, words for “test”, filler text. Undefined when there is none. */
export function testEntry(entry: {
  readonly name: string;
  readonly company: string;
  readonly email: string;
  readonly texts: readonly string[];
}): Screened | undefined {
  const odd = (what: string, value: string): Screened | undefined => {
    const word = fold(value).trim();
    if (word === '') return undefined;
    const parts = word.split(/\s+/);
    const isOdd =
      TEST_WORDS.test(word) ||
      KEY_RUNS.test(word) ||
      parts.some((part) => CERTAINLY_TEST.test(part)) ||
      parts.every((part) => TEST_WORDS.test(part) || NO_VOWEL.test(part));
    return isOdd ? { says: `the ${what} is “${value.trim()}”`, about: word } : undefined;
  };
  const [local = '', host = ''] = entry.email.toLowerCase().split('@');
  if (/^te+st\d*$/.test(local) || /^te+st\./.test(host))
    return { says: `the address is “${entry.email}”`, about: entry.email.toLowerCase() };
  for (const text of entry.texts) {
    const found =
      /lorem ipsum|\b(?:just|only) (?:a )?test(?:ing)?\b|\bnur ein test\b|\bthis is a test\b|\bdit is een test\b|\besto es una prueba\b|\bceci est un test\b/.exec(
        fold(text),
      );
    if (found) return { says: `it says “${found[0]}”`, about: found[0] };
    if (text.length <= 30) {
      const filler = odd('text', text);
      if (filler && fold(text).trim() !== 'hello' && fold(text).trim() !== 'hallo') return filler;
    }
  }
  return odd('name', entry.name) ?? odd('company', entry.company);
}

/** Words of abuse in en, de, nl, es, fr; none that also has a harmless use in growing or trade. */
const ABUSE =
  /\b(?:f+u+c+k\w*|shit(?:ty|head)?|bullshit|arse ?hole|ass ?hole|bastards?|wank\w*|moron|idiots?|morons|screw you|go to hell|piss off|scum|arschloch|scheiss\w*|wichser|verpiss\w*|idioten?|hurensohn|drecksack|klootzak|lul(?:len)?|kut\w*|rot op|eikel|sukkel|gilipollas|cabron(?:es)?|mierda|hijo de puta|imbecil(?:es)?|connards?|merde|salauds?|putain|va te faire\w*|encule\w*)\b/;

/** The sentence with abusive words, or undefined. */
export function abusiveWords(texts: readonly string[]): Screened | undefined {
  for (const text of texts)
    for (const sentence of sentencesOf(text)) {
      const found = ABUSE.exec(fold(sentence));
      if (found) return { says: `“${sentence.length > 120 ? `${sentence.slice(0, 119)}…` : sentence}”`, about: found[0] };
    }
  return undefined;
}

const DISPOSABLE =
  /(?:temp|trash|throwaway|throw-away|disposable|minute|burner|fake|wegwerf|spambox|nospam|jetable|desechable|guerr|dropmail|getnada|oneoff|one-off)/;

/** A host where mailboxes are made to be thrown away. */
export function disposableMailbox(email: string): Screened | undefined {
  const host = email.toLowerCase().split('@')[1] ?? '';
  return DISPOSABLE.test(host.split('.').slice(0, -1).join('.'))
    ? { says: `${host} is a host for mailboxes to be thrown away`, about: host }
    : undefined;
}

const ROLE =
  /^(?:info|information|office|sales|contact|kontakt|contacto|mail|e?post|hello|hallo|hola|admin|administration|administratie|administracion|service|team|reception|empfang|buero|buro|bureau|verkauf|verkoop|ventas|vente|einkauf|inkoop|compras|support|help|accounts?|billing|rechnung(?:en)?|facturatie|orders?|bestellung(?:en)?|marketing|hr|jobs|webmaster|postmaster|no-?reply|noreply|enquir(?:y|ies)|inquir(?:y|ies))$/;

/** A mailbox of an office, not of a person. */
export function roleMailbox(email: string): Screened | undefined {
  const [local = ''] = email.toLowerCase().split('@');
  return ROLE.test(fold(local)) ? { says: `${email} is the mailbox of an office`, about: email.toLowerCase() } : undefined;
}

const PARKED_MAX = 1_200;
/** Said of a site that is not there yet, and as well of a building: it counts where nothing else is said. */
const UNFINISHED = /coming soon|under construction|hier entsteht|in aanbouw|en construccion|en construction|it works!/;
const UNFINISHED_MAX = 120;

/** Whether a site’s first page says that nobody lives there. A long page is a site, whatever it says. */
export function parkedSite(host: string, text: string): Screened | undefined {
  if (text.length > PARKED_MAX) return undefined;
  const folded = fold(text);
  const found = PARKED.exec(folded) ?? (text.length <= UNFINISHED_MAX ? UNFINISHED.exec(folded) : null);
  if (found) return { says: `${host} says “${found[0]}”`, about: host };
  return text.replace(/\s/g, '').length < 20 ? { says: `${host} has an empty page`, about: host } : undefined;
}
