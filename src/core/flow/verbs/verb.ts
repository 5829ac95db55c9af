import type { z } from 'zod';
import type { Catalogue } from '../../fields';
import type { Library } from '../meaning/library';
import type { ResultShape } from '../meaning/scope';
import type { Check, Say, Way } from '../meaning/way';
import type { Part } from '../parts/parts';
import type { PhraseRule } from '../parts/phrasing';
import type { Cursor } from '../tree/cursor';
import type { Arm, Expr, Line } from '../tree/tree';

/** What every line has: its verb. */
export interface Shape {
  readonly verb: string;
}

/** How a line may begin; the caret is left where something must be named. */
export type Beginning = readonly [label: string, insert: string, detail: string];

/** Which names fit behind words that end where a quote is opened, and what they are names of. */
export type NamesAfter = readonly [before: RegExp, names: (library: Library, before: string) => readonly string[], what: string];

/** What happens to records at a line, before anything was seen there. */
export interface Weighs {
  /** how many end here: none ever, few, or nobody knows */
  readonly loses: 'none' | 'few' | 'unknown';
  /** what the line does is a guess until something was seen there */
  readonly isGuess: boolean;
}

/**
 * Everything the language knows of one verb. A description that lacks a part does not compile; parts with a question mark are
 * those that hardly any verb has. Methods take the shape of the verb's own lines.
 */
export interface VerbOf<S extends Shape> {
  readonly verb: S['verb'];
  /** what a line of it does, in a sentence or two */
  readonly help: string;
  readonly begins: readonly Beginning[];
  readonly names: readonly NamesAfter[];
  /** rows in which fields, results and functions may follow */
  readonly speaks: readonly RegExp[];
  /** everyday words for it, before those of verbs that come later */
  readonly phrases: readonly PhraseRule[];
  /**
   * Lines of it that stand by themselves below `take in`, with lines they need above them, for random flows: `%` is a number of their
   * own, `{scorecard}` and the like the name of such a thing.
   */
  readonly samples: readonly string[];

  /** Reads what follows the verb; `clauses` walk the rows indented below. Undefined: not understood, and said why. */
  read(row: Cursor, clauses: readonly Cursor[], arms: () => readonly Arm[]): S | undefined;
  /** The rows of a line: its own, then its clauses without indentation. What is read from them is the same line. */
  print(step: S): readonly string[];
  /** Says what is wrong with a line, and what it leaves for those below. */
  check(step: S, way: Way, check: Check, say: Say, line: Line): void;
  /** What stands under the line's `as` name; undefined for verbs that leave nothing. */
  result(step: S, library: Pick<Library, 'fields'>): ResultShape | undefined;
  /** The line as a sentence; fields are called as their business calls them. */
  say(step: S, fields: Catalogue): readonly Part[];
  /** Its shape in JSON; `line` is that of lines inside it. */
  json(line: () => z.ZodType): z.ZodObject;
  /** The expressions a compiled line carries: its own, and that of a clause. */
  compiles(step: S): { readonly own?: Expr | undefined; readonly clause?: Expr | undefined };
  readonly weighs: Weighs;

  /** days on which a record that gets past the line is written to, counted from then */
  sends?(step: S, library: Library): readonly number[];
  /** what records bring along from where they come, as the parts of `entry` */
  brings?(step: S, library: Pick<Library, 'intakes'>): ResultShape | undefined;
  /** no record goes on behind it */
  readonly ends?: true;
  /** lines stand inside it */
  readonly holdsLines?: true;
  /** right below `gather` it works for all that were gathered */
  readonly speaksForMany?: true;
  /** it only finds something out: lines that need nothing of each other do so at the same time */
  finds?(step: S): Finds;
  /** a result that no line uses is worth a word */
  readonly isMadeToBeUsed?: true;
}

/** What a line that only finds something out looks at, and what it may fill or whom it asks: fields as paths, others by a name. */
export interface Finds {
  readonly needs: readonly string[];
  readonly fills: readonly string[];
}

/** Nothing is told apart, nothing is lost: most lines. */
export const LETS_PASS: Weighs = { loses: 'few', isGuess: false };
