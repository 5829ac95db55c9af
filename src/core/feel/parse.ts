import { feelTokens, type FeelToken } from './tokens';
import type { BinaryOp, FeelExpr, FeelTest, ParsedFeel } from './tree';

/** Parses one expression (DMN 1.4, 10.3.1: what conditions and formulas use of it). Offsets in the result are offsets into `text`. Never throws. */
export function parseFeel(text: string): ParsedFeel {
  if (text.trim() === '')
    return { text, expr: undefined, problems: [{ from: 0, to: text.length, message: 'a condition or a value is missing here' }] };
  try {
    return { text, expr: new Parser(text).whole(), problems: NONE };
  } catch (error) {
    if (!(error instanceof Misfit)) throw error;
    return { text, expr: undefined, problems: [{ from: error.from, to: error.to, message: error.message }] };
  }
}

const NONE: readonly never[] = [];

class Misfit extends Error {
  constructor(
    readonly from: number,
    readonly to: number,
    message: string,
  ) {
    super(message);
  }
}

/** How tightly the operators between two sides bind; `in` and `between` bind as comparisons do. */
const BINDS: Readonly<Record<string, number>> = {
  or: 1,
  and: 2,
  '=': 3,
  '!=': 3,
  '<': 3,
  '<=': 3,
  '>': 3,
  '>=': 3,
  in: 3,
  between: 3,
  '+': 4,
  '-': 4,
  '*': 5,
  '/': 5,
  '**': 6,
};
const COMPARES = 3;
const OPS: ReadonlySet<string> = new Set<BinaryOp>(['+', '-', '*', '/', '**', '=', '!=', '<', '<=', '>', '>=']);
const isOp = (text: string): text is BinaryOp => OPS.has(text);
const COMPARISON: ReadonlySet<string> = new Set(['<', '<=', '>', '>=', '=', '!=']);
/** Words that never begin a value. */
const INSIDE: ReadonlySet<string> = new Set(['and', 'or', 'in', 'between', 'then', 'else']);
/** FEEL that is not run: refused by its first word, so that the message names it. */
const REFUSED: ReadonlySet<string> = new Set(['for', 'some', 'every', 'function', 'return', 'satisfies']);
/** So deep nobody nests; a text made to exhaust the stack is refused instead. */
const DEEPEST = 200;

/** A Pratt parser: `expression(binds)` reads everything that binds tighter. */
class Parser {
  private readonly tokens: readonly FeelToken[];
  private at = 0;
  private depth = 0;

  constructor(private readonly text: string) {
    this.tokens = feelTokens(text);
  }

  whole(): FeelExpr {
    const expr = this.expression(0);
    if (this.token.kind !== 'end') this.misfit();
    return expr;
  }

  private get token(): FeelToken {
    return this.tokens[this.at] ?? (this.tokens.at(-1) as FeelToken);
  }

  private next(): FeelToken {
    const token = this.token;
    if (token.kind !== 'end') this.at += 1;
    return token;
  }

  private is(text: string): boolean {
    const { kind } = this.token;
    return this.token.text === text && (kind === 'op' || kind === 'name');
  }

  private take(text: string): boolean {
    if (!this.is(text)) return false;
    this.at += 1;
    return true;
  }

  private want(text: string): FeelToken {
    return this.is(text) ? this.next() : this.misfit();
  }

  /** The token that is here fits nowhere. */
  private misfit(token = this.token): never {
    if (token.kind === 'end') {
      const end = this.text.trimEnd().length;
      throw new Misfit(Math.max(0, end - 1), Math.max(1, end), 'the condition stops too early: something is missing at its end');
    }
    const shown = token.text === '"' ? this.text.slice(token.from).trim() : token.text;
    const message =
      token.text === '"'
        ? 'the closing quote is missing'
        : REFUSED.has(token.text)
          ? `“${token.text}” is FEEL that Millrace does not run yet`
          : `“${shown}” does not fit here`;
    throw new Misfit(token.from, Math.max(token.to, token.from + 1), message);
  }

  private expression(binds: number): FeelExpr {
    if (++this.depth > DEEPEST) throw new Misfit(this.token.from, this.token.from + 1, 'this is nested too deep to be read');
    let left = this.prefix();
    for (let power = this.power(); power > binds; power = this.power()) {
      left = this.infix(left, power);
      // Comparisons do not chain: `1 < x < 3` has no meaning.
      if (power === COMPARES && this.power() === COMPARES) this.misfit();
    }
    this.depth -= 1;
    return left;
  }

  private power(): number {
    const { kind, text } = this.token;
    return kind === 'op' || kind === 'name' ? (BINDS[text] ?? 0) : 0;
  }

  private infix(left: FeelExpr, power: number): FeelExpr {
    const op = this.next().text;
    if (op === 'and' || op === 'or') {
      const right = this.expression(power);
      return { from: left.from, to: right.to, kind: 'logic', op, left, right };
    }
    if (op === 'between') {
      const low = this.expression(COMPARES);
      this.want('and');
      const high = this.expression(COMPARES);
      return { from: left.from, to: high.to, kind: 'between', value: left, low, high };
    }
    if (op === 'in') return this.membership(left);
    if (!isOp(op)) return this.misfit();
    const right = this.expression(power);
    return { from: left.from, to: right.to, kind: 'binary', op, left, right };
  }

