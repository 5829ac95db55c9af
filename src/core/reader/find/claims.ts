import type { Instant } from '../../base';
import { rowOf, type Said } from '../said';
import { datesIn } from '../skills/dates';
import { ASPIRES, DROPPED, NOT } from '../skills/standing';
import type { Hit } from '../cues';
import type { Candidate } from './candidate';

const YES = /^\W*(?:yes|yep|certainly|of course|we do|there is|ja|jawohl|naturlich|jazeker|oui|bien sur|si|claro)\b/;
const NO = /^\W*(?:no|none|sorry|not (?:yet|at)|we don't|nein|leider nein|nee|helaas|non|keine?)\b/;
const OFFERS =
  /\b(?:we (?:have|offer|run|use|are|keep|hold)|there (?:is|are)|our|wir haben|bieten|es gibt|unsere?|wij hebben|er is|er zijn|onze|tenemos|hay|nuestr[oa]s?|nous avons|il y a|notre|nos)\b/;
const MONTH = 30.44 * 86_400_000;

/** The stretch of words that belongs to a hit: its clause, or the whole when it is short. */
function clauseText(said: Said, hit: Hit): string {
  const number = said.tokens[hit.from]?.clause;
  const own = said.tokens.filter((token) => token.clause === number);
  return said.folded.slice(own[0]?.from ?? 0, own.at(-1)?.to ?? said.folded.length);
}

/** What a sentence says of a habit or a property: yes or no. */
export function claimsIn(said: Said, hits: readonly Hit[], headHits: readonly Hit[]): readonly Candidate[] {
  const met = hits.filter((hit) => hit.cue.role !== 'not' && hit.cue.role !== 'against');
  const row = rowOf(said);
  const put = (value: boolean, hit: Hit | undefined, marks: Record<string, number>): Candidate => ({
    value,
    said,
    from: hit?.from ?? 0,
    to: hit?.to ?? 0,
    marks: { yes: value ? 1 : 0, no: value ? 0 : 1, ...marks },
  });
  if (said.text.trimEnd().endsWith('?')) return [];
  // A question as a heading, and its answer: “Is there parking? – No, but …”
  if (met.length === 0) {
    if (headHits.length === 0 || !said.head.trimEnd().endsWith('?')) return [];
    if (YES.test(said.folded)) return [put(true, undefined, { answers: 1 })];
    if (NO.test(said.folded)) return [put(false, undefined, { answers: 1 })];
    return [];
  }
  const [hit] = met;
  if (row) {
    if (/^\W*(?:yes|ja|si|oui|tak|✓|x)\b|^✓/.test(row.value.toLowerCase())) return [put(true, hit, { answers: 1 })];
    if (/^\W*(?:no|none|nein|nee|non|nie|keine?|[-–])(?:\b|$)/.test(row.value.toLowerCase())) return [put(false, hit, { answers: 1 })];
  }
  const best = met.reduce((a, b) => (b.to - b.from > a.to - a.from || b.strength > a.strength ? b : a));
  const clause = clauseText(said, best);
  const denied = NOT.test(clause);
  const aspired = !denied && ASPIRES.test(said.folded);
  const deniedElsewhere = !denied && NOT.test(said.folded);
  return [
    put(!denied, best, {
      aspired: aspired ? 1 : 0,
      offers: OFFERS.test(said.folded) ? 1 : 0,
      deniedElsewhere: deniedElsewhere ? 1 : 0,
      opensNo: NO.test(said.folded) ? 1 : 0,
      phrase: best.to - best.from > 1 ? 1 : 0,
    }),
    ...(aspired ? [put(false, best, { notYet: 1 })] : []),
    ...(deniedElsewhere ? [put(false, best, { deniedElsewhere: 1, opensNo: NO.test(said.folded) ? 1 : 0 })] : []),
  ];
}

const ANNOUNCES =
  /\b(?:announc\w+|new|open(?:s|ed|ing)?|start(?:s|ed)?|begin|began|begun|broke ground|build(?:s|ing)?|built|plan(?:s|ned|ning)?|will|adding|added|extend\w*|expand\w*|signed|approved|permission|neu\w*|plan\w*|bau\w*|entsteht|eroffn\w*|beginn\w*|erweiter\w*|genehmigt|nieuw\w*|bouw\w*|uitbreid\w*|opent|vergunning|nuev[oa]s?|construi\w*|ampli\w*|obras|inaugur\w*|nouve\w+|agrand\w*|travaux|construction|permis)\b/;

/** Whether something was announced within the months asked for: each sentence that speaks of it, with its day. */
export function eventsIn(said: Said, hits: readonly Hit[], now: Instant, months: number): readonly Candidate[] {
  const met = hits.filter((hit) => hit.cue.role !== 'not' && hit.cue.role !== 'against');
  const [hit] = met;
  if (!hit || said.text.trimEnd().endsWith('?')) return [];
  const named = datesIn(said.folded, said.date ?? now);
  const latest = named.length > 0 ? Math.max(...named.map((date) => date.start)) : undefined;
  const day = said.date ?? latest;
  const since = now - months * MONTH;
  const recent = day !== undefined && day >= since;
  const denied = NOT.test(said.folded) || DROPPED.test(said.folded);
  const marks = {
    announces: ANNOUNCES.test(said.folded) ? 1 : 0,
    recent: recent ? 1 : 0,
    passed: day !== undefined && !recent ? 1 : 0,
    undated: day === undefined ? 1 : 0,
    ahead: latest !== undefined && latest > now ? 1 : 0,
    dropped: DROPPED.test(said.folded) ? 1 : 0,
  };
  const value = !denied && (day === undefined || recent);
  return [{ value, said, from: hit.from, to: hit.to, marks: { ...marks, yes: value ? 1 : 0, no: value ? 0 : 1 } }];
}
