import { fold } from '../base';

/** Somebody an answer names to be written to in their place. */
export interface Named {
  readonly name: string | null;
  readonly email: string | null;
}

const ADDRESS = /[\p{L}\p{N}._%+-]{1,64}@[\p{L}\p{N}-]{1,63}(?:\.[\p{L}\p{N}-]{1,63}){1,4}/gu;
const TITLE = String.raw`(?:(?:Mrs?|Ms|Miss|Dr|Herrn?|Frau|Mevrouw|De heer|Meneer|Madame|Mme|Monsieur|M|Señora?|Sra?|Don|Doña)\.? )`;
const WORD = String.raw`\p{Lu}[\p{Ll}\p{Lu}'’-]+`;
/** One name of a person as it stands in a text: “Pieter van der Wiel”, “Frau Hölscher”. */
const NAME = `${TITLE}?${WORD}(?: (?:van |von |de |der |den |ter |la |el |zu ){0,3}${WORD}){0,3}`;
/** Words behind which somebody is named who is to be asked instead. */
const ASK = new RegExp(
  String.raw`(?:[Cc]ontact|[Aa]sk(?: for)?|[Rr]ing|call|speak (?:to|with)|talk to|write to|in touch with|reach|is now|by my colleague|an (?:meine[nm]? |unsere[nm]? )?(?:Kolleg\w+ )?|hilft (?:Ihnen )?|vertritt mich |[Vv]ertretung (?:durch |übernimmt )?|met (?:mijn collega )?|[Bb]el|[Bb]ij|contacter|adresser (?:à|a)|joindre|dirigirse a|[Hh]able con|[Pp]regunte por|[Cc]ontacte (?:con|a)|brother|sister|Bruder|Schwester|broer|zus|hermano|hermana|frère|sœur|colleague|Kollegin|Kollege|collega|collègue|compañer[oa])[:,]?\s+(${NAME})`,
  'u',
);
/** Words at the beginning of a sentence that no person is called. */
const NOBODY =
  /^(?:the|please|for|in|if|he|she|they|i|we|my|our|his|her|best|kind|dear|hello|hi|thanks|bitte|in|für|mit|die|der|das|ich|wir|sie|ihre?|voor|bij|het|de|een|ik|wij|por|para|el|la|los|su|le|les|pour|je|nous|monday|tuesday|wednesday|thursday|friday)$/i;

/** Letters of a word as they stand in addresses: “Hölscher” is written hoelscher there, or holscher. */
const plainly = (word: string): string =>
  fold(word)
    .replace(/[^\p{L}]/gu, '')
    .replace(/([aou])e/g, '$1');

/** Whom an answer names instead of its sender; undefined where it names nobody. `from`: name and address of the sender. */
export function namedInstead(text: string, from: string): Named | undefined {
  const own = fold(from);
  for (const found of text.matchAll(ADDRESS)) {
    const email = found[0].replace(/\.$/, '').toLowerCase();
    if (own.includes(email)) continue;
    return { name: nameOf(text, found.index, email), email };
  }
  const asked = ASK.exec(text)?.[1];
  const name = asked === undefined ? undefined : trimmed(asked);
  return name === undefined || own.includes(fold(name)) ? undefined : { name, email: null };
}

/** The name that goes with an address: one whose letters stand in it, else the last one said shortly before it. */
function nameOf(text: string, at: number, email: string): string | null {
  const local = plainly(email.split('@')[0] ?? '');
  const names = [...text.matchAll(new RegExp(NAME, 'gu'))].flatMap((found) => {
    const name = trimmed(found[0]);
    return name === undefined ? [] : [{ name, from: found.index, to: found.index + found[0].length }];
  });
  const fits = names.filter(({ name }) => name.split(' ').some((word) => plainly(word).length > 2 && local.includes(plainly(word))));
  const nearest = fits.sort(
    (a, b) => b.name.split(' ').length - a.name.split(' ').length || Math.abs(a.from - at) - Math.abs(b.from - at),
  )[0];
  const before = names.filter(({ name, to }) => to <= at && at - to < 120 && name.includes(' ')).at(-1);
  return (nearest ?? before)?.name ?? null;
}

/** A name without its title, and without a word that only begins a sentence. */
function trimmed(name: string): string | undefined {
  // “hilft Ihnen Frau Hölscher”: the name begins behind the last title.
  const words = (name.split(new RegExp(TITLE, 'u')).at(-1) ?? name).split(' ');
  while (NOBODY.test(words[0] ?? '')) words.shift();
  return words.length === 0 || words.every((word) => !/^\p{Lu}/u.test(word)) ? undefined : words.join(' ');
}
