import { clip, near, shortHash } from '../../base';
import { Cursor } from '../tree/cursor';
import { DEEPEST, readRows, type Row } from '../tree/rows';
import type { Arm, FlowTree, Line, Named, ParsedFlow, Step, SyntaxProblem, Use, Word } from '../tree/tree';
import { takeVerb, verbs } from '../verbs';

/**
 * Reads flow text into its tree. Total: every text gives a tree, and what could not be understood stays in it word for
 * word as an `unknown` line with a located problem.
 */
export function parseFlow(text: string): ParsedFlow {
  return new FlowReader(text).read();
}

/** Reads lines alone, without the head that names a flow: one line being typed, or a few. Total as `parseFlow` is. */
export function parseLines(text: string): ParsedFlow {
  return new FlowReader(text).read({ head: false });
}

/** One for all that have nothing: ten thousand lines are ten thousand arrays fewer to make. */
const NONE: readonly never[] = [];

/** So many lines of the same words, or lines in all, and marks get longer. */
const CROWDED = 64;
const ROOMY = 30_000;

const HEADS: ReadonlySet<string> = new Set(['flow', 'about', 'uses']);

class FlowReader {
  private readonly problems: SyntaxProblem[] = [];
  private readonly marks = new Set<string>();
  /** marks that stand in the text: none of them is given to another line */
  private readonly written = new Set<string>();
  private readonly tries = new Map<string, number>();
  private readonly suggestions = new Map<string, string>();
  private name: Named | undefined;
  private about: Word | undefined;
  private readonly uses: Use[] = [];

  constructor(private readonly text: string) {}

  read({ head } = { head: true }): ParsedFlow {
    const rows = readRows(this.text);
    this.lookThrough(rows);
    const body = rows.filter((row) => !this.header(row));
    const { lines, left } = this.lines(body);
    const tree: FlowTree = { name: this.name, about: this.about, uses: this.uses, lines, endComments: left };
    if (head && !this.name) this.say(rows[0], 'the first line names the flow: flow "Trade-fair visitors"');
    if (head && !this.about) this.say(rows[0], 'say whom the flow is about: about person');
    return { text: this.text, tree, problems: this.problems.sort((a, b) => a.from - b.from) };
  }

  /** Once through all rows before any is read: marks that stand in the text, and what is nested too deep. */
  private lookThrough(rows: readonly Row[]): void {
    for (const row of rows) {
      if (row.mark !== undefined) this.written.add(row.mark);
      if (row.tooDeep) this.say(row, `this is nested deeper than ${DEEPEST} levels: move it into a flow of its own`);
      if (row.children.length > 0) this.lookThrough(row.children);
    }
  }

  private say(row: Row | undefined, message: string): void {
    this.problems.push({ from: row?.from ?? 0, to: Math.max(row?.to ?? 0, (row?.from ?? 0) + 1), message });
  }

  private header(row: Row): boolean {
    if (!HEADS.has(row.tokens[0]?.text ?? '')) return false;
    const cursor = new Cursor(this.text, row, this.problems);
    if (cursor.take('flow')) {
      this.name = cursor.wantName('the flow');
      cursor.end();
      return true;
    }
    if (cursor.take('about')) {
      this.about = cursor.wantPath('whom the flow is about (person, company)');
      cursor.end();
      return true;
    }
    if (!cursor.take('uses')) return false;
    const what = cursor.wantPath('what is used (connection)');
    const name = what && cursor.wantPath('its name in this flow');
    const value = name && cursor.want('=', 'uses connection mail = "Sales mailbox"') && cursor.wantName('the connection');
    if (what && name && value) this.uses.push({ from: row.from, to: row.to, what, name, value });
    return true;
  }

  private lines(rows: readonly Row[]): { lines: Line[]; left: readonly string[] } {
    const lines: Line[] = [];
    let comments: string[] | undefined;
    for (const row of rows) {
      if (row.tokens.length === 0) {
        if (row.comment !== undefined) (comments ??= []).push(row.comment);
        continue;
      }
      lines.push(this.line(row, comments ?? NONE));
      comments = undefined;
    }
    return { lines, left: comments ?? NONE };
  }

  private line(row: Row, comments: readonly string[]): Line {
    const cursor = new Cursor(this.text, row, this.problems);
    const off = cursor.take('off', ':') !== undefined;
    const step = this.step(row, cursor) ?? { verb: 'unknown', text: this.block(row) };
    const to = lastRow(row).to;
    // An unknown line carries its comments in its own words; a known one would lose those at its end and among its clauses.
    const own = step.verb === 'unknown' ? [] : commentsOf(row, !('arms' in step));
    return {
      from: row.from,
      to,
      head: { from: row.from, to: row.to },
      mark: this.mark(row.mark, this.text.slice(row.from, to)),
      off,
      comments: own.length === 0 ? comments : [...comments, ...own],
      step,
    };
  }

