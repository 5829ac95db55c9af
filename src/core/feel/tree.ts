export interface FeelSpan {
  readonly from: number;
  readonly to: number;
}

export type BinaryOp = '+' | '-' | '*' | '/' | '**' | '=' | '!=' | '<' | '<=' | '>' | '>=';

/** Spans are offsets into the text that was parsed. */
export type FeelExpr = FeelSpan &
  (
    | { readonly kind: 'literal'; readonly value: string | number | boolean | null; readonly unit?: string; readonly date?: boolean }
    | { readonly kind: 'path'; readonly segments: readonly string[] }
    | { readonly kind: 'binary'; readonly op: BinaryOp; readonly left: FeelExpr; readonly right: FeelExpr }
    | { readonly kind: 'logic'; readonly op: 'and' | 'or'; readonly left: FeelExpr; readonly right: FeelExpr }
    | { readonly kind: 'negate'; readonly of: FeelExpr }
    | { readonly kind: 'if'; readonly test: FeelExpr; readonly then: FeelExpr; readonly otherwise: FeelExpr }
    | { readonly kind: 'between'; readonly value: FeelExpr; readonly low: FeelExpr; readonly high: FeelExpr }
    | { readonly kind: 'in'; readonly value: FeelExpr; readonly tests: readonly FeelTest[] }
    | { readonly kind: 'call'; readonly name: string; readonly args: readonly FeelExpr[] }
    | { readonly kind: 'list'; readonly items: readonly FeelExpr[] }
  );

/** One alternative on the right of `in`. */
export type FeelTest =
  | { readonly kind: 'equals'; readonly value: FeelExpr }
  | { readonly kind: 'compare'; readonly op: BinaryOp; readonly value: FeelExpr }
  | { readonly kind: 'range'; readonly low: FeelExpr; readonly high: FeelExpr; readonly openLow: boolean; readonly openHigh: boolean };

export interface FeelProblem extends FeelSpan {
  readonly message: string;
}

export interface ParsedFeel {
  readonly text: string;
  /** undefined when the text could not be understood; then there is at least one problem */
  readonly expr: FeelExpr | undefined;
  readonly problems: readonly FeelProblem[];
}

function testParts(test: FeelTest): readonly FeelExpr[] {
  return test.kind === 'range' ? [test.low, test.high] : [test.value];
}

/** The direct parts of an expression, left to right. */
export function feelParts(expr: FeelExpr): readonly FeelExpr[] {
  switch (expr.kind) {
    case 'literal':
    case 'path':
      return [];
    case 'binary':
    case 'logic':
      return [expr.left, expr.right];
    case 'negate':
      return [expr.of];
    case 'if':
      return [expr.test, expr.then, expr.otherwise];
    case 'between':
      return [expr.value, expr.low, expr.high];
    case 'in':
      return [expr.value, ...expr.tests.flatMap(testParts)];
    case 'call':
      return expr.args;
    case 'list':
      return expr.items;
  }
}

/** Every name the expression reads, as its segments. */
export function feelPaths(expr: FeelExpr): readonly (readonly string[])[] {
  const out: (readonly string[])[] = [];
  const visit = (part: FeelExpr): void => {
    if (part.kind === 'path') out.push(part.segments);
    else for (const inner of feelParts(part)) visit(inner);
  };
  visit(expr);
  return out;
}
