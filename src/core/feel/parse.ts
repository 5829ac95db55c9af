import type { SyntaxNode } from '@lezer/common';
import { parser } from 'lezer-feel';
import type { BinaryOp, FeelExpr, FeelProblem, FeelTest, ParsedFeel } from './tree';

/** Units a number may carry: `2 ha`. FEEL has no units, so they are taken off before parsing and put on the literal. */
const UNIT = /(\d)(\s+)(ha|m²|m2|km|EUR|years?|months?|days?)(?![\p{L}\p{N}_])/gu;

interface Reading {
  readonly text: string;
  /** units by the end of their number, with where they themselves end */
  readonly unitsAt: ReadonlyMap<number, { readonly unit: string; readonly to: number }>;
  readonly problems: FeelProblem[];
}

class NotUnderstood extends Error {}

/** Parses one expression. Offsets in the result are offsets into `text`. Never throws. */
export function parseFeel(text: string): ParsedFeel {
  const unitsAt = new Map<number, { unit: string; to: number }>();
  const bare = text.replace(UNIT, (_, digit: string, gap: string, unit: string, at: number) => {
    const end = at + digit.length;
    unitsAt.set(end, { unit: unit === 'm2' ? 'm²' : unit, to: end + gap.length + unit.length });
    return digit + ' '.repeat(gap.length + unit.length);
  });
  const reading: Reading = { text: bare, unitsAt, problems: [] };
  if (bare.trim() === '')
    return { text, expr: undefined, problems: [{ from: 0, to: text.length, message: 'a condition or a value is missing here' }] };
  const tree = parser.parse(bare);
  tree.iterate({
    enter: (node) => {
      if (node.type.isError && reading.problems.length === 0) {
        const from = Math.min(node.from, Math.max(0, text.trimEnd().length - 1));
        const to = Math.max(node.to, from + 1);
        const shown = text.slice(from, to).trim();
        reading.problems.push({
          from,
          to,
          message:
            node.to >= text.trimEnd().length
              ? 'the condition stops too early: something is missing at its end'
              : `“${shown}” does not fit here`,
        });
      }
    },
  });
  if (reading.problems.length > 0) return { text, expr: undefined, problems: reading.problems };
  const inner = tree.topNode.firstChild;
  if (inner === null) return { text, expr: undefined, problems: [{ from: 0, to: text.length, message: 'this is not an expression' }] };
  try {
    return { text, expr: expression(inner, reading), problems: [] };
  } catch (error) {
    if (error instanceof NotUnderstood) return { text, expr: undefined, problems: reading.problems };
    throw error;
  }
}

function fail(node: SyntaxNode, reading: Reading, message: string): never {
  reading.problems.push({ from: node.from, to: node.to, message });
  throw new NotUnderstood(message);
}

function parts(node: SyntaxNode): SyntaxNode[] {
  const out: SyntaxNode[] = [];
  for (let child = node.firstChild; child !== null; child = child.nextSibling) out.push(child);
  return out;
}

const PUNCTUATION = new Set(['(', ')', '[', ']', ',', '.', '..', 'if', 'then', 'else', 'and', 'or', 'in', 'between']);
const textOf = (node: SyntaxNode, reading: Reading): string => reading.text.slice(node.from, node.to);
const meat = (node: SyntaxNode): SyntaxNode[] => parts(node).filter((child) => !PUNCTUATION.has(child.name));

function nth(nodes: readonly SyntaxNode[], index: number, of: SyntaxNode, reading: Reading): SyntaxNode {
  return nodes[index] ?? fail(of, reading, 'something is missing here');
}

function binaryOp(word: string): BinaryOp | undefined {
  const ops: readonly BinaryOp[] = ['+', '-', '*', '/', '**', '=', '!=', '<', '<=', '>', '>='];
  return ops.find((op) => op === word);
}

/** One translator for each node of the grammar that we take; a node not listed is refused with its place. */
const TRANSLATE: Readonly<Record<string, (node: SyntaxNode, reading: Reading) => FeelExpr>> = {
  NumericLiteral: (node, r) => {
    const carried = r.unitsAt.get(node.to);
    return {
      from: node.from,
      to: carried?.to ?? node.to,
      kind: 'literal',
      value: Number(textOf(node, r)),
      ...(carried && { unit: carried.unit }),
    };
  },
  StringLiteral: (node, r) => ({ ...at(node), kind: 'literal', value: unquote(textOf(node, r)) }),
  BooleanLiteral: (node, r) => ({ ...at(node), kind: 'literal', value: textOf(node, r) === 'true' }),
  null: (node) => ({ ...at(node), kind: 'literal', value: null }),
  VariableName: (node, r) => ({ ...at(node), kind: 'path', segments: [nameOf(node, r)] }),
  PathExpression: path,
  ParenthesizedExpression: (node, r) => expression(nth(meat(node), 0, node, r), r),
  Conjunction: (node, r) => logic(node, r, 'and'),
  Disjunction: (node, r) => logic(node, r, 'or'),
  Comparison: comparison,
  ArithmeticExpression: arithmetic,
  IfExpression: (node, r) => {
    const part = (i: number): FeelExpr => expression(nth(meat(node), i, node, r), r);
    return { ...at(node), kind: 'if', test: part(0), then: part(1), otherwise: part(2) };
  },
  FunctionInvocation: call,
  List: (node, r) => ({ ...at(node), kind: 'list', items: meat(node).map((child) => expression(child, r)) }),
  DateTimeLiteral: dateLiteral,
};

