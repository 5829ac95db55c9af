import { fold, pieces } from '../base';
import { sentencesOf, speaksToMachines } from '../reader';
import { plain as oneApostrophe } from './plain';

/** What somebody wrote this time, and what of the mail was left out for being words to a machine. */
export interface Written {
  readonly text: string;
  readonly toMachines: readonly string[];
}

const plain = (line: string): string => oneApostrophe(line).replace(/\s+/g, ' ').trim();

/** “On … wrote:”, by itself or over two or three lines, as mail programs of five languages put it above a quote. */
const INTRODUCTION =
  /^(?:>? ?)?(?:on|am|op|el|le|il|den|em|quoting|citando|zitat von|op)\b.{4,240}(?:wrote|writes|schrieb|schreibt|schreef|schrijft|escribio|ecrit|a ecrit|ha scritto|geschreven)(?: .{0,120})?:$|^.{2,120}(?:<[^<>@ ]{1,80}@[^<>@ ]{1,120}>|\d{4}).{0,40}(?:wrote|schrieb|schreef|escribio|a ecrit)(?: .{0,80})?:$|^(?:\d{1,4}[-./]){2}\d{2,4}.{0,160}(?:<[^<>@ ]{1,80}@[^<>@ ]{1,120}>|wrote|schrieb|schreef|escribio|ecrit).{0,20}:?$/;
