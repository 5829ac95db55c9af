/** Who asks, and who decides. */
import { plainFold, type DocumentLine } from '../lines';
import { EMAIL, fitsAddress } from '../names';
import { FIRM, ROLE } from '../cv/words';
import type { Sentence } from './sentences';

export interface Asker {
  readonly name: string | null;
  readonly role: string | null;
  readonly company: string | null;
  readonly email: string | null;
  readonly phone: string | null;
  readonly quote: string | null;
}

const PHONE = /(?:\+|\(\+?|\b00|\b0|\(0)[\d][\d ()/.-]{5,20}\d|\(\d{3}\) ?\d{3}[ -]\d{4}|(?<![\d.,/-])[679]\d{2}(?: \d{2,3}){2,3}(?!\d)/;
/** The heads of a mail (RFC 5322), in five languages. */
const HEAD =
  /^(?:from|to|cc|date|sent|subject|reply-to|von|an|datum|gesendet|betreff|van|aan|onderwerp|verzonden|de|para|fecha|asunto|enviado|expediteur|a|objet|envoye)\s*:/;
const SMALL = "de|van|der|den|von|zu|la|del|di|da|el|ten|ter|te|'t|y|le|du|dos|das|op";
const NAME = new RegExp(`(?<![\\p{L}])\\p{Lu}[\\p{L}'’.-]+(?: (?:${SMALL}))*(?: \\p{Lu}[\\p{L}'’-]+){1,3}(?![\\p{L}])`, 'gu');
const POLITE = /^(?:mr|mrs|ms|mx|dr|herr|frau|herrn|de heer|dhr|mevrouw|mevr|mw|senor|senora|sr|sra|don|dona|m|mme|monsieur|madame)\.? /i;
const DECIDES =
  /\b(?:decide\w*|decision|approv\w*|signs? (?:it )?off|has the last word|recommend\w* .{0,30}board|entscheid\w*|genehmig\w*|beslis\w*|besluit\w*|goedkeur\w*|deciden?|decidimos|decido|decision|aprueba\w*|approuv\w*|tranche\w*)\b/;
const LEGAL =
  /\b(?:ltd|limited|plc|llp|llc|gmbh(?: & co\.? kg)?|ag|kg|ohg|gbr|e\.?g\.?|b\.?v\.?|n\.?v\.?|vof|s\.?l\.?u?\.?|s\.?a\.?(?:rl|s)?\.?|sarl|sas|earl|inc|co|cooperative|co-operative|council)\b\.?/i;

export function askerOf(lines: readonly DocumentLine[], sentences: readonly Sentence[]): Asker {
  const from = lines.slice(0, 8).find((line) => /^(?:from|von|van|de|expediteur)\s*:/.test(line.folded));
  // Of a mail the address it came from, not the one it went to.
  const heads = lines.filter((line, i) => i < 12 && HEAD.test(line.folded));
  const body = lines.filter((line) => !heads.includes(line));
  const near =
    body.find((line) => line.section === 'contact' && EMAIL.test(line.text)) ??
    [...body].reverse().find((line) => EMAIL.test(line.text)) ??
    from;
  const email = EMAIL.exec(near?.text ?? '')?.[0] ?? null;
  const at = near ? lines.indexOf(near) : -1;
  const around = at >= 0 && near !== from ? lines.slice(Math.max(0, at - 3), at + 4) : lines.slice(-4);
  const withName = [near, ...around, ...lines.slice(-4)].filter((line) => line !== undefined);
  const name =
    nameFrom(from?.text) ??
    bestName(
      withName.flatMap((line) => namesIn(line.text)),
      email,
    );
  const family = name?.split(' ').at(-1) ?? '';
  const roles =
    name === null
      ? []
      : [...(near ? [near] : []), ...around, ...lines.slice(-5)]
          .filter((line) => !heads.includes(line))
          .filter((line) => isBy(lines, line, family))
          .flatMap((line) => roleIn(line.text) ?? []);
  const phone =
    [near, ...around, ...lines.slice(-5)]
      .map((line) => (line ? PHONE.exec(line.text.replace(EMAIL, ''))?.[0] : undefined))
      .find((found) => found !== undefined) ?? null;
  return {
    name,
    role: roles[0] ?? null,
    company: companyIn(lines, sentences) ?? besideRole(lines, roles[0] ?? null, name),
    email: email === null ? null : email.replace(/\.$/, ''),
    phone: phone?.trim() ?? null,
    quote: near?.text ?? from?.text ?? null,
  };
}

/** On the line of a name or on the one below it. */
const isBy = (lines: readonly DocumentLine[], line: DocumentLine, family: string): boolean =>
  line.text.includes(family) || (lines[lines.indexOf(line) - 1]?.text.includes(family) ?? false);

/** “Owner, Limpet Climbing” under a name. */
function besideRole(lines: readonly DocumentLine[], role: string | null, name: string | null): string | null {
  if (role === null) return null;
  const line = lines.find((one) => one.text.startsWith(`${role}, `));
  const [, firm = ''] = line?.text.split(/,\s*/) ?? [];
  return /^\p{Lu}[\p{L}&'’ .-]{2,50}$/u.test(firm) && firm !== name ? firm : null;
}

/** `"Penhallow, Tamsin" <…>` */
function nameFrom(head: string | undefined): string | undefined {
  const shown = /^[^:]{2,12}:([^<]{3,80})</
    .exec(head ?? '')?.[1]
    ?.replace(/"/g, '')
    .trim();
  if (shown === undefined) return undefined;
  const [family, given] = shown.split(/,\s*/);
  const name = given === undefined ? shown : `${given} ${family ?? ''}`;
  return /^\p{Lu}[\p{L}'’. -]+ \p{Lu}/u.test(name) ? name : undefined;
}

const namesIn = (text: string): readonly string[] =>
  [...text.replace(EMAIL, '').matchAll(NAME)]
    .map(([name]) => name.replace(POLITE, ''))
    .filter((name) => !ROLE.test(plainFold(name)) && !FIRM.test(plainFold(name)) && !LEGAL.test(name) && name.includes(' '));

/** The one the address spells, else the nearest. */
function bestName(names: readonly string[], email: string | null): string | null {
  const local = email?.split('@')[0] ?? null;
  return [...names].sort((a, b) => fitsAddress(b, local) - fitsAddress(a, local))[0] ?? null;
}

const roleIn = (text: string): string | null =>
  text
    .split(/[,|·–—()]|\t| - /)
    .map((piece) => piece.trim())
    .find(
      (piece) =>
        piece.length <= 40 &&
        piece.split(' ').length <= 4 &&
        !EMAIL.test(piece) &&
        /^(?:\p{Ll}|\p{Lu})/u.test(piece) &&
        ROLE.test(plainFold(piece)),
    ) ?? null;

/** The firm named at the head, told by its legal form or by standing alone before the first comma. */
function companyIn(lines: readonly DocumentLine[], sentences: readonly Sentence[]): string | null {
  const pieces = [...lines.slice(0, 8), ...lines.slice(-5)]
    .flatMap((line) => line.text.split(/[,|·–—(\t]|: | - /))
    .map((piece) => piece.trim());
  const firm = pieces.find(
    (piece) =>
      piece.length <= 60 &&
      LEGAL.test(piece) &&
      /^\p{Lu}/u.test(piece) &&
      piece.split(' ').length >= 2 &&
      piece.split(' ').length <= 7 &&
      !/[.!?] /.test(piece),
  );
  if (firm !== undefined) return firm;
  const said = sentences
    .map(
      (sentence) =>
        /(?<![\p{L}&'’ -])(?:\p{Lu}[\p{L}&'’-]{1,30} ){1,5}(?:Ltd|GmbH|B\.?V\.?|S\.?L\.?|SARL|LLC|KG|AG)(?!\p{L})/u.exec(
          sentence.text,
        )?.[0],
    )
    .find((found) => found !== undefined);
  return said ?? null;
}

export interface Decision {
  readonly who: readonly string[];
  readonly quote: string;
}

export function decisionOf(sentences: readonly Sentence[]): Decision | null {
  const own = sentences.filter((sentence) => DECIDES.test(sentence.folded));
  const best =
    own.find((sentence) => sentence.section === 'decision') ??
    own.find((sentence) => /^(?:i|we|ich|wir|ik|wij|the|die|der|de|la|el|le|mein\w*|my|mijn|mi|mon|ma)\b/.test(sentence.folded)) ??
    own[0];
  if (!best) return null;
  const names = [...best.text.matchAll(NAME)].map(([name]) => name.replace(POLITE, ''));
  return { who: names, quote: best.text };
}
