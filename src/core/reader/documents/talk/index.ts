import type { Instant } from '../../../base';
import type { DocumentPart } from '../../../flow/syntax';
import { daysAhead } from '../../skills/ahead';
import { figuresIn } from '../../skills/figures';
import { moneyIn } from '../../skills/quantities';
import { speaksToMachines } from '../../skills/standing';
import { nothing, picked, type Picked } from '../picked';
import {
  ALWAYS_AGAINST,
  ASKS,
  DECIDES,
  DENIES,
  DOUBTS,
  MEETS,
  MERE_TALK,
  NO_SUM,
  OBJECTIONS,
  OUTCOME,
  PROMISES,
  REASON,
  TAKES_BACK,
  WANTS,
  type Asked,
} from './cues';
import { withNumbers } from './numbers';
import { addressesIn, phonesIn, withDays } from './spoken';
import { turnsOf, type Said, type Turn } from './turns';
import { timeIn } from './times';

export interface Heard {
  readonly value: string;
  readonly quote: string;
}
export interface TalkRead {
  readonly reason: string | null;
  readonly goals: readonly string[];
  readonly objections: readonly { readonly kind: string; readonly quote: string }[];
  readonly outcome: string | null;
  readonly nextStep: { readonly action: string; readonly date: string | null; readonly time: string | null; readonly quote: string } | null;
  readonly promises: readonly string[];
  readonly email: Heard | null;
  readonly otherEmails: readonly Heard[];
  readonly phone: Heard | null;
  readonly deadline: Heard | null;
  readonly budget: { readonly amount: number; readonly currency: string | null; readonly quote: string } | null;
  readonly decision: string | null;
  /** what they said and did not take back, a line a sentence, long numbers as digits */
  readonly statements: string;
}

interface Placed extends Turn {
  readonly at: number;
  /** what our last question before it was about */
  readonly asked: Asked | undefined;
  /** in answer to it, not later */
  readonly directly: boolean;
}

/** `now` is the day of the call; `ours`: names of who speaks for us. */
export function readTalk(text: string, now: Instant, ours: readonly string[] = []): TalkRead {
  const turns = placed(turnsOf(text, ours).turns);
  const theirs = turns.filter((turn) => !turn.ours);
  const deadline = deadlineOf(turns, now);
  const objections = objectionsOf(theirs);
  const outcome = outcomeOf(theirs);
  const reason = reasonOf(theirs);
  const taken = new Set([reason, outcome, ...objections.map(({ quote }) => quote)]);
  const addresses = theirs.reduce<{ email: string; quote: string; own: boolean }[]>((out, turn) => {
    const before = out.at(-1)?.email.split('@')[1] ?? null;
    const folded = turn.sentences.map((said) => said.folded).join(' ');
    for (const { email, at } of addressesIn(folded, before)) {
      const own = /\b(?:i am|mine|my|meine|ich bin|mijn|ik ben|mi|soy|mon|je suis)\b[^.]{0,30}$/.test(
        folded.slice(Math.max(0, at - 40), at + 6),
      );
      out.push({ email, own, quote: quoteAround(turn, email) });
    }
    return out;
  }, []);
  const email = addresses.findLast(({ own }) => own) ?? addresses.at(-1);
  return {
    reason,
    goals: goalsOf(theirs, taken),
    objections,
    outcome,
    nextStep: nextStepOf(turns, now),
    promises: turns
      .flatMap((turn) => turn.sentences.filter((said) => PROMISES.test(said.folded) && !said.text.endsWith('?')).map((said) => said.text))
      .slice(-8),
    email: email ? { value: email.email, quote: email.quote } : null,
    otherEmails: addresses.filter((other) => other.email !== email?.email).map((other) => ({ value: other.email, quote: other.quote })),
    phone: phoneOf(turns),
    deadline,
    budget: budgetOf(theirs),
    decision: decisionOf(theirs),
    statements: statementsOf(theirs),
  };
}

/** Each turn with what was asked before it; a turn of ours that asks nothing changes nothing. */
function placed(turns: readonly Turn[]): readonly Placed[] {
  let asked: Asked | undefined;
  let since = -2;
  return turns.map((turn, at) => {
    if (turn.ours) {
      const last = turn.sentences.filter((said) => said.text.trim().endsWith('?')).at(-1);
      const about = last && (Object.keys(ASKS) as Asked[]).find((name) => ASKS[name].test(last.folded));
      const told = (Object.keys(ASKS) as Asked[]).find((name) => turn.sentences.some((said) => ASKS[name].test(said.folded)));
      // A question that asks for nothing of these goes on about what stands against it; a summary asks whether it is right.
      if (last) asked = about ?? told ?? (asked === 'objections' ? asked : undefined);
      else if (told === 'goals') asked = told;
      since = last || told === 'goals' ? at : since;
    }
    return { ...turn, at, asked, directly: at - since <= 1 };
  });
}

