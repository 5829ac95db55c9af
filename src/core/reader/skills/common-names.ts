import { fold } from '../../base';

const TONGUES = ['en', 'de', 'nl', 'fr', 'es', 'it', 'pl'] as const;
const LANGUAGES =
  'en de nl fr es it pl pt ca eu gl cs sk sl hr sr hu ro bg el tr ru uk be lt lv et fi sv da nb no is ga gd cy mt sq mk lb fy af ar he fa hi ur bn zh ja ko vi th id ms sw la eo'.split(
    ' ',
  );

let known: ReadonlyMap<string, string> | undefined;
/** By folded name in any of our languages: the English name of a language (Unicode CLDR, by way of the runtime). */
function names(): ReadonlyMap<string, string> {
  if (known) return known;
  const found = new Map<string, string>();
  const english = new Intl.DisplayNames('en', { type: 'language' });
  for (const tongue of TONGUES) {
    const said = new Intl.DisplayNames(tongue, { type: 'language' });
    for (const code of LANGUAGES) {
      const name = said.of(code);
      if (name !== undefined) found.set(fold(name), english.of(code) ?? name);
    }
  }
  return (known = found);
}

/** Most of the items must be names of languages before any is taken for one. */
const MOST = 0.6;

/** A list of languages in whatever language, with their English names; any other list as it is. “Deutsch als Fremdsprache” is German. */
export function commonNames(items: readonly string[]): readonly string[] {
  const told = items.map((item) => names().get(fold(item)) ?? names().get(fold(item).split(' ')[0] ?? ''));
  const sure = told.filter((name) => name !== undefined).length;
  return items.length > 0 && sure / items.length >= MOST ? items.map((item, i) => told[i] ?? item) : items;
}

/** The languages a text names, by their English names. */
export function tonguesIn(words: readonly string[]): readonly string[] {
  return words.flatMap((word) => names().get(word) ?? []);
}