  /** Behind `in`: a range, one test, or several in parentheses. */
  private membership(value: FeelExpr): FeelExpr {
    const tests: FeelTest[] = [];
    // `(2..5]` is a range; any other parenthesis holds tests.
    if (this.is('(') && !this.isRange()) {
      this.next();
      do tests.push(...this.test());
      while (this.take(','));
      const { to } = this.want(')');
      return { from: value.from, to, kind: 'in', value, tests };
    }
    tests.push(...this.test());
    return { from: value.from, to: this.tokens[this.at - 1]?.to ?? value.to, kind: 'in', value, tests };
  }

  private test(): readonly FeelTest[] {
    if (this.token.kind === 'op' && COMPARISON.has(this.token.text)) {
      const op = this.next().text;
      const right = this.expression(COMPARES);
      return isOp(op) ? [{ kind: 'compare', op, value: right }] : this.misfit();
    }
    if (this.isRange()) {
      const open = this.next().text;
      const low = this.expression(COMPARES);
      this.want('..');
      const high = this.expression(COMPARES);
      const close = this.token.text;
      if (!this.take(']') && !this.take(')') && !this.take('[')) this.misfit();
      return [{ kind: 'range', low, high, openLow: open !== '[', openHigh: close !== ']' }];
    }
    const value = this.expression(COMPARES);
    return value.kind === 'list' ? value.items.map((item) => ({ kind: 'equals', value: item })) : [{ kind: 'equals', value }];
  }

  /** Whether a bracket that opens here holds two ends with `..` between them. */
  private isRange(): boolean {
    if (!this.is('[') && !this.is('(') && !this.is(']')) return false;
    let depth = 0;
    for (let i = this.at + 1; i < this.tokens.length; i++) {
      const text = this.tokens[i]?.kind === 'op' ? this.tokens[i]?.text : '';
      if (text === '..' && depth === 0) return true;
      if (text === '(' || text === '[') depth += 1;
      if (text === ')' || text === ']') depth -= 1;
      if (depth < 0 || (text === ',' && depth === 0)) return false;
    }
    return false;
  }

  private prefix(): FeelExpr {
    const token = this.next();
    const { from, to } = token;
    if (token.kind === 'number') {
      const value = Number(token.text);
      return token.unit ? { from, to: token.unit.to, kind: 'literal', value, unit: token.unit.name } : { from, to, kind: 'literal', value };
    }
    if (token.kind === 'string') return { from, to, kind: 'literal', value: unquote(token.text) };
    if (token.kind === 'name') return this.named(token);
    if (token.text === '-' && token.kind === 'op') {
      const of = this.expression(BINDS['**'] ?? 0);
      return { from, to: of.to, kind: 'negate', of };
    }
    if (token.text === '(') {
      const inner = this.expression(0);
      this.want(')');
      return inner;
    }
    if (token.text === '[') {
      const items: FeelExpr[] = [];
      if (!this.is(']'))
        do items.push(this.expression(0));
        while (this.take(','));
      return { from, to: this.want(']').to, kind: 'list', items };
    }
    return this.misfit(token);
  }

  private named(token: FeelToken): FeelExpr {
    const { from, to, text } = token;
    if (text === 'true' || text === 'false') return { from, to, kind: 'literal', value: text === 'true' };
    if (text === 'null') return { from, to, kind: 'literal', value: null };
    if (text === 'if') {
      const test = this.expression(0);
      this.want('then');
      const then = this.expression(0);
      this.want('else');
      const otherwise = this.expression(0);
      return { from, to: otherwise.to, kind: 'if', test, then, otherwise };
    }
    if (INSIDE.has(text) || REFUSED.has(text)) return this.misfit(token);
    return this.callOrPath(token);
  }

  /** `upper case(x)`, `company.founded`: a function's name may have several words. */
  private callOrPath(first: FeelToken): FeelExpr {
    const words = [first.text];
    while (this.token.kind === 'name' && BINDS[this.token.text] === undefined && !INSIDE.has(this.token.text)) {
      const ahead = this.wordsToParenthesis();
      if (!ahead) break;
      words.push(this.next().text);
    }
    if (this.is('(')) return this.call(first, words.join(' '));
    const segments = [first.text];
    let { to } = first;
    while (this.is('.') && this.tokens[this.at + 1]?.kind === 'name') {
      this.next();
      const part = this.next();
      segments.push(part.text);
      to = part.to;
    }
    return { from: first.from, to, kind: 'path', segments };
  }

  private wordsToParenthesis(): boolean {
    let i = this.at;
    while (this.tokens[i]?.kind === 'name') i += 1;
    return i > this.at && this.tokens[i]?.text === '(';
  }

  private call(first: FeelToken, name: string): FeelExpr {
    this.want('(');
    const args: FeelExpr[] = [];
    if (!this.is(')'))
      do args.push(this.expression(0));
      while (this.take(','));
    const { to } = this.want(')');
    if (name !== 'date') return { from: first.from, to, kind: 'call', name, args };
    const [day] = args;
    const text = day?.kind === 'literal' ? day.value : undefined;
    if (args.length !== 1 || typeof text !== 'string' || !/^\d{4}-\d\d-\d\d$/.test(text) || Number.isNaN(Date.parse(text)))
      throw new Misfit(first.from, to, 'write a date as date("2026-11-24")');
    return { from: first.from, to, kind: 'literal', value: text, date: true };
  }
}

const unquote = (raw: string): string => {
  const inner = raw.slice(1, -1);
  return inner.includes('\\') ? inner.replace(/\\(["\\nt])/g, (_, c: string) => (c === 'n' ? '\n' : c === 't' ? '\t' : c)) : inner;
};