const isStatement = (said: Said): boolean =>
  !said.text.trim().endsWith('?') && said.text.split(/\s+/).length >= 3 && !speaksToMachines(said.folded);

function quoteAround(turn: Turn, email: string): string {
  const name = email.split('@')[0] ?? '';
  return (
    (turn.sentences.find((said) => said.folded.replace(/[-. ]/g, '').includes(name.replace(/[-._]/g, ''))) ?? turn.sentences[0])?.text ??
    turn.text
  );
}

function reasonOf(theirs: readonly Placed[]): string | null {
  const all = theirs.flatMap((turn) => turn.sentences.filter(isStatement));
  const [said] = all.filter((one) => REASON.test(one.folded)).sort((a, b) => b.text.length - a.text.length);
  if (said) {
    // “… has ended the contract. And now …” is one reason.
    const next = all[all.indexOf(said) + 1];
    return next && /^(?:and|und|en|y|et|so|also|dus|asi que|donc)(?!\p{L})/u.test(next.folded) ? `${said.text} ${next.text}` : said.text;
  }
  const answered = theirs.find((turn) => turn.asked === 'reason')?.sentences.filter(isStatement) ?? [];
  return [...answered].sort((a, b) => b.text.length - a.text.length)[0]?.text ?? null;
}

function goalsOf(theirs: readonly Placed[], taken: ReadonlySet<string | null>): readonly string[] {
  const out: string[] = [];
  for (const turn of theirs) {
    if (turn.asked === 'objections' || turn.asked === 'deadline' || turn.asked === 'budget' || turn.asked === 'decision') continue;
    for (const said of turn.sentences) {
      if (!isStatement(said) || taken.has(said.text) || PROMISES.test(said.folded)) continue;
      const wants = WANTS.test(said.folded) && !MERE_TALK.test(said.folded);
      if (
        wants ||
        (turn.asked === 'goals' &&
          turn.directly &&
          /\p{L}{3}/u.test(said.text) &&
          !TAKES_BACK.test(said.folded) &&
          said.text.split(' ').length >= 5)
      )
        out.push(said.text);
    }
  }
  return [...new Set(out)].slice(0, 12);
}

/** Of each turn one of a kind: the doubt that is asked, else the sentence that says most of it. */
function objectionsOf(theirs: readonly Placed[]): TalkRead['objections'] {
  const out: { kind: string; quote: string }[] = [];
  for (const turn of theirs) {
    const own = new Map<string, Said>();
    for (const said of turn.sentences) {
      const doubts = DOUBTS.test(said.folded);
      if ((said.text.trim().endsWith('?') && !doubts) || speaksToMachines(said.folded)) continue;
      for (const [kind, words] of OBJECTIONS) {
        if (!words.test(said.folded)) continue;
        // Outside the question for it only what is plainly one.
        const counts = turn.asked === 'objections' || ALWAYS_AGAINST.has(kind) || BUT.test(said.folded);
        const known = own.get(kind);
        if (counts && (!known || weightOf(said) > weightOf(known))) own.set(kind, said);
        break;
      }
    }
    for (const [kind, said] of own) if (!out.some((other) => other.quote === said.text)) out.push({ kind, quote: said.text });
  }
  return out.slice(0, 10);
}
/** A doubt that is asked says most, then what they cannot do, then the longer sentence. */
const weightOf = (said: Said): number =>
  Number(DOUBTS.test(said.folded)) * 2_000 + Number(CANNOT.test(said.folded)) * 1_000 + said.text.length;
