import { plainFold } from './lines';

/** Languages that many people speak, by ISO 639-1; their names in every language papers come in are known to the platform (CLDR). */
const CODES =
  'en de nl fr es it pt pl da sv nb fi cs sk sl hr sr bs hu ro bg el tr uk ru be ar he fa ur hi bn pa ta te ml mr gu kn ne si zh ja ko vi th id ms tl sw am so ha yo ig zu af ca eu gl cy ga gd lt lv et is mt lb sq mk hy ka az kk uz mn ps ku fy'.split(
    ' ',
  );
const IN = ['en', 'de', 'nl', 'fr', 'es'];
/** What people say besides. */
const ALSO: Readonly<Record<string, string>> = {
  castellano: 'es',
  castilian: 'es',
  valenciano: 'ca',
  flemish: 'nl',
  vlaams: 'nl',
  flamisch: 'nl',
  hollandisch: 'nl',
  hollands: 'nl',
  holandes: 'nl',
  mandarin: 'zh',
  cantonese: 'zh',
  farsi: 'fa',
  norwegian: 'nb',
  norwegisch: 'nb',
  noors: 'nb',
  norvegien: 'nb',
  noruego: 'nb',
  tagalog: 'tl',
};

let known: ReadonlyMap<string, string> | undefined;
/** ISO 639-1 by folded name; a name of several words as its first. */
function names(): ReadonlyMap<string, string> {
  if (known) return known;
  const out = new Map(Object.entries(ALSO));
  for (const code of CODES)
    for (const language of [...IN, code]) {
      const name = plainFold(new Intl.DisplayNames(language, { type: 'language' }).of(code) ?? '');
      if (name !== '' && name !== code && !out.has(name)) out.set(name, code);
    }
  known = out;
  return out;
}

const LEVELS: readonly (readonly [string, RegExp])[] = [
  [
    'native',
    /\b(?:native|mother ?tongue|first language|muttersprach\w*|moedertaal|nativ[oa]|lengua materna|materna|langue maternelle|maternelle)\b/,
  ],
  ['fluent', /\b(?:fluent(?:ly)?|fliess?end|verhandlungssicher|vloeiend|fluid[oa]|con fluidez|courant|couramment|full professional)\b/],
  ['good', /\b(?:good|very good|gut(?:e)?|sehr gut|goed|buen[oa]?|alto|bon(?:ne)?|conversational|working)\b/],
  [
    'basic',
    /\b(?:basic(?:s)?|some|beginner|grundkenntnisse|schulkenntnisse|school level|elementary|anfanger|nociones|basiskennis|beginnend|basis|redelijk|basico|bajo|medio|notions|debutant|scolaire)\b/,
  ],
];
const CEFR = /\b([abc][12])\b/;

/** ISO 639-1 of the language folded words speak of. */
export function languageCodeOf(folded: string): string | undefined {
  for (const [word] of folded.matchAll(/\p{L}{3,}/gu)) {
    // “Deutschkenntnisse”, “Englische Sprache”
    const code = names().get(word) ?? names().get(word.replace(/(?:kenntnisse|e|es|er)$/, ''));
    if (code !== undefined) return code;
  }
  return undefined;
}

/** The English name of the language folded words speak of. */
export function languageOf(folded: string): string | undefined {
  const code = languageCodeOf(folded);
  return code === undefined ? undefined : code === 'nb' ? 'Norwegian' : new Intl.DisplayNames('en', { type: 'language' }).of(code);
}

/** How well: a level of the Common European Framework (A1 to C2), else native, fluent, good or basic. */
export function levelOf(folded: string): string | undefined {
  return CEFR.exec(folded)?.[1]?.toUpperCase() ?? LEVELS.find(([, words]) => words.test(folded))?.[0];
}
