import { figuresIn } from '../skills/figures';
import { FORMER, OTHERS, PLANNED } from '../skills/standing';
import { rowOf, type Candidate, type Said } from '../said';

/** Things that are counted: how they are called behind a figure, and in a label. */
export interface Counted {
  readonly noun: RegExp;
  readonly label: RegExp;
  /** what makes it a count of something else */
  readonly against: RegExp;
  readonly most: number;
  /** “our second site”: the count is at least that */
  readonly ordinals?: RegExp;
}

export const SITES: Counted = {
  noun: /^\s*(?:\w+ ){0,2}?(?:sites?|locations?|nurseries|production sites?|growing sites?|holdings|standort\w*|betriebsstatte\w*|betriebsstandort\w*|produktionsstandort\w*|betriebe\b|locaties?|locatie|vestiging\w*|bedrijfslocatie\w*|teeltlocatie\w*|emplazamientos?|fincas?|centros? de produccion|centros?|sedes?|ubicaci\w*|sites? de production|exploitations?|implantations?|etablissements?|sedi|lokalizacj\w*|zaklad\w*)(?![\p{L}-])/u,
  label:
    /\bsites?\b|locations?|standort|betriebsstatte|locaties|vestiging|emplazamiento|centros de produccion|sedes|implantation|exploitations|lokalizacj|sedi\b/,
  against:
    /customer|client|garden cent|web|job|kunden|klant|client|jardiner|jardin|construction sites|building sites|baustelle|bouwplaats|delivery|lieferstell|supermarkets|filialen|markt|shops|visited|internet|nest/,
  most: 60,
  ordinals:
    /\b(second|third|fourth|zweite[nrs]?|dritte[nrs]?|tweede|derde|segund[oa]|tercer[oa]?|deuxieme|second|troisieme) (?:\w+ )?(?:site|location|nursery|standort\w*|betriebsstatte|locatie|vestiging|emplazamiento|centro|finca|sede)\b/,
};
export const EMPLOYEES: Counted = {
  noun: /^\s*(?:\w+ ){0,3}?(?:employees?|people|staff|colleagues|permanent staff|full-time\w*|workers|mitarbeite\w*|beschaftigte\w*|angestellte|leute|kolleg\w*|arbeitskrafte|medewerkers?|mensen|werknemers|personeelsleden|vaste krachten|empleados?|trabajador\w*|personas|salaries|collaborateurs|personnes|employes|dipendenti|persone|pracownik\w*|osob)(?![\p{L}-])/u,
  label:
    /employees|staff|headcount|mitarbeite|beschaftigte|medewerkers|personeel|empleados|plantilla|salaries|effectif|dipendenti|zatrudni/,
  against:
    /visitors|besucher|bezoekers|visitantes|visiteurs|customers|kunden|klanten|seasonal|saison|seizoen|temporad|saisonnier|households|families|course|applicants|trained|accidents/,
  most: 20_000,
};
const ORDINAL: readonly (readonly [RegExp, number])[] = [
  [/^(?:second|zweite|tweede|segund|deuxieme)/, 2],
  [/^(?:third|dritte|derde|tercer|troisieme)/, 3],
  [/^fourth/, 4],
];
const BOTH =
  /\bboth (?:of our )?(?:sites|places|nurseries|locations)\b|\bbeide[nr]? (?:standorte|betriebe|locaties|vestigingen|bedrijven)\b|\bamb[oa]s (?:fincas|centros|sedes)\b|\bles deux (?:sites|exploitations)\b/;
const EMPLOYS =
  /employ|team of|staff of|work(?:s)? (?:for|at|with) us|beschaftig|team von|arbeiten bei|team van|werken bij|in dienst|emplea|equipo de|plantilla|trabajan|emploi|equipe de|travaillent|occupa|zatrudnia/;

/** How many there are now, as a sentence or a row says. */
export function countIn(said: Said, what: Counted): readonly Candidate[] {
  const { folded } = said;
  const row = rowOf(said);
  const labelled = row !== undefined && what.label.test(row.label);
  if (OTHERS.test(folded) || what.against.test(folded)) return [];
  const out: Candidate[] = [];
  for (const figure of figuresIn(folded)) {
    if (figure.value % 1 !== 0 || figure.value < 1 || figure.value > what.most) continue;
    const before = folded.slice(0, figure.from);
    const after = folded.slice(figure.to);
    const inValue = labelled && before.endsWith(': ');
    if (!inValue && !what.noun.test(after)) continue;
    if (/^\s*(?:ha|m²|%|years?|jahre|jaar|anos|ans)\b/.test(after)) continue;
    const clause = `${before.split(/[,;]/).at(-1) ?? ''} ${after.split(/[,;]/)[0] ?? ''}`;
    if (FORMER.test(clause) || PLANNED.test(clause)) continue;
    if (
      /\b(?:between|zwischen|tussen|entre)\s*$/.test(before) ||
      /^\s*(?:-|–|to|bis|tot)\s*\d/.test(after) ||
      /\d\s*(?:-|–|to|bis|tot)\s*$/.test(before)
    )
      continue;
    if (
      /\b(?:more|another|further|weitere|nog|andere|otros?|autres?|new|neue|nieuwe|nuevos?|nouveaux)\s*$/.test(before) ||
      /^\s*(?:more|other|further|new|weitere|neue|nieuwe|andere|otros|mas|autres|nuevos|nouveaux)\b/.test(after)
    )
      continue;
    if (
      /\b(?:one|eine[rnsm]?|einer|een|uno?a?|une?) (?:of|der|van|de)\b/.test(folded.slice(figure.from, figure.to + 8)) &&
      figure.value === 1 &&
      !inValue
    )
      continue;
    const word = folded.slice(figure.from, figure.to);
    // “ein Standort”, “un site”: the article alone counts nothing.
    if (
      figure.value === 1 &&
      // “één locatie”: the accents make it a number.
      !/\béén\b/iu.test(said.text) &&
      /^(?:a|an|ein|eine|einen|einem|einer|een|un|una|uno|une)$/.test(word) &&
      !/\b(?:an|auf|sur)\s*$/.test(before) &&
      !/\b(?:only|just|single|alone|nur|einzige\w*|slechts|solo|unico|seule?|unique|all\w*|everything|alles|todo|tout)\b/.test(clause)
    )
      continue;
    const score = (inValue ? 5 : 3) + (what === EMPLOYEES && EMPLOYS.test(folded) ? 1 : 0);
    out.push({ value: figure.value, score, said, date: said.date });
  }
  // “Sites: Vechta and Lohne”: the names are counted.
  if (out.length === 0 && labelled && row && what === SITES && !/\d/.test(row.value)) {
    const names = row.value.split(/,|;|\s(?:and|und|en|y|et|e|i|&)\s/).map((name) => name.trim());
    if (names.every((name) => /^\p{Lu}/u.test(name) && name.length < 40))
      out.push({ value: names.length, score: 3.5, said, date: said.date });
  }
  if (out.length === 0 && what.ordinals && !FORMER.test(folded) && !PLANNED.test(folded)) {
    if (BOTH.test(folded)) return [{ value: 2, score: 2.2, said, date: said.date }];
    const named = what.ordinals.exec(folded)?.[1];
    const value = named === undefined ? undefined : ORDINAL.find(([word]) => word.test(named))?.[1];
    if (value !== undefined) out.push({ value, score: 2, said, date: said.date });
  }
  return out;
}
