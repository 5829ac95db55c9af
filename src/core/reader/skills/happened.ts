/**
 * What a year is the year of: folded verbs and nouns of en, de, nl, es and fr, by what happened. A house built in 1904 and done up in
 * 2019 answers two different questions.
 */
const HAPPENED = {
  begun:
    /\b(?:found(?:ed|ing|ers?)|establish\w*|start(?:ed)? (?:up|out|in|by|the firm|business)|began|set up|opened (?:its|his|her|their|our) doors|gegrundet\w*|grundung\w*|gegr|opgericht|oprichting|begonnen|fundad\w*|fundacion|fund(?:o|aron)|fonde\w*|fondation|cree\w*|creation|opened|open(?:ed)? (?:in|since)|eroffnet\w*|eroffnung|geopend|opening|abrio|abierto|inaugur\w*|ouvert\w*|ouverture)\b/,
  built:
    /\b(?:built|erected|constructed|construction|gebaut|erbaut|errichtet|neubau|bau|baujahr|gebouwd|bouw|bouwjaar|nieuwbouw|construid[oa]s?|construyo|construit\w*|construction|batie?s?)\b/,
  renewed:
    /\b(?:renovat\w*|refurbish\w*|resurfac\w*|re-?sand\w*|restor\w*|moderni\w*|done up|overhaul\w*|rebuilt|renoviert|renovierung|saniert|sanierung|umgebaut|umbau|gerenoveerd|renovatie|verbouw\w*|opgeknapt|reforma\w*|renovad\w*|rehabilit\w*|renove\w*|refait\w*|refection)\b/,
  extended:
    /\b(?:extend\w*|extension|expand\w*|expansion|enlarged|annexe?|erweiter\w*|anbau|angebaut|ausgebaut|uitgebreid|uitbreiding|ampliad\w*|ampliacion|amplio|agrandi\w*|agrandissement|extension)\b/,
  got: /\b(?:get|got|gets|bought|purchas\w*|deliver(?:ed|y)|install\w*|put in|fitted|arriv\w*|came|acquired|commissioned|started up|in use|took delivery|geliefert|eingebaut|einbau|angeschafft|anschaffung|gekauft|kam|kamen|aufgestellt|in betrieb|geleverd|geplaatst|aangeschaft|gekocht|geinstalleerd|in gebruik|compr\w+|instal\w*|llego|llegaron|puesta en marcha|entro|achet\w*|livre\w*|arrive\w*|mise? en service)\b/,
  moved: /\b(?:moved|relocat\w*|umgezogen|umzug|verhuis\w*|trasla\w*|mudanza|demenag\w*)\b/,
} as const;

type Happened = keyof typeof HAPPENED;
const KINDS = Object.keys(HAPPENED) as readonly Happened[];

/** What folded words speak of having happened. */
export const happenedIn = (folded: string): readonly Happened[] => KINDS.filter((kind) => HAPPENED[kind].test(folded));

const EVERY: readonly (readonly [Happened, RegExp])[] = KINDS.map((kind) => [kind, new RegExp(HAPPENED[kind].source, 'g')]);

/** What is said to have happened nearest to a place in folded words: “built in 1872 and done up in 2008”. Several where they are as near. */
export function happenedNear(folded: string, from: number, to: number): readonly Happened[] {
  let nearest = Number.POSITIVE_INFINITY;
  let found: Happened[] = [];
  for (const [kind, words] of EVERY)
    for (const met of folded.matchAll(words)) {
      const away = met.index >= to ? met.index - to : Math.max(0, from - met.index - met[0].length);
      if (away > nearest) continue;
      if (away < nearest) found = [];
      nearest = away;
      found.push(kind);
    }
  return found;
}
