import type { Duration } from '../../base';
import type { ParsedFeel } from '../../feel';

/** Offsets into the flow's text. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** A value in quotes: the name of something that must exist. */
export interface Named extends Span {
  readonly text: string;
}
/** A bare word: a result's name, or a path such as `company.website`. */
export interface Word extends Span {
  readonly text: string;
}
export interface Amount extends Span {
  readonly value: number;
  readonly unit?: string;
}
/** A FEEL expression; spans inside `parsed` are relative to `from`. */
export interface Expr extends Span {
  readonly parsed: ParsedFeel;
}
export interface Wait extends Span {
  readonly duration: Duration;
}
/** A time of day, as `09:00`. */
export interface ClockTime extends Span {
  /** minutes since midnight */
  readonly minute: number;
}

/** `money` is a number in a currency (ISO 4217), `date` ISO 8601 as exactly as it was said, `list` a text parted by commas. */
export type AnswerType =
  | { readonly kind: 'number'; readonly unit?: string }
  | { readonly kind: 'money'; readonly currency: string }
  | { readonly kind: 'choice'; readonly options: readonly string[] }
  | { readonly kind: 'text' | 'list' | 'yes/no' | 'year' | 'date' };

export interface Question extends Span {
  readonly id: Word;
  readonly type: AnswerType;
  readonly wording: Named;
}

/** One way of a `split`: lines that stand inside a line. */
export interface Arm extends Span {
  /** undefined: the `else` arm */
  readonly when: Expr | undefined;
  readonly mark: string;
  readonly comments: readonly string[];
  readonly lines: readonly Line[];
}

export interface Assignment {
  readonly field: Word;
  readonly value: Expr;
}

/**
 * What a line says, by its verb: every file under `flow/verbs` adds the shape of its verb here, so that the tree knows no verb by
 * itself. Parts that stand in the text know where.
 */
export interface Steps {
  /** a line that could not be understood: kept word for word, so that nothing typed is lost */
  readonly unknown: { readonly verb: 'unknown'; readonly text: string };
}
export type Verb = keyof Steps;
export type StepOf<V extends Verb> = Steps[V];
export type Step = Steps[Verb];

export interface Line extends Span {
  /** short stable mark, kept when the line moves or is reworded */
  readonly mark: string;
  readonly off: boolean;
  readonly comments: readonly string[];
  readonly step: Step;
  /** the first row of the line, for highlighting: without its clauses */
  readonly head: Span;
}

export interface Use extends Span {
  readonly what: Word;
  readonly name: Word;
  readonly value: Named;
}

export interface FlowTree {
  readonly name: Named | undefined;
  readonly about: Word | undefined;
  readonly uses: readonly Use[];
  readonly lines: readonly Line[];
  readonly endComments: readonly string[];
}

export interface SyntaxProblem extends Span {
  readonly message: string;
}

export interface ParsedFlow {
  readonly text: string;
  readonly tree: FlowTree;
  readonly problems: readonly SyntaxProblem[];
}

/** The arms inside a line; none but a split has any. */
export const armsOf = (line: Line): readonly Arm[] => ('arms' in line.step ? line.step.arms : []);

/** Every line in reading order, with its depth of nesting and its number as the script shows it. */
export interface NumberedLine {
  readonly line: Line;
  readonly depth: number;
  readonly number: number;
}

export function numberedLines(lines: readonly Line[]): readonly NumberedLine[] {
  const out: NumberedLine[] = [];
  const visit = (list: readonly Line[], depth: number): void => {
    for (const line of list) {
      out.push({ line, depth, number: out.length + 1 });
      for (const arm of armsOf(line)) visit(arm.lines, depth + 1);
    }
  };
  visit(lines, 0);
  return out;
}
