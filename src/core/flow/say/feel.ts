import { labelOf, STANDARD } from '../../fields';
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

function label(segments: readonly string[]): string {
  const [first = '', second] = segments;
  if (second === undefined) return labelOf(STANDARD.of('person', first) ?? STANDARD.of('deal', first), first);
  if (first === 'person') return labelOf(STANDARD.of('person', second), second);
  if (first === 'company') {
    const label = labelOf(STANDARD.of('company', second), second);
    return label.startsWith('company') ? label : `company ${label}`;
  }
  if (second === 'out') return `${first} is out`;
  return second === 'points' ? first : `${first} ${second}`;
}

/** A condition in words: `email != null and fit.points >= 75` is "e-mail is known and fit ≥ 75". */
export function sayFeel(expr: FeelExpr): string {
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
      return label(expr.segments);
    case 'binary': {
      const nothing = expr.right.kind === 'literal' && expr.right.value === null;
      if (nothing && expr.op === '!=') return `${sayFeel(expr.left)} is known`;
      if (nothing && expr.op === '=') return `${sayFeel(expr.left)} is unknown`;
      return `${sayFeel(expr.left)} ${OPS[expr.op]} ${sayFeel(expr.right)}`;
    }
    case 'logic':
      return `${wrap(expr.left, expr.op)} ${expr.op} ${wrap(expr.right, expr.op)}`;
    case 'negate':
      return `−${sayFeel(expr.of)}`;
    case 'if':
      return `if ${sayFeel(expr.test)} then ${sayFeel(expr.then)} else ${sayFeel(expr.otherwise)}`;
    case 'between':
      return `${sayFeel(expr.value)} between ${sayFeel(expr.low)} and ${sayFeel(expr.high)}`;
    case 'in':
      return `${sayFeel(expr.value)} among ${expr.tests.map((test) => (test.kind === 'range' ? `${sayFeel(test.low)} to ${sayFeel(test.high)}` : test.kind === 'compare' ? `${OPS[test.op]} ${sayFeel(test.value)}` : sayFeel(test.value))).join(', ')}`;
    case 'call':
      return expr.name === 'not' && expr.args[0]
        ? `not ${wrap(expr.args[0], 'and')}`
        : `${expr.name} of ${expr.args.map(sayFeel).join(', ')}`;
    case 'list':
      return expr.items.map(sayFeel).join(', ');
  }
}

const wrap = (expr: FeelExpr, op: 'and' | 'or'): string => (expr.kind === 'logic' && expr.op !== op ? `(${sayFeel(expr)})` : sayFeel(expr));
