import type { BinaryOp, FeelExpr, FeelTest } from './tree';
import { FUNCTIONS } from './functions';
import type { FeelScope, FeelValue } from './value';

export type FeelClosure = (scope: FeelScope) => FeelValue;

/**
 * Compiles a parsed expression to a closure over a scope of plain values. Missing names are null; comparing across
 * types or with null is null (three-valued logic of DMN 1.4, 10.3.2.5); nothing throws. Dates are ISO strings, which
 * order as dates do.
 */
export function compileFeel(expr: FeelExpr): FeelClosure {
  switch (expr.kind) {
    case 'literal': {
      const { value } = expr;
      return () => value;
    }
    case 'path':
      return path(expr.segments);
    case 'binary':
      return binary(expr.op, compileFeel(expr.left), compileFeel(expr.right));
    case 'logic':
      return logic(expr.op, compileFeel(expr.left), compileFeel(expr.right));
    case 'negate': {
      const of = compileFeel(expr.of);
      return (scope) => {
        const value = of(scope);
        return typeof value === 'number' ? -value : null;
      };
    }
    case 'if': {
      const [test, then, otherwise] = [compileFeel(expr.test), compileFeel(expr.then), compileFeel(expr.otherwise)];
      return (scope) => (test(scope) === true ? then(scope) : otherwise(scope));
    }
    case 'between': {
      const [value, low, high] = [compileFeel(expr.value), compileFeel(expr.low), compileFeel(expr.high)];
      return (scope) => {
        const v = value(scope);
        return both(compare('>=', v, low(scope)), compare('<=', v, high(scope)));
      };
    }
    case 'in': {
      const value = compileFeel(expr.value);
      const tests = expr.tests.map(compileTest);
      return (scope) => {
        const v = value(scope);
        return tests.reduce<FeelValue>((sofar, test) => (sofar === true ? true : either(sofar, test(v, scope))), false);
      };
    }
    case 'call': {
      const known = FUNCTIONS[expr.name];
      if (known === undefined) return () => null;
      const args = expr.args.map(compileFeel);
      return (scope) => known.run(args.map((arg) => arg(scope)));
    }
    case 'list': {
      const items = expr.items.map(compileFeel);
      return (scope) => items.map((item) => item(scope));
    }
  }
}

function path(segments: readonly string[]): FeelClosure {
  const [first, second] = segments;
  if (first === undefined) return () => null;
  if (second === undefined) return (scope) => scope[first] ?? null;
  // Spelled out: nearly every name has two parts.
  if (segments.length === 2)
    return (scope) => {
      const record = scope[first];
      return record === null || typeof record !== 'object' || Array.isArray(record) ? null : ((record as FeelScope)[second] ?? null);
    };
  return (scope) => {
    let value: FeelValue = scope[first] ?? null;
    for (let i = 1; i < segments.length; i++) value = member(value, segments[i] ?? '');
    return value;
  };
}

function member(value: FeelValue, name: string): FeelValue {
  if (value === null || typeof value !== 'object' || Array.isArray(value)) return null;
  return (value as FeelScope)[name] ?? null;
}

function compileTest(test: FeelTest): (value: FeelValue, scope: FeelScope) => FeelValue {
  if (test.kind === 'range') {
    const [low, high] = [compileFeel(test.low), compileFeel(test.high)];
    return (value, scope) =>
      both(compare(test.openLow ? '>' : '>=', value, low(scope)), compare(test.openHigh ? '<' : '<=', value, high(scope)));
  }
  const other = compileFeel(test.value);
  const op = test.kind === 'compare' ? test.op : '=';
  return (value, scope) => compare(op, value, other(scope));
}

function compare(op: BinaryOp, a: FeelValue, b: FeelValue): FeelValue {
  if (op === '=' || op === '!=') {
    const same = equal(a, b);
    return same === null ? null : op === '=' ? same : !same;
  }
  if (!((typeof a === 'number' && typeof b === 'number') || (typeof a === 'string' && typeof b === 'string'))) return null;
  switch (op) {
    case '<':
      return a < b;
    case '<=':
      return a <= b;
    case '>':
      return a > b;
    case '>=':
      return a >= b;
    default:
      return null;
  }
}

function equal(a: FeelValue, b: FeelValue): boolean | null {
  if (a === null || b === null) return a === b;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((item: FeelValue, i) => equal(item, (b as readonly FeelValue[])[i] ?? null) === true);
  return typeof a === typeof b ? a === b : null;
}

function both(a: FeelValue, b: FeelValue): FeelValue {
  if (a === false || b === false) return false;
  return a === true && b === true ? true : null;
}

function either(a: FeelValue, b: FeelValue): FeelValue {
  if (a === true || b === true) return true;
  return a === false && b === false ? false : null;
}

function logic(op: 'and' | 'or', left: FeelClosure, right: FeelClosure): FeelClosure {
  return op === 'and'
    ? (scope) => {
        const a = left(scope);
        return a === false ? false : both(a, right(scope));
      }
    : (scope) => {
        const a = left(scope);
        return a === true ? true : either(a, right(scope));
      };
}

function binary(op: BinaryOp, left: FeelClosure, right: FeelClosure): FeelClosure {
  switch (op) {
    case '+':
      return (scope) => plus(left(scope), right(scope));
    case '-':
      return numeric(left, right, (a, b) => a - b);
    case '*':
      return numeric(left, right, (a, b) => a * b);
    case '/':
      return numeric(left, right, (a, b) => (b === 0 ? null : a / b));
    case '**':
      return numeric(left, right, (a, b) => a ** b);
    case '>=':
      return (scope) => {
        const [a, b] = [left(scope), right(scope)];
        return typeof a === 'number' && typeof b === 'number' ? a >= b : compare('>=', a, b);
      };
    default:
      return (scope) => compare(op, left(scope), right(scope));
  }
}

function plus(a: FeelValue, b: FeelValue): FeelValue {
  if (typeof a === 'number' && typeof b === 'number') return a + b;
  return typeof a === 'string' && typeof b === 'string' ? a + b : null;
}

function numeric(left: FeelClosure, right: FeelClosure, run: (a: number, b: number) => number | null): FeelClosure {
  return (scope) => {
    const [a, b] = [left(scope), right(scope)];
    return typeof a === 'number' && typeof b === 'number' ? run(a, b) : null;
  };
}
