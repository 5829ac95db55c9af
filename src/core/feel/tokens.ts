/** One token of FEEL text; offsets into the text. */
export interface FeelToken {
  readonly kind: 'name' | 'number' | 'string' | 'op' | 'end' | 'wrong';
  readonly text: string;
  readonly from: number;
  readonly to: number;
  /** of a number: the unit behind it, and where the two end together */
  readonly unit?: { readonly name: string; readonly to: number };
}

/** Longer operators first, so that `<=` is not read as `<` and `=`. */
const TOKEN = /\s+|"(?:[^"\\\n]|\\.)*"|\d+(?:\.\d+)?|[\p{L}_][\p{L}\p{N}_]*|\*\*|\.\.|!=|<=|>=|[-+*/=<>()[\],.]|[\s\S]/uy;
const OP = new Set(['**', '..', '!=', '<=', '>=', '-', '+', '*', '/', '=', '<', '>', '(', ')', '[', ']', ',', '.']);
/**
 * The unit a number carries: a sign, a currency, or what is counted. FEEL has none: here they stand behind the number, apart by a
 * space, and are any word that FEEL itself does not put there. Which units fit which field is for the types to say.
 */
const UNIT =
  /\s+(?!(?:and|or|then|else|in|between|instance|satisfies|return|of|if|null|true|false|not)(?![\p{L}\p{N}_]))([\p{L}°€$£%][\p{L}²³0-9/]{0,19})(?![\p{L}\p{N}_(.])/uy;
const SPACE = /^\s/u;
const NAME = /^[\p{L}_]/u;

function kindOf(text: string): FeelToken['kind'] {
  const code = text.charCodeAt(0);
  if (code === 34) return text.length > 1 ? 'string' : 'wrong';
  if (code >= 48 && code <= 57) return 'number';
  if (OP.has(text)) return 'op';
  return (code >= 97 && code <= 122) || NAME.test(text) ? 'name' : 'wrong';
}

/** Cuts FEEL text into tokens, an `end` as the last. Total: what fits nowhere is a `wrong` token. */
export function feelTokens(text: string): readonly FeelToken[] {
  const out: FeelToken[] = [];
  for (let from = 0; from < text.length;) {
    TOKEN.lastIndex = from;
    const to = TOKEN.test(text) ? TOKEN.lastIndex : from + 1;
    const start = from;
    from = to;
    const code = text.charCodeAt(start);
    if (code === 32) continue;
    const piece = text.slice(start, to);
    if ((code < 32 || code > 127) && SPACE.test(piece)) continue;
    const kind = kindOf(piece);
    const token: FeelToken = { kind, text: piece, from: start, to };
    const unit = kind === 'number' && text.charCodeAt(to) === 32 ? unitAt(text, to) : undefined;
    out.push(unit ? { ...token, unit } : token);
    if (unit) from = unit.to;
  }
  out.push({ kind: 'end', text: '', from: text.length, to: text.length });
  return out;
}

function unitAt(text: string, at: number): FeelToken['unit'] {
  UNIT.lastIndex = at;
  const name = UNIT.exec(text)?.[1];
  return name === undefined ? undefined : { name: name === 'm2' ? 'm²' : name, to: UNIT.lastIndex };
}
