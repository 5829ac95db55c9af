import { rowOf, type Said } from '../said';
import { monthNamed } from '../skills/dates';
import type { Candidate } from './candidate';

const ASKED = /\b(?:months?|monate?n?|maand(?:en)?|mes(?:es)?|mois)\b/;
/** What is asked for is that something is shut: open all the year round, it is so in no month. */
const SHUT_ASKED = /\b(?:closed|shut|closure|geschlossen|zu|betriebsurlaub|gesloten|dicht|cerrad[oa]s?|cierra|fermee?s?|fermeture)\b/;
const ALL_YEAR =
  /\b(?:all (?:the )?year|year[- ]round|twelve months|365 days|ganzjahrig|das ganze jahr|durchgehend|het hele jaar|jaarrond|todo el ano|toute l'annee)\b/;
const JOINED = /^\s?(?:,|and|und|en|y|et|,? ?as well as|sowie|&|\/)\s?$/;
const RANGED = /^\s?(?:to|until|till|through|bis|tot(?: en met)?|t\/m|a|hasta|al?|au|jusqu'en|-|–|and|et|und|y)\s?$/;
const RANGE_BEFORE = /\b(?:from|between|von|vom|zwischen|van|tussen|desde|entre|de|du|d')\s?$/;
const PLAIN_RANGE = /^\s?(?:to|until|till|through|bis|tot(?: en met)?|t\/m|hasta|jusqu'en|-|–)\s?$/;

/** Whether months are asked for. */
export const monthsAsked = (wording: string): boolean => ASKED.test(wording);

const NAMES = Array.from({ length: 12 }, (_, month) =>
  new Intl.DateTimeFormat('en', { month: 'long', timeZone: 'UTC' }).format(Date.UTC(2026, month, 1)),
);
/** The months from one to another, over the end of the year where need be. */
const through = (first: number, last: number): readonly number[] =>
  Array.from({ length: ((last - first + 12) % 12) + 1 }, (_, i) => (first + i) % 12);

/** Months a sentence names, with their English names: “January and February”, “from November to March”; “none” for open all year. */
export function monthsIn(said: Said, wording: string): readonly Candidate[] {
  const { folded, tokens } = said;
  const words = said.text.match(/[\p{L}\p{N}]+/gu) ?? [];
  const named = tokens.flatMap((token, at) => {
    const month = token.folded.length < 3 ? -1 : monthNamed(token.folded);
    // “may” and “march” are verbs.
    const small = (said.language === 'en' || said.language === 'de') && !/^\p{Lu}/u.test(words[at] ?? '');
    return month < 0 || small || token.folded === 'mar' ? [] : [{ month, at }];
  });
  const out: Candidate[] = [];
  for (let i = 0; i < named.length; i++) {
    const first = named[i];
    if (!first) continue;
    const months = [first.month];
    let last = first;
    let ranged = 0;
    const between = (to: number): string => folded.slice(tokens[last.at]?.to ?? 0, tokens[to]?.from ?? 0);
    for (let next = named[i + 1]; next; next = named[i + 1]) {
      const gap = between(next.at);
      const led = RANGE_BEFORE.test(folded.slice(0, tokens[last.at]?.from ?? 0));
      if ((led && RANGED.test(gap)) || PLAIN_RANGE.test(gap)) {
        months.push(...through(last.month, next.month).slice(1));
        ranged = 1;
      } else if (JOINED.test(gap)) months.push(next.month);
      else break;
      last = next;
      i += 1;
    }
    out.push({
      value: [...new Set(months)].map((month) => NAMES[month]).join(', '),
      said,
      from: first.at,
      to: last.at + 1,
      marks: { months: 1, ranged, rowValue: rowOf(said) ? 1 : 0 },
    });
  }
  if (SHUT_ASKED.test(wording) && ALL_YEAR.test(folded))
    out.push({ value: 'none', said, from: 0, to: tokens.length, marks: { allYear: 1 } });
  return out;
}
