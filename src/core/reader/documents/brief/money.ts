/** What a project may cost, and sums that are no budget. */
import { moneyIn, type Money } from '../../skills/quantities';
import type { Sentence } from './sentences';

export interface Budget {
  readonly amount: number;
  /** of a range its upper end */
  readonly upTo: number | null;
  /** ISO 4217 */
  readonly currency: string;
  readonly kind: 'fixed' | 'ceiling' | 'target' | 'range';
  /** the words of the sum as they stand */
  readonly words: string;
  readonly quote: string;
}

const FOR =
  /budget|spend|afford|approved|set aside|available|at our disposal|allow(?:ed|ance) for|for this project|envelope|up to|at most|no more than|kostenrahmen|rahmen|ausgeben|hochstens|maximal|bewilligt|vorgesehen|zur verfugung|eingeplant|bereitgestellt|richtbedrag|besteden|beschikbaar|uittrekken|gereserveerd|presupuest|gastar|disponemos|disponible|previst[oa]|destinad|enveloppe|depenser|prevu|alloue|accorde|plafond|richtpreis|richtwert|zielpreis|kosten(?:punkt)?\b|cost\b|worth\b|grant\b|price\b|prijs\b|precio\b|prix\b|preis\b/;
const NOT_FOR =
  /turnover|revenue|sales of|loss(?:es)?\b|lost|insur|damage|last year|previous|former|already (?:paid|spent|ordered)|was paid|came from|roof|repair|per (?:year|month|week|day|hour|metre|meter|unit|piece|m2|ha)|a (?:year|month|week|piece)\b|each\b|penalt|fine\b|for comparison|salary|wages|share capital|start(?:s|ing)? at|list price|offered|offer of|quoted|competitor|loan for|umsatz|verlust|schaden|versicher|bereits (?:bezahlt|beauftragt)|schon bezahlt|im vorjahr|letztes jahr|pro (?:jahr|monat|stunde|woche|tag|stuck)|je (?:stunde|monat|jahr|quadratmeter|stuck)|vertragsstrafe|stammkapital|zum vergleich|gehort nicht|angebot von|omzet|verlies|schade|verzeker|al betaald|reeds betaald|vorig jaar|per (?:jaar|maand|uur|stuk|dag)|boete|hoort hier niet|ter vergelijking|facturacion|perdidas|seguro|ya (?:pagad|encargad)|ano pasado|al (?:ano|mes|dia)|por (?:hora|mes|ano)|penalizacion|no incluye|chiffre d'affaires|perte|assur|deja (?:paye|commande)|l'an dernier|par (?:an|mois|heure|jour)|penalite|a titre de comparaison|ne fait pas partie/;
const CEILING =
  /up to|at most|no more|not more|maximum|\bmax\b|ceiling|limit|not exceed|under no circumstances|not a penny|cannot go over|upper (?:limit|figure)|hochstens|maximal|obergrenze|nicht mehr als|nicht uberschreiten|bis zu|deckel|hooguit|ten hoogste|niet meer dan|bovengrens|maximo|como mucho|no mas de|hasta|tope|techo|au plus|plafond|pas plus|maximal|jusqu'a|sans depasser|ne pas depasser/;
const TARGET =
  /about|around|approx|roughly|some\b|target|in the region|order of|aim(?:ing)? (?:for|at)|guide|indicative|estimate|richt(?:bedrag|prijs|preis|wert)|etwa|rund\b|ungefahr|circa|\bca\b|zirka|grossenordnung|zielpreis|angepeilt|ongeveer|rond de|schatting|aproximad|alrededor|en torno|unos\b|orientativ|estimad|environ|autour de|ordre de|indicati|estim|vise/;

export function budgetOf(sentences: readonly Sentence[]): Budget | null {
  const found = sentences.flatMap((sentence, order) => {
    const sums = moneyIn(sentence.even).filter((sum) => sum.value >= 100);
    return groups(sentence, sums).map((sum) => ({ sum, score: scoreOf(sentence, sum) - order * 0.0001 }));
  });
  const [best] = [...found].sort((a, b) => b.score - a.score);
  return best && best.score > 0.9 ? best.sum : null;
}

