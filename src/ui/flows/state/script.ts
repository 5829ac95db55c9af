import { catalogueOf } from '../../../core/fields';
import { checkFlow, type Finding, type Library } from '../../../core/flow/check';
import { sideBySide } from '../../../core/flow/plan';
import { sayArm, sayLine, type Part } from '../../../core/flow/say';
import { numberedLines, parseFlow, type Line, type ParsedFlow } from '../../../core/flow/syntax';
import type { Outcome } from '../../../core/engine';
import type { LineCount } from './types';

interface RowBase {
  readonly mark: string;
  /** nesting: 0 for the flow's own lines */
  readonly depth: number;
  readonly parts: readonly Part[];
  readonly findings: readonly Finding[];
}
/** A part of a sentence that can be changed in place. */
export type EditablePart = Part & { readonly edit: NonNullable<Part['edit']> };

export interface LineRow extends RowBase {
  readonly kind: 'line';
  readonly number: number;
  readonly line: Line;
  /** the number of the line above at whose time it runs */
  readonly beside: number | undefined;
}
export interface ArmRow extends RowBase {
  readonly kind: 'arm';
  readonly splitMark: string;
  readonly index: number;
}
export type ScriptRow = LineRow | ArmRow;

export interface Script {
  readonly parsed: ParsedFlow;
  readonly name: string;
  readonly rows: readonly ScriptRow[];
  readonly findings: readonly Finding[];
}

/** A flow's text as the script shows it: one row per line and per arm, each with its sentence and its findings. */
export function readScript(text: string, library: Library): Script {
  const parsed = parseFlow(text);
  const findings = checkFlow(parsed, library);
  const fields = catalogueOf(library.fields);
  const rows: ScriptRow[] = [];
  const within = (from: number, to: number) => findings.filter((finding) => finding.from >= from && finding.from < to);
  const beside = sideBySide(parsed.tree, library);
  let number = 0;
  const visit = (lines: readonly Line[], depth: number): void => {
    for (const line of lines) {
      number += 1;
      const isSplit = line.step.verb === 'split';
      rows.push({
        kind: 'line',
        number,
        line,
        mark: line.mark,
        depth,
        beside: beside.get(line.mark),
        parts: sayLine(line, fields),
        findings: within(line.from, isSplit ? line.head.to : Math.max(line.to, line.from + 1)),
      });
      if (line.step.verb !== 'split') continue;
      line.step.arms.forEach((arm, index) => {
        rows.push({
          kind: 'arm',
          index,
          splitMark: line.mark,
          mark: arm.mark,
          depth: depth + 1,
          parts: sayArm(arm, fields),
          findings: within(arm.from, arm.to),
        });
        visit(arm.lines, depth + 1);
      });
    }
  };
  visit(parsed.tree.lines, 0);
  return { parsed, name: parsed.tree.name?.text ?? 'unnamed flow', rows, findings };
}

/** The mark of the first line that only the second text has. */
export function firstNewMark(before: string, after: string): string | undefined {
  const known = new Set(numberedLines(parseFlow(before).tree.lines).map((entry) => entry.line.mark));
  return numberedLines(parseFlow(after).tree.lines).find((entry) => !known.has(entry.line.mark))?.line.mark;
}

export interface RowFigures {
  /** trips that got this far */
  readonly reached: number;
  readonly by: Readonly<Partial<Record<Outcome, number>>>;
  readonly costMicro: number;
  /** mean over the trips */
  readonly tookMs: number;
}

const NOTHING: RowFigures = { reached: 0, by: {}, costMicro: 0, tookMs: 0 };

/** Figures of every row, by mark; an arm's are how many took it. */
export function figuresOf(rows: readonly ScriptRow[], counts: readonly LineCount[]): ReadonlyMap<string, RowFigures> {
  const out = new Map<string, RowFigures>();
  for (const row of rows) {
    const own = row.kind === 'line' ? counts.filter((count) => count.mark === row.mark) : counts.filter((count) => count.arm === row.mark);
    out.set(row.mark, own.length === 0 ? NOTHING : sum(own));
  }
  return out;
}

function sum(counts: readonly LineCount[]): RowFigures {
  const by: Partial<Record<Outcome, number>> = {};
  let [reached, costMicro, took] = [0, 0, 0];
  for (const count of counts) {
    by[count.outcome] = (by[count.outcome] ?? 0) + count.trips;
    reached += count.trips;
    costMicro += count.costMicro;
    took += count.tookMs * count.trips;
  }
  return { reached, by, costMicro, tookMs: reached === 0 ? 0 : took / reached };
}

/** What is being typed in the script: a line anew, or one below another. */
export type Editing =
  | { readonly kind: 'line'; readonly mark: string }
  /** `typed`: what stands in the editor when it opens; `gone`: it was open on a line that somebody took out */
  | { readonly kind: 'below'; readonly mark: string | undefined; readonly typed?: string; readonly gone?: boolean }
  | null;
