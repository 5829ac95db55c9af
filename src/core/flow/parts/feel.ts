import { labelOf, STANDARD, type Catalogue, type Field } from '../../fields';
import type { BinaryOp, FeelExpr } from '../../feel';

const OPS: Record<BinaryOp, string> = {
  '+': '+',
  '-': '−',
  '*': '×',
  '/': '÷',
  '**': '^',
  '=': 'is',
  '!=': 'is not',
  '<': '<',
  '<=': '≤',
  '>': '>',
  '>=': '≥',
};

/** “Floor space” within a sentence: the first letter small, but for “VAT number”. */
const within = (text: string): string => (/^\p{Lu}\p{Ll}/u.test(text) ? `${text.charAt(0).toLowerCase()}${text.slice(1)}` : text);
const named = (field: Field | undefined, key: string): string => within(labelOf(field, key));

/** A path as its business calls what it leads to. */
export function sayPath(segments: readonly string[], fields: Catalogue): string {
  const [first = '', second] = segments;
  if (second === undefined) return named(fields.of('person', first) ?? fields.of('deal', first), first);
  if (first === 'person') return named(fields.of('person', second), second);
  if (first === 'company') {
    const label = named(fields.of('company', second), second);
    return label.startsWith('company') ? label : `company ${label}`;
  }
  if (second === 'out') return `${first} is out`;
  return second === 'points' ? first : `${first} ${second}`;
}

/** A condition in words: `email != null and fit.points >= 75` is "e-mail is known and fit ≥ 75". */
export function sayFeel(expr: FeelExpr, fields: Catalogue = STANDARD): string {
  switch (expr.kind) {
    case 'literal':
      return expr.value === null
        ? 'unknown'
        : typeof expr.value === 'boolean'
          ? expr.value
            ? 'yes'
            : 'no'
          : typeof expr.value === 'number'
            ? `${expr.value}${expr.unit ? ` ${expr.unit}` : ''}`
            : `“${expr.value}”`;
    case 'path':
      return sayPath(expr.segments, fields);
    case 'binary': {
      const nothing = expr.right.kind === 'literal' && expr.right.value === null;
      if (nothing && expr.op === '!=') return `${sayFeel(expr.left, fields)} is known`;
      if (nothing && expr.op === '=') return `${sayFeel(expr.left, fields)} is unknown`;
      return `${sayFeel(expr.left, fields)} ${OPS[expr.op]} ${sayFeel(expr.right, fields)}`;
    }
    case 'logic':
      return `${wrap(expr.left, expr.op, fields)} ${expr.op} ${wrap(expr.right, expr.op, fields)}`;
    case 'negate':
      return `−${sayFeel(expr.of, fields)}`;
    case 'if':
      return `if ${sayFeel(expr.test, fields)} then ${sayFeel(expr.then, fields)} else ${sayFeel(expr.otherwise, fields)}`;
    case 'between':
      return `${sayFeel(expr.value, fields)} between ${sayFeel(expr.low, fields)} and ${sayFeel(expr.high, fields)}`;
    case 'in':
      return `${sayFeel(expr.value, fields)} among ${expr.tests.map((test) => (test.kind === 'range' ? `${sayFeel(test.low, fields)} to ${sayFeel(test.high, fields)}` : test.kind === 'compare' ? `${OPS[test.op]} ${sayFeel(test.value, fields)}` : sayFeel(test.value, fields))).join(', ')}`;
    case 'call':
      return expr.name === 'not' && expr.args[0]
        ? `not ${wrap(expr.args[0], 'and', fields)}`
        : `${expr.name} of ${expr.args.map((arg) => sayFeel(arg, fields)).join(', ')}`;
    case 'list':
      return expr.items.map((item) => sayFeel(item, fields)).join(', ');
  }
}

const wrap = (expr: FeelExpr, op: 'and' | 'or', fields: Catalogue): string =>
  expr.kind === 'logic' && expr.op !== op ? `(${sayFeel(expr, fields)})` : sayFeel(expr, fields);