interface Sum extends Budget {
  readonly from: number;
  readonly to: number;
}

const BETWEEN = /^ ?(?:€|eur\b|euros?\b|£|gbp\b|\$)? ?(?:-|–|—|to|and|bis|und|tot|en|a|y|et|à) ?(?:€|eur|£|gbp|\$|us\$)? ?$/;

/** Sums of a sentence; two of them as the ends of a range. “20,000 to 30,000 €” says its currency once. */
function groups(sentence: Sentence, sums: readonly Money[]): readonly Sum[] {
  const out: Sum[] = [];
  for (let i = 0; i < sums.length; i++) {
    const sum = sums[i];
    if (!sum) continue;
    const next = sums[i + 1];
    if (next && next.currency === sum.currency && next.value > sum.value && BETWEEN.test(sentence.even.slice(sum.to, next.from))) {
      out.push(made(sentence, sum.from, next.to, sum.value, next.value, sum.currency));
      i++;
      continue;
    }
    const before = /(\d[\d.,' ]{0,14}\d|\d{1,3})( ?k)? ?(?:€|eur)? ?(?:-|–|to|and|bis|und|tot|en|a|y|et) ?(?:€ ?)?$/.exec(
      sentence.even.slice(0, sum.from),
    );
    const low = before
      ? Number((before[1] ?? '').replace(/[^\d]/g, '')) *
        (before[2] === undefined ? (sum.value >= 1000 && /^\d{1,3}$/.test(before[1] ?? '') ? 1000 : 1) : 1000)
      : Number.NaN;
    if (before && low > 0 && low < sum.value && low * 20 > sum.value)
      out.push(made(sentence, before.index, sum.to, low, sum.value, sum.currency));
    else out.push(made(sentence, sum.from, sum.to, sum.value, null, sum.currency));
  }
  return out;
}

function made(sentence: Sentence, from: number, to: number, amount: number, upTo: number | null, currency: string): Sum {
  const sign = /(?:[€£$]|us\$|eur|gbp|usd|chf) ?$/.exec(sentence.even.slice(0, from))?.[0] ?? '';
  const unit = /^ ?(?:€|eur\b|euros?|£|gbp|pounds?|chf|dollars?|,-|,–)/.exec(sentence.even.slice(to))?.[0] ?? '';
  const clause = clauseAround(sentence.folded, from, to);
  return {
    amount,
    upTo,
    currency,
    kind: upTo !== null ? 'range' : CEILING.test(clause) ? 'ceiling' : TARGET.test(clause) ? 'target' : 'fixed',
    words: sentence.text.slice(from - sign.length, to + unit.length).trim(),
    quote: sentence.text,
    from,
    to,
  };
}

/** The part of the sentence a sum stands in; what is said behind a dash or “not a penny more” belongs to it. */
function clauseAround(folded: string, from: number, to: number): string {
  const start = Math.max(folded.lastIndexOf(';', from), folded.lastIndexOf('(', from), folded.lastIndexOf(': ', from)) + 1;
  const end = folded.slice(to).search(/[;)]|\. /);
  return folded.slice(start, end < 0 ? undefined : to + end);
}

function scoreOf(sentence: Sentence, sum: Sum): number {
  const clause = clauseAround(sentence.folded, sum.from, sum.to);
  let score = sentence.section === 'budget' ? 1.2 : 0;
  if (FOR.test(sentence.folded)) score += 0.6;
  if (FOR.test(clause)) score += 0.6;
  if (NOT_FOR.test(clause)) score -= 1.6;
  if (
    /(?:no|not|kein|niet|geen|sin|pas)\b.{0,20}$/.test(sentence.folded.slice(0, sum.from)) &&
    !/(?:no|not) more|nicht mehr|niet meer|no mas|pas plus/.test(clause)
  )
    score -= 0.5;
  return score;
}