const CANNOT = /\b(?:cannot|can't|lose|kann (?:ich|keiner|niemand) (?:nicht|das)?|da kann keiner|kan (?:ik )?niet|no puedo|ne peux pas)\b/;
const BUT = /\b(?:but|aber|maar|pero|mais|cannot|kann ich nicht|too|zu|te|trop|demasiado)\b/;

function outcomeOf(theirs: readonly Placed[]): string | null {
  const all = theirs.flatMap((turn) => turn.sentences.filter((said) => said.text.split(' ').length >= 4));
  const said = all.find((one) => OUTCOME.test(one.folded));
  if (said) return said.text;
  const answered = theirs.findLast((turn) => turn.asked === 'outcome')?.sentences.filter(isStatement) ?? [];
  return answered[0]?.text ?? null;
}

function datesOf(said: Said, now: Instant): readonly { readonly date: string; readonly exact: boolean }[] {
  const folded = withDays(said.folded);
  return daysAhead(folded, now)
    .filter((day) => day.grain === 'day')
    .map((day) => ({ date: day.date, exact: /\d/.test(folded.slice(day.from, day.to)) }));
}

/** A year that is said later (“by the first of March 2027”) is the year of all. */
function deadlineOf(turns: readonly Placed[], now: Instant): Heard | null {
  const asked = turns.filter((turn) => turn.asked === 'deadline' && turn.at > 0);
  const among = asked.length > 0 ? asked : turns.filter((turn) => !turn.ours && turn.sentences.some((said) => DUE.test(said.folded)));
  const said = among.flatMap((turn) =>
    turn.sentences
      .filter((one) => asked.length > 0 || DUE.test(one.folded) || TAKES_BACK.test(one.folded))
      .flatMap((one) =>
        datesOf(one, now)
          .filter(({ exact }) => exact)
          .map(({ date }) => ({ date, quote: one.text, ours: turn.ours })),
      ),
  );
  const last = said.at(-1);
  if (!last) return null;
  const own = said.findLast((one) => !one.ours && one.date === last.date) ?? last;
  return { value: own.date, quote: own.quote };
}
const DUE =
  /(?<!\p{L})(?:must|has to|have to|needs? to|should) (?:be )?(?:done|ready|finished|run|work|stand|in)|(?:done|ready|finished|running|working) (?:by|before)|by the|no later than|(?:fertig|bereit) (?:sein )?(?:muss|bis)|fertig|spatestens|muss (?:es|sie|die|das) (?:laufen|stehen)|bis zum|klaar|uiterlijk|voor (?:de )?\d|a mas tardar|antes del?|tiene que estar|listo|au plus tard|avant le|pret(?!\p{L})/u;

function budgetOf(theirs: readonly Placed[]): TalkRead['budget'] {
  const asked = theirs.filter((turn) => turn.asked === 'budget');
  const among = asked.length > 0 ? asked : theirs.filter((turn) => turn.sentences.some((said) => ASKS.budget.test(said.folded)));
  const all = among.flatMap((turn) => turn.sentences);
  if (all.some((said) => NO_SUM.test(said.folded))) return null;
  const found = all.flatMap((said) => {
    const folded = withNumbers(said.folded);
    const sums = moneyIn(folded).map((sum) => ({ amount: sum.value, currency: sum.currency }));
    const bare =
      sums.length > 0
        ? sums
        : figuresIn(folded)
            .filter((figure) => figure.value >= 500 && !/\b(?:19|20)\d\d\b/.test(String(figure.value)))
            .map((figure) => ({ amount: figure.value, currency: null }));
    return bare.map((sum) => ({ ...sum, quote: said.text, limits: LIMITS.test(said.folded) }));
  });
  const best = found.findLast(({ limits }) => limits) ?? found.at(-1);
  return best ? { amount: best.amount, currency: best.currency, quote: best.quote } : null;
}
const LIMITS =
  /\b(?:not more|no more|at most|up to|mehr nicht|nicht mehr|hochstens|maximal|niet meer|hooguit|maximaal|no mas|como mucho|maximo|pas plus|au plus|maximum|net|netto)\b/;

function decisionOf(theirs: readonly Placed[]): string | null {
  const answered = theirs.filter((turn) => turn.asked === 'decision').flatMap((turn) => turn.sentences);
  const said =
    answered.findLast((one) => DECIDES.test(one.folded)) ??
    answered.find(isStatement) ??
    theirs.flatMap((turn) => turn.sentences).find((one) => DECIDES.test(one.folded) && isStatement(one));
  return said?.text ?? null;
}

function phoneOf(turns: readonly Placed[]): Heard | null {
  let best: Heard | null = null;
  for (const [i, turn] of turns.entries()) {
    for (const said of turn.sentences) {
      const number = phonesIn(said.folded).findLast(({ phone }) => phone.replace('+', '').length >= 9);
      if (!number) continue;
      const next = turns[i + 1];
      const agreed =
        next !== undefined &&
        !next.ours &&
        !DENIES.test(next.sentences[0]?.folded ?? '') &&
        phonesIn(next.text).length === 0 &&
        !/\b(?:double|doppel|zwo|\d{2,})\b/.test(next.sentences[0]?.folded ?? '');
      // What we repeat counts when they had said none and do not object.
      if (!turn.ours) best = { value: number.phone, quote: said.text };
      else if (best === null && agreed) best = { value: number.phone, quote: said.text };
    }
  }
  return best;
}

function nextStepOf(turns: readonly Placed[], now: Instant): TalkRead['nextStep'] {
  const from = Math.floor(turns.length / 3);
  const around = (at: number): string =>
    turns
      .slice(Math.max(0, at - 2), at + 2)
      .flatMap((turn) => turn.sentences.map((said) => said.folded))
      .join(' ');
  const hits = turns.slice(from).flatMap((turn) =>
    turn.asked === 'deadline'
      ? []
      : turn.sentences.flatMap((said) => {
          const dates = datesOf(said, now).filter(({ date }) => Date.parse(date) - now < 120 * 86_400_000);
          return dates.length > 0 && MEETS.test(around(turn.at))
            ? [
                {
                  at: turn.at,
                  said,
                  date: (dates.findLast(({ exact }) => exact) ?? dates.at(-1))?.date ?? null,
                  exact: dates.some(({ exact }) => exact),
                },
              ]
            : [];
        }),
  );
  const best = hits.findLast(({ exact }) => exact) ?? hits.at(-1);
  const promise = turns
    .flatMap((turn) =>
      turn.sentences.filter((said) => PROMISES.test(said.folded) && !said.text.endsWith('?')).map((said) => ({ at: turn.at, said })),
    )
    .filter(({ at }) => best !== undefined && at >= best.at - 1);
  if (!best) return null;
  const time =
    timeIn(best.said) ??
    turns
      .slice(Math.max(0, best.at - 2), best.at + 1)
      .flatMap((turn) => turn.sentences.map((said) => timeIn(said)))
      .findLast((found) => found !== null) ??
    null;
  return { action: promise.at(-1)?.said.text ?? best.said.text, date: best.date, time, quote: best.said.text };
}

/** What they said, without what they took back in the next breath. */
function statementsOf(theirs: readonly Turn[]): string {
  const kept: { said: Said; figure: boolean }[] = [];
  for (const turn of theirs)
    for (const said of turn.sentences) {
      const figure = figuresIn(withNumbers(said.folded)).length > 0;
      if (TAKES_BACK.test(said.folded) && figure) {
        const at = kept.findLastIndex((other) => other.figure);
        if (at >= kept.length - 3 && at >= 0) kept.splice(at, 1);
      }
      if (!said.text.trim().endsWith('?') && !speaksToMachines(said.folded)) kept.push({ said, figure });
    }
  return kept.map(({ said }) => said.text).join('\n');
}

/** What a call was about, by its transcript. */
export function pickTalk(text: string, now: Instant): Readonly<Record<DocumentPart<'call'>, Picked>> {
  const talk = readTalk(text, now);
  const said = (quote: string | null, sure: number): Picked => (quote === null ? nothing() : picked(quote, quote, sure));
  const list = (quotes: readonly string[], sure: number): Picked =>
    quotes.length === 0 ? nothing() : picked(quotes.join('; '), quotes.join(' … '), sure);
  const { nextStep, budget, objections } = talk;
  return {
    reason: said(talk.reason, 0.7),
    goals: list(talk.goals, 0.7),
    objections:
      objections.length === 0
        ? nothing()
        : picked(
            objections.map(({ kind, quote }) => `${kind}: ${quote}`).join('; '),
            objections.map(({ quote }) => quote).join(' … '),
            0.7,
          ),
    outcome: said(talk.outcome, 0.7),
    next_step: nextStep === null ? nothing() : picked(nextStep.action, nextStep.quote, 0.7),
    next_day: nextStep?.date ? picked(nextStep.date, nextStep.quote, 0.75) : nothing(),
    promises: list(talk.promises, 0.7),
    email: talk.email ? picked(talk.email.value, talk.email.quote, 0.8) : nothing(),
    phone: talk.phone ? picked(talk.phone.value, talk.phone.quote, 0.8) : nothing(),
    deadline: talk.deadline ? picked(talk.deadline.value, talk.deadline.quote, 0.75) : nothing(),
    budget: budget
      ? picked(`${budget.amount.toLocaleString('en-GB')}${budget.currency === null ? '' : ` ${budget.currency}`}`, budget.quote, 0.7)
      : nothing(),
    decision: said(talk.decision, 0.7),
  };
}