const DIVIDER =
  /^(?:-{2,} ?(?:original message|original-nachricht|ursprungliche nachricht|urspr\. mitteilung|oorspronkelijk bericht|mensaje original|message d'origine|message original|forwarded message|weitergeleitete nachricht|doorgestuurd bericht|mensaje reenviado|message transfere|reply above this line).{0,40}|_{10,}|-{20,}|={20,}|begin forwarded message:|anfang der weitergeleiteten nachricht:|debut du message (?:reexpedie|transfere) ?:|inicio del mensaje reenviado:|begin doorgestuurd bericht:)$/;
/** A block of heads: “From: … / Sent: … / To: … / Subject: …”. */
const HEAD = /^\*?(?:from|von|van|de|da|from address)\*? ?: ?\S/;
const OTHER_HEAD =
  /^\*?(?:sent|date|to|cc|subject|gesendet|datum|an|betreff|verzonden|aan|onderwerp|enviado(?: el)?|fecha|para|asunto|envoye|a|objet)\*? ?: ?/;
const TICKET = /^##-.{0,80}-##$/;
const FROM_DEVICE =
  /^(?:sent (?:from|with|via|by) (?:my )?|von meinem .{1,40} gesendet|gesendet (?:von|mit)|verstuurd (?:vanaf|met|van)|verzonden (?:vanaf|met)|enviado (?:desde|con)|envoye (?:de|depuis|a partir)|get outlook for|outlook for |diese nachricht wurde von meinem)/;
const SMALL_PRINT =
  /^(?:(?:this|the) (?:e-?mail|message|communication)(?:,| and| is| may| contains)|confidential\w*(?: notice)?\b|disclaimer\b|diese (?:e-?mail|nachricht) (?:ist|enthalt|kann|und)|der inhalt dieser|dit (?:e-?mail)?bericht (?:is|kan|en)|de inhoud van (?:dit|deze)|de informatie in|este (?:mensaje|correo)(?: electronico)? (?:es|y|puede|contiene|se)|la informacion contenida|ce (?:message|courriel|mail)(?: electronique)? (?:est|et|peut|contient)|les informations contenues|if you (?:are not the intended|received this|no longer)|wenn sie (?:nicht der richtige|diese e-?mail)|please (?:consider the environment|think before)|bitte denken sie an die umwelt|denk aan het milieu|registered (?:in|office|no)|company (?:no|number|registration)|(?:amtsgericht|handelsregister|hrb|ust-id|sitz der gesellschaft|geschaftsfuhrer)\b|(?:kvk|btw)\b|to (?:unsubscribe|stop receiving)|unsubscribe\b.{0,60}(?:here|link|click|http)|(?:klicken sie|klik|haga clic|cliquez)\b.{0,80}(?:abmeld|afmeld|uitschrij|baja|desabonn|desinscri)|you (?:are receiving|receive) this)/;
const GREETING =
  /^(?:(?:kind(?:est)?|best|warm(?:est)?|many)? ?(?:regards|wishes|thanks)|all the best|best|yours(?: sincerely| faithfully| truly)?|cheers|sincerely|take care|rgds|br|mit (?:freundlichen|besten|herzlichen|vielen) grussen|mit freundlichem gruss|(?:viele|beste|liebe|herzliche|schone|freundliche) grusse?|gruss|mfg|lg|vg|(?:met )?(?:vriendelijke|hartelijke|beste) groet(?:en)?|groet(?:en|jes)?|mvg|hartelijks|un (?:cordial )?saludo|saludos(?: cordiales)?|atentamente|un abrazo|reciba un cordial saludo|cordialement|bien (?:a vous|cordialement)|bien cordialement|meilleures salutations|salutations(?: distinguees)?|sinceres salutations)(?: (?:from|aus|uit|de|desde) [\p{L} ]{2,40})?[,.! ]*$/u;
const SHORT_TAIL = 9;

/**
 * The words the sender wrote: without quotes, introductions, heads of forwarded mails, signature, small print, and without what is
 * ours (`ours`: the mail that is answered) or addressed to a machine. Answers between quoted lines stay, in their order.
 */
export function written(body: string, more: { readonly ours?: string; readonly from?: string } = {}): Written {
  const lines = body
    .replace(/\r/g, '')
    .split('\n')
    .flatMap((line) => pieces(line));
  const kept = bare(lines, more.from ?? '');
  const toMachines: string[] = [];
  const known = oursOf(more.ours ?? '');
  const text = kept
    .map((line) => {
      if (line.trim() === '') return '';
      const sentences = sentencesOf(line);
      const own = sentences.filter((sentence) => {
        if (speaksToMachines(fold(sentence))) {
          toMachines.push(sentence);
          return false;
        }
        return !known.has(key(sentence));
      });
      return own.length === sentences.length ? line.trimEnd() : own.join(' ');
    })
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
  return { text, toMachines };
}

/** Without quotes and tail, wrapped lines made whole; what came together only when something between was taken out is looked at again. */
function bare(lines: readonly string[], from: string): readonly string[] {
  let now = lines;
  for (;;) {
    const next = unwrapped(withoutTail(withoutQuotes(now), from));
    if (next.length === now.length) return next;
    now = next;
  }
}

/** The words the reader wrote, as one text. */
export const ownWords = (body: string): string => written(body).text;

const key = (sentence: string): string =>
  plain(sentence)
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
const LEAST_WORDS = 5;
/** Sentences of ours that are long enough to be told again. */
function oursOf(text: string): ReadonlySet<string> {
  return new Set(
    sentencesOf(text)
      .map(key)
      .filter((sentence) => sentence.split(' ').length >= LEAST_WORDS),
  );
}

/** Whether an introduction begins at a line, and over how many lines it goes. */
function introductionAt(lines: readonly string[], at: number): number {
  let text = '';
  for (let n = 1; n <= 3 && at + n <= lines.length; n++) {
    const line = plain(lines[at + n - 1] ?? '').replace(/^>+ ?/, '');
    if (line === '') return 0;
    text = text === '' ? line : `${text} ${line}`;
    if (text.length > 400) return 0;
    if (INTRODUCTION.test(text)) return n;
  }
  return 0;
}

const isQuoted = (line: string): boolean => /^\s{0,3}(?:>|\|)/.test(line);
/** Quoted lines between heads part them not: they are taken out all the same. */
function isHeads(lines: readonly string[], at: number): boolean {
  if (!HEAD.test(plain(lines[at] ?? ''))) return false;
  const next = lines
    .slice(at + 1, at + 40)
    .filter((line) => !isQuoted(line))
    .slice(0, 4);
  return next.filter((line) => OTHER_HEAD.test(plain(line))).length >= 2;
}

function withoutQuotes(lines: readonly string[]): readonly string[] {
  const out: string[] = [];
  for (let i = 0; i < lines.length; i++) {
    const line = lines[i] ?? '';
    const folded = plain(line);
    if (isQuoted(line)) {
      // A quoted line that was wrapped on its way goes on without its mark.
      const next = lines[i + 1] ?? '';
      if (line.length >= 60 && next.trim() !== '' && !isQuoted(next) && next.length <= 24 && isQuoted(lines[i + 2] ?? '')) i++;
      continue;
    }
    if (TICKET.test(folded)) continue;
    if (DIVIDER.test(folded) || isHeads(lines, i)) break;
    const wide = introductionAt(lines, i);
    if (wide > 0) {
      const rest = lines.slice(i + wide);
      if (!rest.some(isQuoted)) break;
      i += wide - 1;
      continue;
    }
    out.push(line);
  }
  return out;
}

/** Lines of at least this length were broken by a program, not by the one who wrote them. */
const WRAPPED = 50;
const BEGINS = /^\s*(?:[-*•–]|\d{1,2}[.)] )/;
/** Lines that were broken on the way are one again: a sentence goes on over them. */
function unwrapped(lines: readonly string[]): readonly string[] {
  const out: string[] = [];
  let goesOn = false;
  for (const line of lines) {
    const last = out.length - 1;
    if (goesOn && line.trim() !== '' && !BEGINS.test(line)) out[last] = `${(out[last] ?? '').trimEnd()} ${line.trim()}`;
    else out.push(line);
    goesOn = line.trim() !== '' && line.trimEnd().length >= WRAPPED;
  }
  return out;
}

/** Without signature, sign-off and what is printed below. */
function withoutTail(lines: readonly string[], from: string): readonly string[] {
  let kept = [...lines];
  const mark = kept.findIndex((line) => /^--\s*$/.test(line));
  if (mark >= 0) kept = kept.slice(0, mark);
  const print = kept.findIndex((line, i) => {
    const folded = plain(line);
    return (
      FROM_DEVICE.test(folded) ||
      (SMALL_PRINT.test(folded) && (i === 0 || (kept[i - 1] ?? '').trim() === '') && kept.slice(0, i).some((each) => each.trim() !== ''))
    );
  });
  if (print >= 0) kept = kept.slice(0, print);
  const leave = kept.findIndex(
    (line, i) => i > 0 && GREETING.test(plain(line)) && kept.slice(i).filter((each) => each.trim() !== '').length <= SHORT_TAIL,
  );
  if (leave >= 0) kept = kept.slice(0, leave);
  while (kept.length > 1 && (kept.at(-1) ?? '').trim() === '') kept.pop();
  const last = plain(kept.at(-1) ?? '')
    .replace(/[^\p{L}' -]/gu, '')
    .trim();
  const names = plain(from)
    .split(/[\s,."]+/)
    .filter((part) => part.length > 1);
  // A name alone at the end is the sender's.
  if (kept.length > 1 && last !== '' && last.split(' ').length <= 3 && last.split(' ').every((word) => names.includes(word))) kept.pop();
  return kept;
}

/** What was written, up to the words that take leave: without name, numbers and slogans below them. */
export function withoutSignature(text: string): string {
  const lines = text.split('\n');
  const leave = lines.findIndex((line, i) => i > 0 && GREETING.test(plain(line)));
  return (leave < 0 ? lines : lines.slice(0, leave)).join('\n').trim();
}
