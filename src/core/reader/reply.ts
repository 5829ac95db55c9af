import { clip, fold, pieces } from '../base';
import { sentencesOf } from './sentences';

export type ReplyKind = 'interested' | 'objection' | 'not now' | 'out of office' | 'wrong person' | 'unsubscribe' | 'bounce' | 'unclear';

export interface ReplyReading {
  readonly kind: ReplyKind;
  /** for objections: what they object to */
  readonly objection: 'price' | 'timing' | 'authority' | 'need' | 'competitor' | 'trust' | null;
  /** when they are back or want to be asked again, as they wrote it */
  readonly when: string | null;
  /** the sentence that decided it */
  readonly quote: string | null;
  readonly confidence: number;
}

interface Rule {
  readonly kind: ReplyKind;
  readonly objection?: ReplyReading['objection'];
  readonly cue: RegExp;
  readonly weight: number;
}

/** Folded cues, English, German, Dutch, Spanish. Order breaks ties: what must not be overlooked comes first. */
const RULES: readonly Rule[] = [
  {
    kind: 'unsubscribe',
    cue: /unsubscribe|take me off|remove me|do not (?:write|contact|mail)|stop (?:writing|mailing)|no more mails?|abmelden|keine weiteren mails|uitschrijven|niet meer mailen|dar(?:me)? de baja|no me escrib/,
    weight: 10,
  },
  {
    kind: 'out of office',
    cue: /out of (?:the )?office|on leave|on holiday|away until|automatic reply|abwesend|nicht im buro|afwezig|fuera de la oficina|de vacaciones|back on|wieder erreichbar/,
    weight: 9,
  },
  {
    kind: 'wrong person',
    cue: /wrong person|no longer work|left the company|not responsible|please (?:write|talk) to|nicht zustandig|nicht mehr bei|niet de juiste persoon|ya no trabaja/,
    weight: 8,
  },
  {
    kind: 'objection',
    objection: 'price',
    cue: /price|too expensive|budget|cost[s]? (?:is|are|too)|cannot afford|above what|zu teuer|preis|te duur|prijs|demasiado caro|precio|presupuesto/,
    weight: 6,
  },
  {
    kind: 'objection',
    objection: 'competitor',
    cue: /already (?:have|work|talk)(?:ing)? (?:with|to)|another supplier|other supplier|anderen anbieter|andere leverancier|otro proveedor/,
    weight: 6,
  },
  {
    kind: 'objection',
    objection: 'need',
    cue: /do not need|don't need|no need|works fine|brauchen wir nicht|hebben we niet nodig|no necesitamos/,
    weight: 6,
  },
  {
    kind: 'objection',
    objection: 'authority',
    cue: /not my decision|the board|my boss|have to ask|entscheide ich nicht|niet mijn beslissing/,
    weight: 4,
  },
  { kind: 'objection', objection: 'trust', cue: /reference|never heard of|who are you|references|referenzen/, weight: 3 },
  {
    kind: 'not now',
    cue: /not now|next (?:year|spring|season|quarter)|later this|ask (?:me )?again|in spring|nachstes jahr|im fruhjahr|volgend jahr|volgend jaar|mas adelante|el ano que viene/,
    weight: 5,
  },
  {
    kind: 'interested',
    cue: /interested|sounds good|yes,? please|happy to|let us talk|let's talk|call me|would suit|send me (?:the|more|your)|interesse|gerne|graag|me interesa|encantad/,
    weight: 5,
  },
];

/** The words the reader wrote, without the quoted mail below and without the signature. */
export function ownWords(body: string): string {
  const lines = body
    .replace(/\r/g, '')
    .split('\n')
    .flatMap((line) => pieces(line));
  const cut = lines.findIndex(
    (line) =>
      /^(?:On .+ wrote:|Am .+ schrieb.*:|Op .+ schreef.*:|El .+ escribió:|-----Original|From: )/.test(line.trim()) ||
      line.trim() === '-- ' ||
      line.trim() === '--',
  );
  return (cut < 0 ? lines : lines.slice(0, cut))
    .filter((line) => !line.trimStart().startsWith('>'))
    .join('\n')
    .trim();
}

const GREETING =
  /^(?:(?:kind|best|warm|many)? ?(?:regards|wishes|thanks)|yours (?:sincerely|faithfully)|cheers|sincerely|mit (?:freundlichen|besten) grussen|(?:viele|beste|liebe|herzliche) grusse|(?:met )?(?:vriendelijke|hartelijke) groet(?:en)?|un (?:cordial )?saludo|saludos(?: cordiales)?|atentamente|cordialement|bien a vous|meilleures salutations)[,.! ]*$/;

/** What was written, up to the words that take leave: without name, numbers and slogans below them. */
export function withoutSignature(text: string): string {
  const lines = text.split('\n');
  const leave = lines.findIndex((line, i) => i > 0 && GREETING.test(fold(line).trim()));
  return (leave < 0 ? lines : lines.slice(0, leave)).join('\n').trim();
}

/** Understands an answer by rules: its kind, the objection, a date, and the sentence that decided it. */
export function understandReply(subject: string, body: string, headers: { readonly autoSubmitted: boolean }): ReplyReading {
  const text = ownWords(body);
  let best: { rule: Rule; quote: string; score: number } | undefined;
  for (const [i, sentence] of [subject, ...sentencesOf(text)].entries()) {
    const folded = fold(sentence);
    for (const rule of RULES) {
      // The subject quotes our own words, so only answers made by machines are judged by it.
      if (i === 0 && !(headers.autoSubmitted && rule.kind === 'out of office')) continue;
      if (rule.cue.test(folded) && (best === undefined || rule.weight > best.score)) best = { rule, quote: sentence, score: rule.weight };
    }
  }
  if (headers.autoSubmitted && best?.rule.kind !== 'unsubscribe')
    best = { rule: { kind: 'out of office', cue: /./, weight: 9 }, quote: best?.quote ?? subject, score: 9 };
  if (best === undefined) return { kind: 'unclear', objection: null, when: null, quote: clip(text, 160) || null, confidence: 0.2 };
  return {
    kind: best.rule.kind,
    objection: best.rule.objection ?? null,
    when: whenIn(text),
    quote: clip(best.quote, 200),
    confidence: Math.min(0.95, 0.5 + best.score * 0.05),
  };
}

function whenIn(text: string): string | null {
  return (
    /\b(?:\d{1,2}\.? (?:January|February|March|April|May|June|July|August|September|October|November|December|Dec|Nov|Jan)\w*|(?:Mon|Tues|Wednes|Thurs|Fri)day(?: after \w+| morning| afternoon)?|next (?:week|month|spring|year)|20\d\d-\d\d-\d\d)\b/i.exec(
      text,
    )?.[0] ?? null
  );
}
