/** Languages by the folded words that name them in en, de, nl, es, fr. */
const LANGUAGES: readonly (readonly [string, RegExp])[] = [
  ['English', /\b(?:english|englisch|engels|ingles|anglais)\b/],
  ['German', /\b(?:german|deutsch|duits|aleman|allemand)\b/],
  ['Dutch', /\b(?:dutch|niederlandisch|hollandisch|nederlands|neerlandes|holandes|neerlandais)\b/],
  ['French', /\b(?:french|franzosisch|frans|frances|francais)\b/],
  ['Spanish', /\b(?:spanish|spanisch|spaans|espanol|castellano|espagnol)\b/],
  ['Italian', /\b(?:italian|italienisch|italiaans|italiano|italien)\b/],
  ['Portuguese', /\b(?:portuguese|portugiesisch|portugees|portugues|portugais)\b/],
  ['Polish', /\b(?:polish|polnisch|pools|polaco|polonais|polski)\b/],
  ['Danish', /\b(?:danish|danisch|deens|danes|danois|dansk)\b/],
  ['Swedish', /\b(?:swedish|schwedisch|zweeds|sueco|suedois)\b/],
  ['Norwegian', /\b(?:norwegian|norwegisch|noors|noruego|norvegien)\b/],
  ['Finnish', /\b(?:finnish|finnisch|fins|finlandes|finnois)\b/],
  ['Czech', /\b(?:czech|tschechisch|tsjechisch|checo|tcheque)\b/],
  ['Hungarian', /\b(?:hungarian|ungarisch|hongaars|hungaro|hongrois)\b/],
  ['Romanian', /\b(?:romanian|rumanisch|roemeens|rumano|roumain)\b/],
  ['Bulgarian', /\b(?:bulgarian|bulgarisch|bulgaars|bulgaro|bulgare)\b/],
  ['Greek', /\b(?:greek|griechisch|grieks|griego|grec)\b/],
  ['Turkish', /\b(?:turkish|turkisch|turks|turco|turc)\b/],
  ['Ukrainian', /\b(?:ukrainian|ukrainisch|oekraiens|ucraniano|ukrainien)\b/],
  ['Russian', /\b(?:russian|russisch|ruso|russe)\b/],
  ['Arabic', /\b(?:arabic|arabisch|arabe)\b/],
  ['Catalan', /\b(?:catalan|katalanisch|catalaans|catala)\b/],
  ['Welsh', /\b(?:welsh|walisisch|gales|gallois)\b/],
];

const LEVELS: readonly (readonly [string, RegExp])[] = [
  [
    'native',
    /\b(?:native|mother tongue|first language|muttersprach\w*|moedertaal|nativ[oa]|lengua materna|materna|langue maternelle|maternelle)\b/,
  ],
  ['fluent', /\b(?:fluent(?:ly)?|fliess?end|verhandlungssicher|vloeiend|fluid[oa]|con fluidez|courant|couramment|full professional)\b/],
  ['good', /\b(?:good|very good|gut(?:e)?|sehr gut|goed|buen[oa]?|alto|bon(?:ne)?|conversational|working)\b/],
  ['basic', /\b(?:basic(?:s)?|some|beginner|grundkenntnisse|basis|redelijk|basico|bajo|medio|notions|debutant|scolaire)\b/],
];
const CEFR = /\b([abc][12])\b/;

/** The English name of the language folded words speak of. */
export function languageOf(folded: string): string | undefined {
  return LANGUAGES.find(([, words]) => words.test(folded))?.[0];
}

/** How well: a level of the Common European Framework (A1 to C2), else native, fluent, good or basic. */
export function levelOf(folded: string): string | undefined {
  return CEFR.exec(folded)?.[1]?.toUpperCase() ?? LEVELS.find(([, words]) => words.test(folded))?.[0];
}
