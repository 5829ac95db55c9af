import { clip, fold, type Instant } from '../base';
import { daysAhead, sentencesOf } from '../reader';
import { consequenceOf, type Consequence } from './consequence';
import { CUES } from './cues';
import type { Complaint, DeliveryStatus } from './dsn';
import type { Objection, ReplyKind } from './kinds';
import { byHeads, machineKind, NO_SIGNS, saysAway, type MailSigns } from './machine';
import { written } from './own-words';
import { taughtBy, type ReplyExample } from './examples';
import { namedInstead, type Named } from './named';
import { plain } from './plain';
import { toneOf, type Tone } from './tone';
import { timesSaid } from './times';
import { resumeOn } from './when';

/** An answer as it came. */
export interface Answering {
  readonly subject: string;
  readonly text: string;
  /** name and address of the sender */
  readonly from?: string;
  /** when it was written: words such as “in March” count from then */
  readonly at: Instant;
  readonly autoSubmitted: boolean;
  readonly signs?: MailSigns;
  readonly status?: DeliveryStatus;
  readonly complaint?: Complaint;
  /** the mail of ours that is answered: its sentences are not the sender's */
  readonly ours?: string;
  /** what people have corrected before, the newest first */
  readonly examples?: readonly ReplyExample[];
}

export interface ReplyReading {
  readonly kind: ReplyKind;
  /** for objections: what they object to */
  readonly objection: Objection | null;
  /** the first day to write again, ISO 8601; null where they do not say */
  readonly when: string | null;
  /** the sentence that decided it */
  readonly quote: string | null;
  readonly confidence: number;
  /** what it did to the plan */
  readonly plan: Consequence['plan'];
  /** sentences addressed to a machine that reads: left out, and shown to a person */
  readonly toMachines: readonly string[];
  /** what else it says beside its kind, most said first */
  readonly also?: readonly ReplyKind[];
  /** whom they name to be written to in their place */
  readonly named?: Named;
  /** days and times they propose or take, as their clocks show them */
  readonly times?: readonly string[];
  /** how they write; what an older version read has none */
  readonly tone?: Tone;
  /** the correction it was understood by */
  readonly taughtBy?: string;
  /** a person said what it is; before that it was taken for this */
  readonly corrected?: { readonly by: string; readonly kind: ReplyKind; readonly objection: Objection | null };
}

interface Weighed {
  readonly kind: ReplyKind;
  readonly objection: Objection | null;
  readonly score: number;
  readonly quote: string;
}

const NOTHING_SAID = 160;
/** So short a text of thanks is nothing else. */
const SHORT_THANKS = 14;
const SURE = 0.9;

/** Understands an answer: its kind, the objection, the day to write again, and the sentence that decided it. */
export function understandReply(mail: Answering): ReplyReading {
  const own = written(mail.text, {
    ...(mail.ours !== undefined && { ours: mail.ours }),
    ...(mail.from !== undefined && { from: mail.from }),
  });
  const reading = readingOf(mail, own.text);
  return {
    ...reading,
    ...besideIt(mail, own.text, reading.kind),
    plan: planOf(reading.kind, reading.when),
    toMachines: own.toMachines,
    tone: toneOf(own.text, reading.kind),
  };
}

/** Kinds in which somebody else is named, and in which a time is proposed or taken. */
const NAMES: ReadonlySet<ReplyKind> = new Set(['wrong person', 'moved job', 'out of office']);
const TIMES: ReadonlySet<ReplyKind> = new Set(['interested', 'question', 'meeting accepted', 'meeting declined']);
/** What is worth a word beside the kind that decides. */
const BESIDE: ReadonlySet<ReplyKind> = new Set([
  'interested',
  'question',
  'objection',
  'not now',
  'already customer',
  'moved job',
  'wrong person',
]);
const MOST_BESIDE = 2;

