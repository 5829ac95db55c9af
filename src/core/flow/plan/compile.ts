import { compileFeel, type FeelClosure } from '../../feel';
import { compileScorecard, type CompiledScorecard } from '../../score';
import type { Library } from '../check';
import type { Expr, FlowTree, Line, Step } from '../syntax';
import { sayArm, sentenceOf } from '../say';
import { verbOf, type Finds } from '../verbs';

/** The place after the last line. */
export const END = -1;

export interface CompiledArm {
  readonly mark: string;
  /** the arm as it is written: `when fit.points >= 75`, or `else` */
  readonly says: string;
  readonly when: FeelClosure | undefined;
  readonly target: number;
}

export interface Instruction {
  readonly at: number;
  readonly mark: string;
  /** as the script numbers its lines */
  readonly number: number;
  readonly step: Step;
  readonly off: boolean;
  /** where a trip goes on after this line */
  readonly next: number;
  /** places of the lines that may find out what they are for while this one does: they need nothing of it, nor of each other */
  readonly beside: readonly number[];
  readonly arms: readonly CompiledArm[];
  /** the line's own expression: condition of `keep`, text of `note`, value of `set` */
  readonly expr: FeelClosure | undefined;
  /** value of the `else set` clause */
  readonly elseExpr: FeelClosure | undefined;
}

export interface Plan {
  readonly name: string;
  /** whose way it describes */
  readonly about: 'person' | 'deal';
  /** the mailbox its head names, before that of a plan; null: it names none */
  readonly mailbox: string | null;
  readonly instructions: readonly Instruction[];
  readonly scorecards: ReadonlyMap<string, CompiledScorecard>;
  readonly library: Library;
}

type Draft = { -readonly [K in keyof Instruction]: Instruction[K] };

const closure = (expr: Expr | undefined): FeelClosure | undefined => (expr?.parsed.expr ? compileFeel(expr.parsed.expr) : undefined);

/** Compiles a tree whose findings hold no error. Lines in reading order; a split's arms rejoin at the line below it. */
export function compilePlan(tree: FlowTree, library: Library): Plan {
  const out: Draft[] = [];
  const place = (lines: readonly Line[]): { first: number; open: number[] } => {
    let open: number[] = [];
    let first = END;
    for (const line of lines) {
      const at = out.length;
      if (first === END) first = at;
      for (const from of open) point(out, from, at);
      const { step } = line;
      const { own, clause } = verbOf(step).compiles(step);
      const draft: Draft = {
        at,
        mark: line.mark,
        number: at + 1,
        step,
        off: line.off,
        next: END,
        beside: [],
        arms: [],
        expr: closure(own),
        elseExpr: closure(clause),
      };
      out.push(draft);
      open = [at];
      if (!('arms' in step) || line.off) continue;
      const arms: CompiledArm[] = [];
      for (const arm of step.arms) {
        const inner = place(arm.lines);
        arms.push({
          mark: arm.mark,
          says: sentenceOf(sayArm(arm)),
          when: arm.when ? (closure(arm.when) ?? (() => null)) : undefined,
          target: inner.first,
        });
        open.push(...inner.open);
      }
      draft.arms = arms;
    }
    return { first, open };
  };
  place(tree.lines);
  return {
    name: tree.name?.text ?? 'unnamed',
    about: tree.about?.text === 'deal' ? 'deal' : 'person',
    mailbox: tree.uses.find((use) => use.name.text === 'mail')?.value.text ?? null,
    instructions: out.map((draft) => ({ ...draft, beside: besideOf(out, draft) })),
    library,
    scorecards: new Map(library.scorecards.map((card) => [card.name, compileScorecard(card)])),
  };
}

/** Sets where a line leads, and so where a split leads when no arm holds, and arms without lines. */
function point(out: Draft[], from: number, to: number): void {
  const draft = out[from];
  if (!draft) return;
  draft.next = to;
  draft.arms = draft.arms.map((arm) => (arm.target === END ? { ...arm, target: to } : arm));
}

/** The lines right below one that only finds something out, as long as they do the same and need nothing that is found above them. */
function besideOf(out: readonly Draft[], first: Draft): readonly number[] {
  const begins = first.off ? undefined : findsOf(first.step);
  if (!begins) return [];
  const filled = new Set(begins.fills);
  const beside: number[] = [];
  for (let line = out[first.next]; line !== undefined; line = out[line.next]) {
    if (line.off) continue;
    const finds = findsOf(line.step);
    if (!finds || finds.needs.some((need) => filled.has(need))) break;
    beside.push(line.at);
    for (const field of finds.fills) filled.add(field);
  }
  return beside;
}
const findsOf = (step: Step): Finds | undefined => verbOf(step).finds?.(step);

/** Lines that run beside one above them, by mark: the number of that one. */
export function sideBySide(tree: FlowTree, library: Library): ReadonlyMap<string, number> {
  const beside = new Map<string, number>();
  // Scores have no part in it, and take the longest to compile.
  const { instructions } = compilePlan(tree, { ...library, scorecards: [] });
  for (const first of instructions)
    for (const at of first.beside) {
      const line = instructions[at];
      if (line && !beside.has(line.mark)) beside.set(line.mark, beside.get(first.mark) ?? first.number);
    }
  return beside;
}

export function instructionOf(plan: Plan, mark: string): Instruction | undefined {
  return plan.instructions.find((entry) => entry.mark === mark);
}
