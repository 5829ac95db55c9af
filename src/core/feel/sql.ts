import type { FeelType } from './types';
import type { BinaryOp, FeelExpr, FeelTest } from './tree';

/** Where a name's value is found in the database: an expression written by us, never by a user, and its type. */
export interface SqlName {
  readonly sql: string;
  readonly type: FeelType;
}
export type SqlNameOf = (segments: readonly string[]) => SqlName | undefined;

/** A piece of a statement: text of ours, or a value that travels as a parameter. */
export type SqlPiece = string | { readonly value: string | number | boolean };

export type CompiledSql =
  | { readonly ok: true; readonly pieces: readonly SqlPiece[] }
  /** the database cannot be asked this; the span says which part */
  | { readonly ok: false; readonly from: number; readonly to: number; readonly message: string };

interface Typed {
  readonly pieces: readonly SqlPiece[];
  readonly type: FeelType;
}

class CannotAsk extends Error {
  constructor(
    readonly where: FeelExpr,
    message: string,
  ) {
    super(message);
  }
}

/**
 * Compiles a condition to SQL that gives the same true, false or null as the closure of `compileFeel` (PostgreSQL;
 * three-valued logic of DMN 1.4, 10.3.2). What SQL would answer differently is refused, not bent: iteration over lists,
 * powers, texts read as numbers.
 */
export function compileFeelSql(expr: FeelExpr, nameOf: SqlNameOf): CompiledSql {
  try {
    return { ok: true, pieces: join(of(expr, nameOf).pieces) };
  } catch (error) {
    if (!(error instanceof CannotAsk)) throw error;
    return { ok: false, from: error.where.from, to: error.where.to, message: error.message };
  }
}

/** Neighbouring texts become one. */
function join(pieces: readonly SqlPiece[]): readonly SqlPiece[] {
  const out: SqlPiece[] = [];
  for (const piece of pieces) {
    const last = out.at(-1);
    if (typeof piece === 'string' && typeof last === 'string') out[out.length - 1] = last + piece;
    else out.push(piece);
  }
  return out;
}

const typed = (type: FeelType, ...parts: readonly (SqlPiece | Typed)[]): Typed => ({
  type,
  pieces: ['(', ...parts.flatMap((part) => (typeof part === 'object' && 'pieces' in part ? part.pieces : [part])), ')'],
});

function of(expr: FeelExpr, nameOf: SqlNameOf): Typed {
  const sub = (part: FeelExpr): Typed => of(part, nameOf);
  switch (expr.kind) {
    case 'literal':
      return literal(expr);
    case 'path': {
      const name = nameOf(expr.segments);
      if (!name) throw new CannotAsk(expr, `“${expr.segments.join('.')}” is not stored with the records`);
      return typed(name.type, name.sql);
    }
    case 'binary':
      return binary(expr, sub(expr.left), sub(expr.right));
    case 'logic':
      return typed('boolean', truth(sub(expr.left)), ` ${expr.op} `, truth(sub(expr.right)));
    case 'negate':
      return typed('number', '-', numeric(sub(expr.of)));
    case 'if': {
      const [then, otherwise] = [sub(expr.then), sub(expr.otherwise)];
      if (then.type !== otherwise.type && then.type !== 'null' && otherwise.type !== 'null')
        throw new CannotAsk(expr, 'both outcomes of “if” must be of one type here');
      return typed(
        then.type === 'null' ? otherwise.type : then.type,
        'case when ',
        truth(sub(expr.test)),
        ' then ',
        then,
        ' else ',
        otherwise,
        ' end',
      );
    }
    case 'between': {
      const value = sub(expr.value);
      return typed('boolean', compare('>=', value, sub(expr.low)), ' and ', compare('<=', value, sub(expr.high)));
    }
    case 'in': {
      const value = sub(expr.value);
      return typed('boolean', ...expr.tests.flatMap((test, i) => [...(i > 0 ? [' or '] : []), tested(value, test, sub)]));
    }
    case 'call':
      return call(expr, expr.args.map(sub));
    case 'list':
      throw new CannotAsk(expr, 'a list of records cannot be filtered by a list');
  }
}

function literal(expr: FeelExpr & { kind: 'literal' }): Typed {
  const { value } = expr;
  if (value === null) return { type: 'null', pieces: ['null'] };
  // Casts keep the planner from guessing a parameter's type.
  if (typeof value === 'number') return { type: 'number', pieces: [{ value }, '::float8'] };
  if (typeof value === 'boolean') return { type: 'boolean', pieces: [value ? 'true' : 'false'] };
  return { type: expr.date ? 'date' : 'string', pieces: [{ value }, '::text'] };
}

const NULL_TRUTH: Typed = { type: 'boolean', pieces: ['null::boolean'] };
const truth = (part: Typed): Typed => (part.type === 'boolean' ? part : NULL_TRUTH);
const numeric = (part: Typed): Typed => (part.type === 'number' ? part : { type: 'number', pieces: ['null::float8'] });

