import { DURATION_UNITS, type Duration } from '../../base';
import { parseFeel } from '../../feel';
import type { Row, Token } from './rows';
import type { Amount, ClockTime, Expr, Named, Span, SyntaxProblem, Wait, Word } from './tree';

/** In an ending: any word, if it is the last of its row. */
export const NAME = Symbol('name');
type Ending = readonly (string | typeof NAME)[];

/** Walks the tokens of one row. Every `want…` that does not find its part says so at its place and gives undefined. */
export class Cursor {
  private at = 0;

  constructor(
    private readonly source: string,
    readonly row: Row,
    private readonly problems: SyntaxProblem[],
  ) {}

  peek(ahead = 0): Token | undefined {
    return this.row.tokens[this.at + ahead];
  }
  get done(): boolean {
    return this.at >= this.row.tokens.length;
  }
  get position(): number {
    return this.at;
  }

  /** Takes these words when they come next, all of them or none. */
  take(...expected: readonly string[]): Token | undefined {
    return this.takeAll(expected);
  }

  takeAll(expected: readonly string[]): Token | undefined {
    for (let i = 0; i < expected.length; i++) if (this.peek(i)?.text !== expected[i]) return undefined;
    const first = this.peek();
    this.at += expected.length;
    return first;
  }

  say(message: string, span: Span = this.here()): undefined {
    this.problems.push({ from: span.from, to: span.to, message });
    return undefined;
  }

  /** The next token, or the last character of the row when there is none. */
  here(): Span {
    const token = this.peek();
    if (token) return token;
    const end = this.row.tokens.at(-1)?.to ?? this.row.to;
    return { from: Math.max(this.row.from, end - 1), to: end };
  }

  want(word: string, example: string): Token | undefined {
    return this.take(word) ?? this.say(`“${word}” is missing here: for example ${example}`);
  }

  wantName(what: string): Named | undefined {
    const token = this.peek();
    if (token?.kind !== 'String') return this.say(`the name of ${what} is missing here, in quotes`);
    this.at++;
    const closed = token.text.length > 1 && token.text.endsWith('"');
    if (!closed) this.say('the closing quote is missing', token);
    return { from: token.from, to: token.to, text: token.text.slice(1, closed ? -1 : undefined).replace(/\\(["\\])/g, '$1') };
  }

  /** A word, or words joined by points: `company.website`. */
  wantPath(what: string): Word | undefined {
    const first = this.peek();
    if (first?.kind !== 'Word') return this.say(`${what} is missing here`);
    this.at++;
    let { text, to } = first;
    while (this.peek()?.text === '.' && this.peek(1)?.kind === 'Word') {
      const part = this.peek(1);
      text += `.${part?.text ?? ''}`;
      to = part?.to ?? to;
      this.at += 2;
    }
    return { from: first.from, to, text };
  }

  wantNumber(what: string): Amount | undefined {
    const token = this.peek();
    if (token?.kind !== 'Number') return this.say(`${what} is missing here, as a number`);
    this.at++;
    return { from: token.from, to: token.to, value: Number(token.text) };
  }

  /** `as NAME` at this place, when it stands here. */
  asName(): Word | undefined {
    return this.take('as') ? this.wantPath('a name for the result') : undefined;
  }

  wantDuration(): Wait | undefined {
    const amount = this.wantNumber('how long');
    if (!amount) return undefined;
    const working = this.take('working') !== undefined;
    const token = this.peek();
    const word = token?.text.replace(/s$/, '') ?? '';
    const unit = DURATION_UNITS.find((name) => name === (working ? `working ${word}` : word));
    if (!token || unit === undefined) return this.say('say how long: 30 minutes, 4 hours, 2 days, 3 working days, 1 week');
    this.at++;
    const duration: Duration = { amount: amount.value, unit };
    return { from: amount.from, to: token.to, duration };
  }

  /** A time of day: `09:00`. */
  wantClock(): ClockTime | undefined {
    const [hour, colon, minute] = [this.peek(), this.peek(1), this.peek(2)];
    const fits = hour?.kind === 'Number' && colon?.text === ':' && minute?.kind === 'Number' && /^\d\d?$/.test(hour.text);
    if (!fits || !/^\d\d$/.test(minute.text) || Number(hour.text) > 23 || Number(minute.text) > 59)
      return this.say('say the time of day: 09:00');
    this.at += 3;
    return { from: hour.from, to: minute.to, minute: Number(hour.text) * 60 + Number(minute.text) };
  }

  /**
   * FEEL from here to the end of the row, or to where one of the endings begins: words that are no FEEL, such as
   * `, at most` or `as NAME`.
   */
  wantFeel(what: string, endings: readonly Ending[] = []): Expr | undefined {
    const first = this.peek();
    const stop = this.endOfFeel(endings);
    const last = this.row.tokens[stop - 1];
    if (!first || !last || stop <= this.at) return this.say(`${what} is missing here`);
    this.at = stop;
    const parsed = parseFeel(this.source.slice(first.from, last.to));
    for (const problem of parsed.problems) this.say(problem.message, { from: first.from + problem.from, to: first.from + problem.to });
    return { from: first.from, to: last.to, parsed };
  }

  private endOfFeel(endings: readonly Ending[]): number {
    const { tokens } = this.row;
    for (let i = this.at; i < tokens.length; i++)
      if (
        endings.some((ending) =>
          ending.every((text, n) =>
            text === NAME ? tokens[i + n]?.kind === 'Word' && i + n === tokens.length - 1 : tokens[i + n]?.text === text,
          ),
        )
      )
        return i;
    return tokens.length;
  }

  /** `reader's time`, behind `in`. The apostrophe is no part of a word, so it comes as a token of its own. */
  takeReaderTime(): boolean {
    if (this.take('reader', "'", 's', 'time') ?? this.take('reader', '’', 's', 'time')) return true;
    this.say("say in reader's time, or leave it out for the workspace's time");
    return false;
  }

  /** Says so when something is left over at the end of the row. */
  end(): void {
    const next = this.peek();
    const last = this.row.tokens.at(-1);
    if (next && last) this.say(`“${this.source.slice(next.from, last.to)}” does not fit here`, { from: next.from, to: last.to });
  }
}
