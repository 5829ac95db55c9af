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

/** What a `wait` line waits for. */
export type WaitFor =
  | { readonly kind: 'while'; readonly length: Wait }
  | { readonly kind: 'clock'; readonly time: ClockTime; readonly workingDay: boolean; readonly readerTime: boolean }
  | { readonly kind: 'date'; readonly date: Expr }
  | { readonly kind: 'reply'; readonly message: Word; readonly atMost?: Wait }
  | { readonly kind: 'condition'; readonly when: Expr; readonly atMost?: Wait };

/** One word a `sort` line may put on a text, with what it means. */
export interface SortLabel extends Span {
  readonly name: Word;
  readonly meaning: Named;
  readonly examples: readonly Named[];
}

/** Whom or what `tell` and `hand over` speak to: a role as a bare word, else a person, a team or a webhook by name. */
export type Addressee = { readonly kind: 'role'; readonly name: Word } | { readonly kind: 'named'; readonly name: Named };

/** When the clock takes records in. */
export interface ClockIntake extends Span {
  /** when it strikes; with `every` the first stroke of a day */
  readonly time: ClockTime;
  /** it strikes again and again, until the end of the day or this time */
  readonly every?: Wait;
  readonly until?: ClockTime;
  readonly workingDays: boolean;
  /** it strikes somewhere within this time, another moment every day */
  readonly within?: Wait;
  readonly when: Expr | undefined;
}

/** A record comes in when one of these fields changes; `record` stands for the record itself, when it is new. */
export interface ChangeIntake extends Span {
  readonly fields: readonly Word[];
  readonly when?: Expr;
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

/** One part of the answer a `hand over` waits for. */
export interface AnswerPart extends Span {
  readonly id: Word;
  readonly type: AnswerType;
}

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

export type Step =
  | {
      readonly verb: 'take in';
      readonly from: Word;
      readonly name?: Named;
      readonly oncePer?: Word;
      readonly clock?: ClockIntake;
      readonly change?: ChangeIntake;
    }
  | {
      readonly verb: 'keep';
      readonly when: Expr;
      /** what is screened out although the condition holds: words of `SCREENS` */
      readonly unless?: readonly Word[];
      readonly otherwise?: Assignment;
    }
  | { readonly verb: 'match'; readonly targets: readonly Word[]; readonly askAbove?: Amount; readonly sameAbove?: Amount }
  | {
      readonly verb: 'read';
      readonly target: Word;
      readonly places: readonly Word[];
      readonly questions: readonly Question[];
      readonly maxPages?: Amount;
      readonly maxCost?: Amount;
      /** what was read longer ago is read again */
      readonly noOlder?: Wait;
      readonly as?: Word;
    }
  | { readonly verb: 'score'; readonly target: Word; readonly scorecard: Named; readonly as?: Word }
  | { readonly verb: 'split'; readonly arms: readonly Arm[] }
  | { readonly verb: 'look up'; readonly field: Word; readonly chain: Named }
  | { readonly verb: 'open'; readonly what: 'deal'; readonly pipeline: Named; readonly stage: Named; readonly as?: Word }
  | { readonly verb: 'open'; readonly what: 'application'; readonly opening: Named; readonly stage: Named; readonly as?: Word }
  | { readonly verb: 'assign'; readonly what?: Word; readonly team: Named }
  | { readonly verb: 'set'; readonly assignment: Assignment }
  | { readonly verb: 'note'; readonly text: Expr }
  | { readonly verb: 'write'; readonly channel: Word; readonly template: Named; readonly as?: Word }
  | {
      readonly verb: 'ask';
      readonly who: Named;
      readonly message: Word;
      readonly within?: Wait;
      readonly otherwise?:
        { readonly does: 'stop'; readonly text: Named } | { readonly does: 'tell'; readonly who: Word; readonly text: Named };
    }
  | { readonly verb: 'send'; readonly message: Word; readonly sameThread: boolean }
  | { readonly verb: 'follow up'; readonly plan: Named }
  | { readonly verb: 'wait'; readonly for: WaitFor; readonly as?: Word }
  | { readonly verb: 'gather'; readonly count: Amount; readonly atMost: Wait; readonly as?: Word }
  | { readonly verb: 'sort'; readonly text: Expr; readonly labels: readonly SortLabel[]; readonly as?: Word }
  | {
      readonly verb: 'pick out';
      /** what kind of document it is, when its usual parts are wanted */
      readonly document?: Word;
      readonly text: Expr;
      readonly questions: readonly Question[];
      readonly as?: Word;
    }
  | { readonly verb: 'move'; readonly what: Word; readonly stage: Named }
  | {
      readonly verb: 'tell';
      readonly who: Addressee;
      readonly byEmail: boolean;
      readonly text: Expr;
      /** the result of a `prepare` line that goes along */
      readonly paper?: Word;
    }
  | {
      readonly verb: 'hand over';
      readonly to: Named;
      /** set: the trip waits for an answer with these parts */
      readonly answer?: { readonly atMost: Wait; readonly parts: readonly AnswerPart[] };
      readonly as?: Word;
    }
  | { readonly verb: 'call'; readonly script: Named; readonly as?: Word }
  | { readonly verb: 'book'; readonly team: Named; readonly within?: Wait; readonly as?: Word }
  | { readonly verb: 'prepare'; readonly document: Named; readonly as?: Word }
  | { readonly verb: 'stop'; readonly reason?: Named }
  /** a line that could not be understood: kept word for word, so that nothing typed is lost */
  | { readonly verb: 'unknown'; readonly text: string };

export type Verb = Step['verb'];
export type StepOf<V extends Verb> = Extract<Step, { verb: V }>;

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
      if (line.step.verb === 'split') for (const arm of line.step.arms) visit(arm.lines, depth + 1);
    }
  };
  visit(lines, 0);
  return out;
}
