import { near } from '../../base';
import { catalogueOf, type Catalogue, type Field } from '../../fields';
import { feelPaths, typeOfFeel, type FeelExpr, type FeelType } from '../../feel';
import { quote } from '../tree/notation';
import type { Expr, Line, Named, Span, Word } from '../tree/tree';
import type { Finding, Mend } from './finding';
import type { Layers } from './layers';
import type { Library } from './library';
import { insertAbove, putUnit } from './mends';
import { nameAt, type ResultShape } from './scope';

/** What is known on the way down one branch. */
export interface Way {
  readonly results: Layers<ResultShape>;
  /** fields that a line has made sure of */
  readonly ensured: Layers<true>;
  readonly asked: Layers<true>;
  /** the text a message was written from, by the message’s name */
  readonly writtenFrom: Layers<string>;
  readonly sent: Layers<true>;
  /** a message has gone out and nothing has waited since */
  sentJustNow: boolean;
  /** the line above gathered trips, so that this one speaks for many */
  gathered: boolean;
  stopped: boolean;
}

export interface Check {
  readonly text: string;
  readonly about: string;
  readonly library: Library;
  readonly used: Set<string>;
  readonly named: Map<string, Word>;
  /** goes down the lines that stand inside a line, on a way of their own */
  readonly inside: (lines: readonly Line[], way: Way) => void;
}

export type Say = (span: Span, code: Finding['code'], message: string, mend?: Mend, severity?: Finding['severity']) => void;

export function exists(named: Named, among: readonly string[], what: string, say: Say): void {
  if (among.includes(named.text)) return;
  const close = near(named.text, among);
  const guess = guessIn(close) ?? (among.length === 1 ? among[0] : undefined);
  say(
    named,
    'unknown thing',
    `there is no ${what} ${quote(named.text)}${close || (among.length > 0 ? `: there is ${among.map(quote).join(', ')}` : '')}`,
    guess === undefined ? undefined : { label: `use ${quote(guess)}`, edits: [{ from: named.from, to: named.to, insert: quote(guess) }] },
  );
}

/** The word a message proposes: “…: did you mean “company.city”?”. */
const guessIn = (message: string): string | undefined => /did you mean “(.+)”\?/.exec(message)?.[1];
const meant = (span: Span, message: string): Mend | undefined => {
  const guess = guessIn(message);
  return guess === undefined ? undefined : { label: `use ${guess}`, edits: [{ from: span.from, to: span.to, insert: guess }] };
};

export function feel(expr: Expr, wants: FeelType | undefined, way: Way, check: Check, say: Say): void {
  const { parsed, from } = expr;
  if (!parsed.expr) return;
  for (const path of feelPaths(parsed.expr)) if (path[0]) check.used.add(path[0]);
  const { type, problems } = typeOfFeel(parsed.expr, (segments) =>
    nameAt(catalogueOf(check.library.fields), check.about, way.results, segments),
  );
  for (const problem of problems) {
    const span = { from: from + problem.from, to: from + problem.to };
    const unit = problem.message.includes(' is in ');
    say(
      span,
      unit ? 'unit' : 'expression',
      problem.message,
      unit ? putUnit(check.text, span, problem.message) : meant(span, problem.message),
    );
  }
  if (wants && type.type !== wants && type.type !== 'any' && problems.length === 0)
    say(
      expr,
      'expression',
      wants === 'boolean'
        ? 'a condition must be true or false: compare it with something'
        : `a ${wants === 'string' ? 'text' : wants} is needed here`,
    );
}

/** Fields that are certainly there once the condition holds: `email != null`, joined by `and`. */
export function ensures(expr: FeelExpr | undefined): readonly string[] {
  if (!expr) return [];
  if (expr.kind === 'logic' && expr.op === 'and') return [...ensures(expr.left), ...ensures(expr.right)];
  if (expr.kind === 'binary' && expr.op === '!=' && expr.left.kind === 'path' && expr.right.kind === 'literal' && expr.right.value === null)
    return [expr.left.segments.join('.')];
  return [];
}

export function knownField(word: Word, check: Check, say: Say): void {
  const field = fieldAt(catalogueOf(check.library.fields), check.about, word.text);
  if (!field || field.isComputed) say(word, 'unknown name', `“${word.text}” is not a field that can be written`);
}

