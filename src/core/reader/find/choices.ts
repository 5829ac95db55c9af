import { rowOf, type Said } from '../said';
import { DROPPED, ENDED, NOT, RESERVE } from '../skills/standing';
import type { Hit } from '../cues';
import type { Candidate } from './candidate';

const NEGATED = /^(?:not|no|none|without|kein\w*|nicht|ohne|geen|niet|sin|ningun\w*|pas|sans|aucun\w*) ?/;

/** “… or …”: what is left to somebody's choice is no answer. */
const EITHER = / (?:or|oder|of|o|ou) /;

/** What comes second, or besides: “followed by …”. */
const BESIDES =
  /(?:\b(?:followed by|then|also|as well as|besides|a little|some|occasionally|gefolgt von|dann|danach|auch|daneben|gelegentlich|gevolgd door|daarna|ook|soms|seguid[oa]s? (?:de|por)|luego|tambien|a veces|suivie?s? (?:de|par|du)|puis|aussi|parfois)\s+(?:\w+\s+)?)$/;

/**
 * Options named in a sentence; the longest words win where two overlap (“not open” over “open”). `taken`: words of the firm's own
 * name, which says little of what it does today.
 */
export function optionsIn(said: Said, hits: readonly Hit[], taken: ReadonlySet<string>): readonly Candidate[] {
  const named = hits
    .filter((hit) => hit.cue.role === 'option')
    .sort((a, b) => b.to - b.from - (a.to - a.from) || b.cue.weight - a.cue.weight || b.strength - a.strength);
  const kept: Hit[] = [];
  for (const hit of named) if (!kept.some((other) => other.from < hit.to && hit.from < other.to)) kept.push(hit);
  const different = new Set(kept.map((hit) => hit.cue.option)).size;
  const row = rowOf(said);
  return kept.map((hit): Candidate => {
    const option = hit.cue.option ?? '';
    const clause = said.tokens[hit.from]?.clause;
    let start = hit.from;
    while (start > hit.from - 4 && start > 0 && said.tokens[start - 1]?.clause === clause) start -= 1;
    const before = said.folded.slice(said.tokens[start]?.from ?? 0, said.tokens[hit.from]?.from ?? 0);
    const denied = !NEGATED.test(option) && NOT.test(before);
    let end = hit.to;
    while (end < said.tokens.length && said.tokens[end]?.clause === clause) end += 1;
    const behind = said.folded.slice(said.tokens[hit.to - 1]?.to ?? 0, said.tokens[end - 1]?.to ?? said.folded.length);
    const over = !NEGATED.test(option) && (ENDED.test(behind) || DROPPED.test(behind));
    return {
      value: option,
      said,
      from: hit.from,
      to: hit.to,
      marks: {
        optionOwn: hit.strength * hit.cue.weight,
        partial: hit.cue.weight < 1 ? 1 : 0,
        otherForm:
          hit.to - hit.from === 1 && hit.strength === 1 && hit.cue.forms?.has(said.tokens[hit.from]?.folded ?? '') !== true ? 1 : 0,
        optionLong: hit.to - hit.from > 1 ? 1 : 0,
        only: different === 1 ? 1 : 0,
        first: kept.every((other) => other.from >= hit.from) ? 1 : 0,
        many: different > 2 ? 1 : 0,
        deniedOption: denied ? 1 : 0,
        endedOption: over ? 1 : 0,
        eitherOr: different > 1 && EITHER.test(said.folded.slice(said.tokens[kept.at(0)?.from ?? 0]?.from ?? 0)) ? 1 : 0,
        ownName: said.tokens.slice(hit.from, hit.to).every((token) => taken.has(token.folded)) ? 1 : 0,
        besides: BESIDES.test(before) ? 1 : 0,
        reserved: RESERVE.test(before) ? 1 : 0,
        negative: NEGATED.test(option) ? 1 : 0,
        rowValue: row ? 1 : 0,
      },
    };
  });
}
