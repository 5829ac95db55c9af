import type { FeelExpr, FeelProblem } from './tree';
import { feelParts } from './tree';
import { FUNCTIONS } from './functions';

export type FeelType = 'number' | 'string' | 'boolean' | 'date' | 'list' | 'any' | 'null';
export interface FeelName {
  readonly type: FeelType;
  readonly unit?: string;
  readonly label?: string;
}
/** What a name means at this place; the text is a problem's sentence when it means nothing. */
export type NameOf = (segments: readonly string[]) => FeelName | string;

const COMPARES = new Set(['=', '!=', '<', '<=', '>', '>=']);

/** The type of an expression, and everything wrong with its names, types and units. */
export function typeOfFeel(expr: FeelExpr, nameOf: NameOf): { readonly type: FeelName; readonly problems: readonly FeelProblem[] } {
  const problems: FeelProblem[] = [];
  const type = walk(expr, nameOf, problems);
  return { type, problems };
}

function walk(expr: FeelExpr, nameOf: NameOf, problems: FeelProblem[]): FeelName {
  const say = (where: FeelExpr, message: string) => {
    problems.push({ from: where.from, to: where.to, message });
  };
  switch (expr.kind) {
    case 'literal':
      return literal(expr);
    case 'path': {
      const found = nameOf(expr.segments);
      if (typeof found !== 'string') return found;
      say(expr, found);
      return { type: 'any' };
    }
    case 'binary': {
      const [left, right] = [walk(expr.left, nameOf, problems), walk(expr.right, nameOf, problems)];
      if (COMPARES.has(expr.op)) {
        comparable(left, right, expr.right, expr.op, say);
        return { type: 'boolean' };
      }
      return arithmetic(left, right, expr, expr.op, say);
    }
    case 'logic':
      for (const side of [expr.left, expr.right]) {
        const { type } = walk(side, nameOf, problems);
        if (type !== 'boolean' && type !== 'any') say(side, `this is ${a(type)}: “${expr.op}” joins conditions that are true or false`);
      }
      return { type: 'boolean' };
    case 'in':
    case 'between': {
      const [value, ...rest] = feelParts(expr).map((part) => ({ part, type: walk(part, nameOf, problems) }));
      for (const other of rest) if (value) comparable(value.type, other.type, other.part, '=', say);
      return { type: 'boolean' };
    }
    case 'negate':
      walk(expr.of, nameOf, problems);
      return { type: 'number' };
    case 'if': {
      const [, then] = feelParts(expr).map((part) => walk(part, nameOf, problems));
      return then ?? { type: 'any' };
    }
    case 'list':
      feelParts(expr).forEach((part) => walk(part, nameOf, problems));
      return { type: 'list' };
    case 'call':
      return call(expr, nameOf, problems, say);
  }
}

function literal(expr: FeelExpr & { kind: 'literal' }): FeelName {
  if (expr.value === null) return { type: 'null' };
  if (expr.date) return { type: 'date' };
  const type = typeof expr.value as 'number' | 'string' | 'boolean';
  return expr.unit === undefined ? { type } : { type, unit: expr.unit };
}

type Say = (where: FeelExpr, message: string) => void;

function comparable(left: FeelName, right: FeelName, where: FeelExpr, op: string, say: Say): void {
  if (left.unit !== undefined && right.unit !== undefined && left.unit !== right.unit) {
    say(where, `${left.label ?? 'the left side'} is in ${left.unit}, this is in ${right.unit}: write it in ${left.unit}`);
    return;
  }
  if (left.type === 'any' || right.type === 'any') return;
  if (left.type === 'null' || right.type === 'null') {
    if (op !== '=' && op !== '!=') say(where, 'nothing is larger or smaller than null: use = null or != null');
    return;
  }
  if (left.type !== right.type) say(where, `${left.label ?? 'the left side'} is ${a(left.type)} and is compared with ${a(right.type)}`);
}

function arithmetic(left: FeelName, right: FeelName, where: FeelExpr, op: string, say: Say): FeelName {
  const pair = [left.type, right.type];
  if (op === '+' && pair.includes('string')) {
    if (pair.includes('number') || pair.includes('boolean')) say(where, 'a text and a number do not add up: wrap the number in string( )');
    return { type: 'string' };
  }
  for (const side of [left, right])
    if (side.type !== 'number' && side.type !== 'any') say(where, `${a(side.type)} cannot be used with “${op}”`);
  return { type: 'number', ...(left.unit === undefined ? {} : { unit: left.unit }) };
}

function call(expr: FeelExpr & { kind: 'call' }, nameOf: NameOf, problems: FeelProblem[], say: Say): FeelName {
  const known = FUNCTIONS[expr.name];
  const args = expr.args.map((arg) => ({ arg, type: walk(arg, nameOf, problems).type }));
  if (known === undefined) {
    say(expr, `there is no function “${expr.name}”: known are ${Object.keys(FUNCTIONS).sort().join(', ')}`);
    return { type: 'any' };
  }
  if (!known.many && args.length !== known.takes.length) say(expr, `“${expr.name}” takes ${known.takes.length}, here are ${args.length}`);
  args.forEach(({ arg, type }, i) => {
    const wants = known.takes[Math.min(i, known.takes.length - 1)] ?? 'any';
    if (wants !== 'any' && type !== 'any' && type !== 'null' && type !== wants)
      say(arg, `“${expr.name}” wants ${a(wants)} here, this is ${a(type)}`);
  });
  return { type: known.gives };
}

function a(type: string): string {
  const named: Record<string, string> = {
    boolean: 'a yes/no',
    string: 'a text',
    number: 'a number',
    date: 'a date',
    list: 'a list',
    null: 'nothing',
  };
  return named[type] ?? type;
}