/** The field a dotted name stands for in a flow about a person or a deal, or undefined. */
export function fieldAt(fields: Catalogue, about: string, path: string): Field | undefined {
  const [first = '', second] = path.split('.');
  if (second === undefined) return fields.of(about === 'deal' ? 'deal' : 'person', first);
  if (first === 'company') return fields.of('company', second);
  return about === 'deal' && first === 'person' ? fields.of('person', second) : undefined;
}

/**
 * A field of a deal or an application that a line above opened: “deal.amount” after “open deal … as deal”. Its stage is moved,
 * not set, and what its opening says is the opening's.
 */
function ofOpened(word: Word, way: Way, check: Check): boolean {
  const [name = '', key = ''] = word.text.split('.');
  const shape = way.results.get(name);
  const kind = shape && ('pipeline' in shape ? 'deal' : 'opening' in shape ? 'application' : undefined);
  const field = kind && catalogueOf(check.library.fields).of(kind, key);
  return field !== undefined && !field.isComputed && key !== 'stage';
}

export function assigned(made: { readonly field: Word; readonly value: Expr }, way: Way, check: Check, say: Say): void {
  if (!ofOpened(made.field, way, check)) knownField(made.field, check, say);
  const type = nameAt(catalogueOf(check.library.fields), check.about, way.results, made.field.text.split('.'));
  feel(made.value, typeof type === 'string' ? undefined : type.type, way, check, say);
}

export function oneOf(word: Word, choices: readonly string[], what: string, say: Say): void {
  if (!choices.includes(word.text))
    say(
      word,
      'wrong place',
      `${what} is ${choices.slice(0, -1).join(', ')}${choices.length > 1 ? ' or ' : ''}${choices.at(-1) ?? ''}${near(word.text, choices)}`,
    );
}

/** Names that are given twice among each other. */
export function twice(ids: readonly Word[], say: Say): void {
  const seen = new Set<string>();
  for (const id of ids) {
    if (seen.has(id.text)) say(id, 'name twice', `“${id.text}” stands here twice`);
    seen.add(id.text);
  }
}

/** The trip's own deal, or a deal or application opened above under that name. */
export const isDeal = (name: string, way: Way, check: Check): boolean =>
  (check.about === 'deal' && name === 'deal') || way.results.get(name)?.stage !== undefined;

/** A wait that may never end. */
export function noLimit(line: Line, say: Say): void {
  const at = line.head.to;
  say(
    line.head,
    'no limit',
    'this may wait for ever: say how long at most',
    { label: 'at most 8 days', edits: [{ from: at, to: at, insert: ', at most 8 days' }] },
    'warning',
  );
}

/** Team rule: nothing is sent that no person has approved. */
export function approved(name: string | undefined, span: Span, way: Way, check: Check, say: Say, line: Line): void {
  if (name === undefined ? !way.asked.empty : way.asked.has(name)) return;
  const [team] = check.library.teams;
  const message = name ?? [...way.results.keys()].findLast((result) => way.results.get(result)?.body);
  say(
    span,
    'not asked',
    'nothing leaves without a person’s approval here: put ask … to approve … above this line',
    team === undefined || message === undefined
      ? undefined
      : insertAbove(check.text, line, `ask ${quote(team)} to approve ${message}`, `ask ${team} first`),
  );
}

/** Says so when an address a line needs may be missing. */
export function needs(path: string, what: string, span: Span, way: Way, check: Check, say: Say, line: Line): void {
  if (way.ensured.has(path)) return;
  say(
    span,
    'not ensured',
    `${what} may be missing here: nothing above has made sure of it`,
    insertAbove(check.text, line, `keep when ${path} != null`, `keep only those with it`),
    'warning',
  );
}

export const emailPath = (about: string): string => (about === 'deal' ? 'person.email' : 'email');
export const needsEmail = (span: Span, way: Way, check: Check, say: Say, line: Line): void => {
  needs(emailPath(check.about), 'the e-mail', span, way, check, say, line);
};
/** A message goes out: two with nothing between them reach the reader in the same minute. */
export function sends(way: Way, check: Check, say: Say, line: Line): void {
  if (way.sentJustNow)
    say(
      line.head,
      'sends together',
      'two messages leave one right after the other: nothing waits between them',
      insertAbove(check.text, line, 'wait 3 days', 'wait 3 days first'),
      'warning',
    );
  way.sentJustNow = true;
}
