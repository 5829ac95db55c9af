import type { Instant } from '../../base';
import type { Said } from '../said';
import { datesIn, isoOf } from '../skills/dates';
import { figuresIn } from '../skills/figures';
import { tokenAt } from '../tokens';
import type { Candidate } from './candidate';

const SINCE = /(?:\b(?:since|from|seit|ab|sinds|vanaf|desde|depuis|dal|od))\s*(?:the year |dem jahr |el ano |l'annee )?$/;
const UNTIL = /(?:\b(?:until|till|to|bis|tot|hasta|jusqu'en|fino al|do))\s*$|(?:-|–)\s?$/;
const IN = /(?:\b(?:in|im|im jahr|en|anno|nel|w|of))\s*$/;
const COPYRIGHT = /(?:©|\(c\)|copyright)[^.]{0,20}$/;

/** “Twelve years old”, “vor sechs Jahren”, “il y a neuf ans”, “desde hace quince años”: group 1 stands before the figure. */
const AGE_AFTER = /^\s(?:years?|yrs)\s(?:ago|old|back)\b|^\s(?:jahre?|jaar|anos?|ans)\s(?:alt|oud|geleden)\b|^-(?:year|jahrig)/;
const AGE_BEFORE =
  /\b(?:vor|seit|il y a|depuis|(?:desde )?hace|sinds|al|for(?: the last)?)\s(?:(?:about|rund|etwa|ruim|unos|environ|uber|gut)\s)?$/;
const YEARS_AFTER = /^\s(?:years?|jahren?|jaar|anos?|ans)\b/;

/** Years told as an age: so many years before the day it is said on. */
function agesIn(said: Said, now: Instant): readonly Candidate[] {
  const year = new Date(said.date ?? now).getUTCFullYear();
  return figuresIn(said.folded).flatMap((figure): readonly Candidate[] => {
    const after = said.folded.slice(figure.to, figure.to + 16);
    const told =
      AGE_AFTER.test(after) || (YEARS_AFTER.test(after) && AGE_BEFORE.test(said.folded.slice(Math.max(0, figure.from - 28), figure.from)));
    if (!told || !Number.isInteger(figure.value) || figure.value < 1 || figure.value > 300) return [];
    return [
      {
        value: year - figure.value,
        said,
        from: tokenAt(said.tokens, figure.from),
        to: tokenAt(said.tokens, figure.to) + 1,
        marks: { age: 1 },
      },
    ];
  });
}

/** “Recently” is no year. */
const VAGUE = /^(?:recently|just now|kurzlich|in diesen tagen|onlangs|recientemente|recemment|ces jours-ci)$/;

/** Years (or days) named in a sentence, and the day the sentence itself is of. */
export function datesOf(said: Said, kind: 'year' | 'date', now: Instant): readonly Candidate[] {
  const { folded, tokens } = said;
  const out: Candidate[] = [];
  if (kind === 'year') out.push(...agesIn(said, now));
  const dates = datesIn(folded, said.date ?? now).filter((date) => date.start <= now && !VAGUE.test(folded.slice(date.from, date.to)));
  for (const date of dates) {
    const before = folded.slice(Math.max(0, date.from - 24), date.from);
    out.push({
      value: kind === 'year' ? new Date(date.start).getUTCFullYear() : isoOf(date),
      said,
      from: tokenAt(tokens, date.from),
      to: tokenAt(tokens, date.to),
      marks: {
        since: SINCE.test(before) ? 1 : 0,
        until: UNTIL.test(before) ? 1 : 0,
        in: IN.test(before) ? 1 : 0,
        copyright: COPYRIGHT.test(folded.slice(Math.max(0, date.from - 40), date.from)) ? 1 : 0,
        exact: date.grain === 'year' ? 0 : 1,
        alone: dates.length === 1 ? 1 : 0,
        relative: /\d{4}/.test(folded.slice(date.from, date.to)) ? 0 : 1,
      },
    });
  }
  if (out.length === 0 && said.date !== null && said.date <= now)
    out.push({
      value: kind === 'year' ? new Date(said.date).getUTCFullYear() : new Date(said.date).toISOString().slice(0, 10),
      said,
      from: 0,
      to: 0,
      marks: { dateline: 1 },
    });
  return out;
}