function expression(node: SyntaxNode, reading: Reading): FeelExpr {
  const translate = TRANSLATE[node.name];
  return translate ? translate(node, reading) : fail(node, reading, `“${textOf(node, reading)}” is FEEL that Millrace does not run yet`);
}

const at = (node: SyntaxNode) => ({ from: node.from, to: node.to });
const unquote = (raw: string): string =>
  raw.slice(1, -1).replace(/\\(["\\nt])/g, (_, c: string) => (c === 'n' ? '\n' : c === 't' ? '\t' : c));
const nameOf = (node: SyntaxNode, r: Reading): string => textOf(node, r).trim().replace(/\s+/g, ' ');

function path(node: SyntaxNode, r: Reading): FeelExpr {
  const inner = meat(node);
  const base = expression(nth(inner, 0, node, r), r);
  if (base.kind !== 'path') return fail(node, r, 'only a name can have a part after the point');
  return { ...at(node), kind: 'path', segments: [...base.segments, nameOf(nth(inner, 1, node, r), r)] };
}

function logic(node: SyntaxNode, r: Reading, op: 'and' | 'or'): FeelExpr {
  const inner = meat(node).map((child) => expression(child, r));
  const [first, ...rest] = inner;
  if (first === undefined) return fail(node, r, 'something is missing here');
  return rest.reduce<FeelExpr>((left, right) => ({ from: left.from, to: right.to, kind: 'logic', op, left, right }), first);
}

function comparison(node: SyntaxNode, r: Reading): FeelExpr {
  const all = parts(node);
  const inner = meat(node);
  const value = expression(nth(inner, 0, node, r), r);
  if (all.some((child) => child.name === 'between')) {
    return { ...at(node), kind: 'between', value, low: expression(nth(inner, 1, node, r), r), high: expression(nth(inner, 2, node, r), r) };
  }
  if (all.some((child) => child.name === 'in')) {
    return { ...at(node), kind: 'in', value, tests: inner.slice(1).flatMap((child) => tests(child, r)) };
  }
  const opNode = nth(inner, 1, node, r);
  const op = binaryOp(textOf(opNode, r)) ?? fail(opNode, r, `“${textOf(opNode, r)}” is not a comparison`);
  return { ...at(node), kind: 'binary', op, left: value, right: expression(nth(inner, 2, node, r), r) };
}

function tests(node: SyntaxNode, r: Reading): FeelTest[] {
  if (node.name === 'PositiveUnaryTests' || node.name === 'PositiveUnaryTest') return meat(node).flatMap((child) => tests(child, r));
  if (node.name === 'SimplePositiveUnaryTest') {
    const [first, second] = meat(node);
    if (first?.name === 'CompareOp' && second) {
      const op = binaryOp(textOf(first, r)) ?? fail(first, r, 'not a comparison');
      return [{ kind: 'compare', op, value: expression(second, r) }];
    }
    return first ? tests(first, r) : fail(node, r, 'something is missing here');
  }
  if (node.name === 'Interval') {
    const [low, high] = meat(node);
    if (!low || !high) return fail(node, r, 'a range needs two ends');
    const raw = textOf(node, r).trim();
    return [
      { kind: 'range', low: expression(low, r), high: expression(high, r), openLow: !raw.startsWith('['), openHigh: !raw.endsWith(']') },
    ];
  }
  if (node.name === 'List') return meat(node).map((child) => ({ kind: 'equals', value: expression(child, r) }));
  return [{ kind: 'equals', value: expression(node, r) }];
}

function arithmetic(node: SyntaxNode, r: Reading): FeelExpr {
  const inner = parts(node);
  if (inner[0]?.name === 'ArithOp') return { ...at(node), kind: 'negate', of: expression(nth(inner, 1, node, r), r) };
  const opNode = nth(inner, 1, node, r);
  const op = binaryOp(textOf(opNode, r)) ?? fail(opNode, r, 'not an operation');
  return { ...at(node), kind: 'binary', op, left: expression(nth(inner, 0, node, r), r), right: expression(nth(inner, 2, node, r), r) };
}

function call(node: SyntaxNode, r: Reading): FeelExpr {
  const [callee, params] = meat(node);
  if (!callee || callee.name !== 'VariableName') return fail(node, r, 'only a named function can be called');
  const args = params && params.name === 'PositionalParameters' ? meat(params).map((child) => expression(child, r)) : [];
  return { ...at(node), kind: 'call', name: nameOf(callee, r), args };
}

function dateLiteral(node: SyntaxNode, r: Reading): FeelExpr {
  const day = /date\s*\(\s*"(\d{4}-\d\d-\d\d)"\s*\)/.exec(textOf(node, r))?.[1];
  if (day === undefined || Number.isNaN(Date.parse(day))) return fail(node, r, 'write a date as date("2026-11-24")');
  return { ...at(node), kind: 'literal', value: day, date: true };
}