/** Texts compare by code point, as the closure does, whatever the database's collation. */
const side = (part: Typed): readonly SqlPiece[] =>
  part.type === 'string' || part.type === 'date' ? [...part.pieces, ' collate "C"'] : part.pieces;
const text = (type: FeelType): FeelType => (type === 'date' ? 'string' : type);

function compare(op: BinaryOp, left: Typed, right: Typed): Typed {
  if (op === '=' || op === '!=') {
    const yes = op === '=';
    if (left.type === 'null' || right.type === 'null') {
      if (left.type === right.type) return { type: 'boolean', pieces: [String(yes)] };
      return typed('boolean', left.type === 'null' ? right : left, yes ? ' is null' : ' is not null');
    }
    if (text(left.type) !== text(right.type)) {
      // Unequal types are neither equal nor not, unless one side is missing: null is never equal to a value.
      const bothThere: Typed = typed('boolean', left, ' is not null and ', right, ' is not null');
      return typed(
        'boolean',
        'case when ',
        bothThere,
        ' then null when ',
        left,
        ' is null and ',
        right,
        ` is null then ${String(yes)} else ${String(!yes)} end`,
      );
    }
    return typed('boolean', ...side(left), yes ? ' is not distinct from ' : ' is distinct from ', ...side(right));
  }
  const comparable = text(left.type) === text(right.type) && (left.type === 'number' || text(left.type) === 'string');
  return comparable ? typed('boolean', ...side(left), ` ${op} `, ...side(right)) : NULL_TRUTH;
}

function tested(value: Typed, test: FeelTest, sub: (part: FeelExpr) => Typed): Typed {
  if (test.kind === 'range')
    return typed(
      'boolean',
      compare(test.openLow ? '>' : '>=', value, sub(test.low)),
      ' and ',
      compare(test.openHigh ? '<' : '<=', value, sub(test.high)),
    );
  return compare(test.kind === 'compare' ? test.op : '=', value, sub(test.value));
}

function binary(expr: FeelExpr & { kind: 'binary' }, left: Typed, right: Typed): Typed {
  switch (expr.op) {
    case '+':
      if (left.type === 'string' && right.type === 'string') return typed('string', left, ' || ', right);
      return left.type === 'number' && right.type === 'number' ? typed('number', left, ' + ', right) : { type: 'null', pieces: ['null'] };
    case '-':
    case '*':
      return typed('number', numeric(left), ` ${expr.op} `, numeric(right));
    case '/':
      return typed('number', numeric(left), ' / nullif(', numeric(right), ', 0)');
    case '**':
      throw new CannotAsk(expr, 'powers are not asked of the database');
    default:
      return compare(expr.op, left, right);
  }
}

/** Functions that PostgreSQL computes the same way. */
const CALLS: Readonly<
  Record<string, { readonly takes: readonly FeelType[]; readonly gives: FeelType; readonly sql: (args: readonly Typed[]) => Typed }>
> = {
  not: { takes: ['boolean'], gives: 'boolean', sql: ([a]) => typed('boolean', 'not ', a ?? NULL_TRUTH) },
  contains: {
    takes: ['string', 'string'],
    gives: 'boolean',
    sql: ([a, b]) => typed('boolean', 'position(', b ?? 'null', ' in ', a ?? 'null', ') > 0'),
  },
  'starts with': {
    takes: ['string', 'string'],
    gives: 'boolean',
    sql: ([a, b]) => typed('boolean', 'starts_with(', a ?? 'null', ', ', b ?? 'null', ')'),
  },
  'ends with': {
    takes: ['string', 'string'],
    gives: 'boolean',
    sql: ([a, b]) => typed('boolean', 'starts_with(reverse(', a ?? 'null', '), reverse(', b ?? 'null', '))'),
  },
  'upper case': { takes: ['string'], gives: 'string', sql: ([a]) => typed('string', 'upper(', a ?? 'null', ')') },
  'lower case': { takes: ['string'], gives: 'string', sql: ([a]) => typed('string', 'lower(', a ?? 'null', ')') },
  'string length': { takes: ['string'], gives: 'number', sql: ([a]) => typed('number', 'length(', a ?? 'null', ')::float8') },
  abs: { takes: ['number'], gives: 'number', sql: ([a]) => typed('number', 'abs(', a ?? 'null', ')') },
  floor: { takes: ['number'], gives: 'number', sql: ([a]) => typed('number', 'floor(', a ?? 'null', ')') },
  ceiling: { takes: ['number'], gives: 'number', sql: ([a]) => typed('number', 'ceil(', a ?? 'null', ')') },
};

function call(expr: FeelExpr & { kind: 'call' }, args: readonly Typed[]): Typed {
  const known = CALLS[expr.name];
  if (!known) throw new CannotAsk(expr, `“${expr.name}” is not asked of the database`);
  const fits = args.length === known.takes.length && args.every((arg, i) => arg.type === known.takes[i]);
  return fits ? known.sql(args) : { type: 'null', pieces: ['null'] };
}