  /** What was meant, found out once for each word. */
  private suggestion(word: string): string {
    const known = this.suggestions.get(word) ?? suggest(word);
    this.suggestions.set(word, known);
    return known;
  }

  private step(row: Row, cursor: Cursor): Step | undefined {
    const start = cursor.here();
    const verb = takeVerb(cursor);
    if (verb === undefined) {
      const word = row.tokens[cursor.position]?.text ?? '';
      return cursor.say(`“${clip(word, LONGEST_WORD)}” is not a verb Millrace knows${this.suggestion(word)}`, start);
    }
    const before = this.problems.length;
    // What is read has the shape of its verb.
    const step = verb.read(cursor, verb.holdsLines ? NONE : this.clauses(row), () => this.arms(row)) as Step | undefined;
    if (step) cursor.end();
    if (!step && this.problems.length === before) cursor.say(`this line is not complete`, row);
    return step;
  }

  private clauses(row: Row): readonly Cursor[] {
    if (row.children.length === 0) return NONE;
    for (const child of row.children) for (const deeper of child.children) this.say(deeper, 'this is indented too far');
    return row.children.filter((child) => child.tokens.length > 0).map((child) => new Cursor(this.text, child, this.problems));
  }

  private arms(row: Row): Arm[] {
    const arms: Arm[] = [];
    let comments: string[] = [];
    for (const child of row.children) {
      if (child.comment !== undefined) comments.push(child.comment);
      if (child.tokens.length === 0) continue;
      const cursor = new Cursor(this.text, child, this.problems);
      const isElse = cursor.take('else') !== undefined;
      if (!isElse && !cursor.take('when')) {
        cursor.say('below “split” every arm begins with when … or else', child);
        continue;
      }
      const when = isElse ? undefined : cursor.wantFeel('the condition of this arm');
      if (isElse) cursor.end();
      const { lines } = this.lines(child.children);
      arms.push({
        from: child.from,
        to: child.to,
        when: when ?? (isElse ? undefined : emptyWhen(child)),
        mark: this.mark(child.mark, this.text.slice(child.from, child.to)),
        comments,
        lines,
      });
      comments = [];
    }
    if (arms.length === 0) this.say(row, 'a split needs at least one arm below it: when fit.points >= 75');
    return arms;
  }

  /** The mark written in the text, else one made from the words, so that the same text always has the same marks. */
  private mark(written: string | undefined, words: string): string {
    const own = written !== undefined && !this.marks.has(written) ? written : undefined;
    let mark = own ?? `k${shortHash(words, 4)}`;
    const taken = (): boolean => mark !== own && (this.marks.has(mark) || this.written.has(mark));
    if (taken()) {
      // The same words come again and again in long flows: the search goes on where it ended.
      let n = this.tries.get(words) ?? 1;
      // Four digits serve short names in flows people write; where they run out, eight do.
      do mark = `k${shortHash(`${words}\u0000${++n}`, n > CROWDED || this.marks.size > ROOMY ? 8 : 4)}`;
      while (taken());
      this.tries.set(words, n);
    }
    this.marks.add(mark);
    return mark;
  }

  /** The row with everything below it, indentation relative to the row. */
  private block(row: Row): string {
    const raw = this.text.slice(row.from, lastRow(row).to).split('\n');
    return raw
      .map((part, i) => (i === 0 ? part : part.slice(Math.min(row.column, part.length - part.trimStart().length))))
      .map((part) =>
        part
          .trimEnd()
          .replace(/\s#[a-z0-9]{1,40}$/i, '')
          .trimEnd(),
      )
      .filter((part) => part.trim() !== '')
      .join('\n');
  }
}

/** The comments at the ends of a line's rows. */
function commentsOf(row: Row, clauses: boolean): readonly string[] {
  if (row.comment === undefined && (!clauses || row.children.length === 0)) return NONE;
  return [row, ...(clauses ? row.children : [])].flatMap((part) => part.comment ?? []);
}
const lastRow = (row: Row): Row => {
  const child = row.children.at(-1);
  return child ? lastRow(child) : row;
};
const emptyWhen = (row: Row) => ({ from: row.from, to: row.to, parsed: { text: '', expr: undefined, problems: [] } });

/** Nobody mistypes a longer word than this. */
const LONGEST_WORD = 40;

function suggest(word: string): string {
  if (word.length > LONGEST_WORD) return '';
  const all = verbs().map(({ verb }) => verb);
  const begun = all.find((verb) => word.length > 2 && verb.startsWith(word.slice(0, 3).toLowerCase()));
  if (begun) return `: did you mean “${begun}”?`;
  // "scroe": close to the first word of a verb
  const close = near(
    word,
    all.map((verb) => verb.split(' ')[0] ?? verb),
  );
  return close || `: lines begin with ${all.slice(0, -1).join(', ')} or ${all.at(-1) ?? ''}`;
}