/** What an answer says beside its kind; parts that are not there are left out. */
function besideIt(mail: Answering, text: string, kind: ReplyKind): Pick<ReplyReading, 'also' | 'named' | 'times'> {
  const named = NAMES.has(kind) ? namedInstead(text, mail.from ?? '') : undefined;
  const times = TIMES.has(kind) ? timesSaid(text, mail.at) : [];
  const asks = sentencesOf(text).some((sentence) => sentence.trimEnd().endsWith('?'));
  const others = consequenceOf(kind).wantsPerson
    ? [...weigh(text).flatMap((entry) => (entry.score >= 2 ? [entry.kind] : [])), ...(asks ? (['question'] as const) : [])]
    : [];
  const also = [...new Set(others)].filter((other) => other !== kind && BESIDE.has(other)).slice(0, MOST_BESIDE);
  return { ...(also.length > 0 && { also }), ...(named && { named }), ...(times.length > 0 && { times }) };
}

function readingOf(mail: Answering, text: string): Omit<ReplyReading, 'plan' | 'toMachines' | 'tone' | 'also' | 'named' | 'times'> {
  const signs = mail.signs ?? NO_SIGNS;
  const { at } = mail;
  const given = {
    subject: mail.subject,
    text: mail.status || text === '' ? mail.text : text,
    from: mail.from ?? '',
    autoSubmitted: mail.autoSubmitted,
    signs,
    status: mail.status,
    complaint: mail.complaint,
    ours: mail.ours !== undefined,
  };
  const weighed = weigh(text);
  // Words like a machine's may be a person's: where they say stop, a person said it.
  const saysStop = STOP.test(fold(text).trim()) || weighed.some(({ kind }) => kind === 'unsubscribe' || kind === 'angry');
  const machine = saysStop && !byHeads(given) ? undefined : machineKind(given);
  if (machine !== undefined)
    return {
      kind: machine,
      objection: null,
      when: sayWhen(machine, text, at),
      quote: clip(
        mail.status?.diagnostic ?? (mail.complaint ? `their provider reports: ${mail.complaint.type}` : firstOf(text, mail.subject)),
        200,
      ),
      confidence: 0.95,
    };
  const taught = saysStop ? undefined : taughtBy(text, mail.examples ?? []);
  if (taught)
    return {
      kind: taught.example.kind,
      objection: taught.example.objection,
      when: sayWhen(taught.example.kind, text, at),
      quote: clip(taught.quote, 200),
      confidence: Math.round(SURE * taught.alike * 100) / 100,
      taughtBy: taught.example.id,
    };
  const [first, second] = weighed;
  const words = fold(text).match(/[\p{L}\p{N}']+/gu)?.length ?? 0;
  const asks = sentencesOf(text).filter((sentence) => sentence.trimEnd().endsWith('?'));
  const decided = decide(weighed, { words, asks, text, at });
  if (decided === undefined)
    return { kind: 'unclear', objection: null, when: null, quote: clip(text, NOTHING_SAID) || null, confidence: 0.2 };
  const lead = first && second && decided === first ? first.score / (first.score + second.score * 0.5) : 0.7;
  return {
    kind: decided.kind,
    objection: decided.objection,
    when: sayWhen(decided.kind, text, at),
    quote: clip(decided.quote, 200),
    confidence: Math.round(Math.min(SURE, 0.35 + lead * 0.35 + Math.min(decided.score, 8) * 0.03) * 100) / 100,
  };
}

const sayWhen = (kind: ReplyKind, text: string, at: Instant): string | null =>
  kind === 'not now' || kind === 'out of office' ? resumeOn(text, at) : null;

/** What was understood, as a person says it is: what it does follows from that, and the first day to write again is read anew. */
export function correctedReading(
  reading: ReplyReading,
  to: { readonly kind: ReplyKind; readonly objection: Objection | null; readonly by: string },
  mail: { readonly text: string; readonly at: Instant },
): ReplyReading {
  const { kind, objection, by } = to;
  const when = sayWhen(kind, mail.text, mail.at);
  const was = reading.corrected ?? { kind: reading.kind, objection: reading.objection };
  return {
    ...reading,
    kind,
    objection,
    when,
    confidence: 1,
    plan: planOf(kind, when),
    tone: toneOf(mail.text, kind),
    corrected: { by, kind: was.kind, objection: was.objection },
  };
}

/** A person who says “not now” without a day has answered: when to write again is decided by a person. */
const planOf = (kind: ReplyKind, when: string | null): Consequence['plan'] =>
  kind === 'not now' && when === null ? 'stop' : consequenceOf(kind).plan;

const firstOf = (text: string, subject: string): string => sentencesOf(text)[0] ?? subject;

/** What speaks for each kind, over all sentences; what is said twice weighs less the second time. */
function weigh(text: string): readonly Weighed[] {
  const by = new Map<string, { kind: ReplyKind; objection: Objection | null; score: number; quote: string; most: number }>();
  for (const sentence of sentencesOf(text)) {
    const folded = plain(sentence);
    for (const cue of CUES) {
      if (!cue.says.test(folded)) continue;
      const key = `${cue.kind} ${cue.objection ?? ''}`;
      const entry = by.get(key);
      if (!entry) by.set(key, { kind: cue.kind, objection: cue.objection ?? null, score: cue.weight, quote: sentence, most: cue.weight });
      else entry.score += cue.weight / 3;
    }
  }
  return [...by.values()].sort((a, b) => b.score - a.score);
}

/** What must be acted on first wins; what is only thanks is thanks only when nothing else is said. */
function decide(
  weighed: readonly Weighed[],
  { words, asks, text, at }: { readonly words: number; readonly asks: readonly string[]; readonly text: string; readonly at: Instant },
): Weighed | undefined {
  const of = (kind: ReplyKind): Weighed | undefined => weighed.find((entry) => entry.kind === kind);
  const folded = fold(text).trim();
  if (STOP.test(folded)) return { kind: 'unsubscribe', objection: null, score: 8, quote: text };
  for (const kind of ['unsubscribe', 'angry'] as const) {
    const found = of(kind);
    if (found) return found;
  }
  if (YES.test(folded)) return { kind: 'interested', objection: null, score: 5, quote: text };
  const days = daysAhead(text, at);
  for (const kind of ['moved job', 'wrong person', 'already customer'] as const) {
    const found = of(kind);
    if (found) return found;
  }
  if (saysAway(text) && days.length > 0 && of('interested') === undefined)
    return { kind: 'out of office', objection: null, score: 5, quote: firstOf(text, '') };
  if (of('meeting declined') && (days.length > 0 || words < 40)) return of('meeting declined');
  const decline = of('decline');
  const later = of('not now');
  if (decline && !later) return decline;
  if (of('meeting accepted') && days.length > 0 && words < 60 && asks.length === 0 && !later) return of('meeting accepted');
  const objections = weighed.filter((entry) => entry.kind === 'objection');
  const [objection] = objections;
  if (later && days.length > 0) return later;
  const interested = of('interested');
  if (
    interested &&
    interested.score >= 2 &&
    (!objection || interested.score > objection.score) &&
    (days.length > 0 || interested.score > 2 || asks.length === 0)
  )
    return interested;
  if (asks.length > 0 && (!objection || objection.score <= 3))
    return { kind: 'question', objection: null, score: 3 + asks.length, quote: asks[0] ?? '' };
  if (objection) return objection;
  if (later) return later;
  if (decline) return decline;
  if (interested) return interested;
  // Thanks that deny something may be the politest way to say stop: a person looks.
  if (of('thanks') && words <= SHORT_THANKS && !DENIES.test(folded)) return of('thanks');
  return asks.length > 0 ? { kind: 'question', objection: null, score: 3, quote: asks[0] ?? '' } : undefined;
}
const DENIES =
  /(?<![\p{L}])(?:no|not|never|nothing|don't|nicht|kein\w*|nie|nichts|niet|geen|nooit|niets|ne|pas|plus|rien|jamais|nunca|nada|ni|but|however|aber|doch|sondern|maar|mais|pero)(?![\p{L}])/u;
const STOP = /^(?:stop|stopp|halt|arret|alto|baja|unsubscribe|abmelden|uitschrijven)[.! ]*$/;
const YES =
  /^(?:ok|okay|yes|yes please|sure|ja|ja gern|ja graag|gern|graag|prima|oui|d'accord|si|vale|de acuerdo|perfect|perfekt|parfait|fine|great)[.! ]*$/;
