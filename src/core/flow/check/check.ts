import { near } from '../../base';
import { fieldOf } from '../../facts';
import { feelPaths, typeOfFeel, type FeelExpr, type FeelType } from '../../feel';
import {
  quote,
  type Expr,
  type Line,
  type Named,
  type ParsedFlow,
  type Span,
  type Step,
  type StepOf,
  type Verb,
  type Word,
} from '../syntax';
import type { Finding, Mend } from './finding';
import { ASKABLE_ROLES, type Library } from './library';
import { nameAt, resultOf, type ResultShape } from './scope';

/** What is known on the way down one branch. */
interface Way {
  readonly results: Map<string, ResultShape>;
  /** fields that a line has made sure of */
  readonly ensured: Set<string>;
  readonly asked: Set<string>;
  stopped: boolean;
}

interface Check {
  readonly about: string;
  readonly library: Library;
  readonly findings: Finding[];
  readonly used: Set<string>;
  readonly named: Map<string, Word>;
}

type Say = (span: Span, code: Finding['code'], message: string, mend?: Mend, severity?: Finding['severity']) => void;
type CheckStep<V extends Verb> = (step: StepOf<V>, way: Way, check: Check, say: Say, line: Line) => void;

/** Everything wrong with a flow: syntax, names, types, units, existence, reachability, what nothing has ensured. Ordered by place. */
export function checkFlow(parsed: ParsedFlow, library: Library): readonly Finding[] {
  const findings: Finding[] = parsed.problems.map((problem) => ({ ...problem, code: 'syntax', severity: 'error' }));
  const about = parsed.tree.about?.text ?? 'person';
  const check: Check = { about, library, findings, used: new Set(), named: new Map() };
  const say = sayer(findings);
  if (parsed.tree.about && about !== 'person')
    say(parsed.tree.about, 'wrong place', 'flows are about a person for now: write about person');
  for (const use of parsed.tree.uses) exists(use.value, library.connections, 'connection', say);
  const first = parsed.tree.lines.find((line) => !line.off);
  if (first && first.step.verb !== 'take in' && first.step.verb !== 'unknown')
    say(first.head, 'no intake', 'the first line says where records come from', {
      label: 'begin with take in from hand',
      edits: [{ from: first.from, to: first.from, insert: 'take in from hand\n' }],
    });
  walk(parsed.tree.lines, { results: new Map(), ensured: new Set(), asked: new Set(), stopped: false }, check, say);
  for (const [name, word] of check.named)
    if (!check.used.has(name)) say(word, 'never used', `nothing below uses “${name}”`, undefined, 'warning');
  return findings.sort((a, b) => a.from - b.from || a.to - b.to);
}

function sayer(findings: Finding[]): Say {
  return (span, code, message, mend, severity = 'error') => {
    findings.push({ from: span.from, to: Math.max(span.to, span.from + 1), code, severity, message, ...(mend && { mend }) });
  };
}

function walk(lines: readonly Line[], way: Way, check: Check, say: Say): void {
  for (const line of lines) {
    if (line.off) continue;
    if (way.stopped) {
      say(line.head, 'never reached', 'no record gets here: every way above has stopped', undefined, 'warning');
      return;
    }
    checkStep(line.step, way, check, say, line);
    const result = resultOf(line.step);
    if (!result || !('as' in line.step) || !line.step.as) continue;
    if (way.results.has(result.name)) say(line.step.as, 'name twice', `“${result.name}” is the name of a result above: choose another`);
    way.results.set(result.name, result.shape);
    if (line.step.verb === 'write' || line.step.verb === 'score') check.named.set(result.name, line.step.as);
  }
}

function exists(named: Named, among: readonly string[], what: string, say: Say): void {
  if (among.includes(named.text)) return;
  const close = near(named.text, among);
  const guess = /“(.+)”/.exec(close)?.[1] ?? (among.length === 1 ? among[0] : undefined);
  say(
    named,
    'unknown thing',
    `there is no ${what} ${quote(named.text)}${close || (among.length > 0 ? `: there is ${among.map(quote).join(', ')}` : '')}`,
    guess === undefined ? undefined : { label: `use ${quote(guess)}`, edits: [{ from: named.from, to: named.to, insert: quote(guess) }] },
  );
}

function feel(expr: Expr, wants: FeelType | undefined, way: Way, check: Check, say: Say): void {
  const { parsed, from } = expr;
  if (!parsed.expr) return;
  for (const path of feelPaths(parsed.expr)) if (path[0]) check.used.add(path[0]);
  const { type, problems } = typeOfFeel(parsed.expr, (segments) => nameAt(check.about, way.results, segments));
  for (const problem of problems)
    say({ from: from + problem.from, to: from + problem.to }, problem.message.includes(' is in ') ? 'unit' : 'expression', problem.message);
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
function ensures(expr: FeelExpr | undefined): readonly string[] {
  if (!expr) return [];
  if (expr.kind === 'logic' && expr.op === 'and') return [...ensures(expr.left), ...ensures(expr.right)];
  if (expr.kind === 'binary' && expr.op === '!=' && expr.left.kind === 'path' && expr.right.kind === 'literal' && expr.right.value === null)
    return [expr.left.segments.join('.')];
  return [];
}

function knownField(word: Word, check: Check, say: Say): void {
  const [first = '', second] = word.text.split('.');
  const known =
    second === undefined
      ? fieldOf(check.about === 'company' ? 'company' : 'person', first)
      : first === 'company'
        ? fieldOf('company', second)
        : undefined;
  if (!known) say(word, 'unknown name', `“${word.text}” is not a field that can be written`);
}

function assigned(made: { readonly field: Word; readonly value: Expr }, way: Way, check: Check, say: Say): void {
  knownField(made.field, check, say);
  const type = nameAt(check.about, way.results, made.field.text.split('.'));
  feel(made.value, typeof type === 'string' ? undefined : type.type, way, check, say);
}

function oneOf(word: Word, choices: readonly string[], what: string, say: Say): void {
  if (!choices.includes(word.text))
    say(
      word,
      'wrong place',
      `${what} is ${choices.slice(0, -1).join(', ')}${choices.length > 1 ? ' or ' : ''}${choices.at(-1) ?? ''}${near(word.text, choices)}`,
    );
}

/** Team rule: nothing is sent that no person has approved. */
function approved(name: string | undefined, span: Span, way: Way, say: Say): void {
  if (way.asked.size === 0 || (name !== undefined && !way.asked.has(name)))
    say(span, 'not asked', 'nothing leaves without a person’s approval here: put ask … to approve … above this line');
}

const needsEmail = (span: Span, way: Way, say: Say): void => {
  if (!way.ensured.has('email'))
    say(span, 'not ensured', 'the e-mail may be missing here: nothing above has made sure of it', undefined, 'warning');
};

/** Keyed by verb: a new verb does not compile until it is checked. */
const CHECKS: { readonly [V in Exclude<Verb, 'unknown'>]: CheckStep<V> } = {
  'take in': (step, _way, check, say) => {
    oneOf(step.from, ['file', 'form', 'hand'], 'an intake', say);
    if (step.name)
      exists(
        step.name,
        check.library.intakes.filter((intake) => intake.kind === step.from.text).map((intake) => intake.name),
        step.from.text,
        say,
      );
    if (step.oncePer) knownField(step.oncePer, check, say);
  },
  keep: (step, way, check, say) => {
    feel(step.when, 'boolean', way, check, say);
    for (const path of ensures(step.when.parsed.expr)) way.ensured.add(path);
    if (step.otherwise) assigned(step.otherwise, way, check, say);
  },
  match: (step, _way, _check, say) => {
    for (const target of step.targets) oneOf(target, ['person', 'company'], 'what can be matched', say);
    for (const bar of [step.askAbove, step.sameAbove])
      if (bar && (bar.value < 0 || bar.value > 1)) say(bar, 'bars', 'a bar lies between 0 and 1');
    if (step.askAbove && step.sameAbove && step.askAbove.value > step.sameAbove.value)
      say(step.askAbove, 'bars', 'the bar for asking must lie below the bar for “same”');
  },
  read: (step, way, _check, say, line) => {
    oneOf(step.target, ['company'], 'what can be read about', say);
    for (const place of step.places) oneOf(place, ['website'], 'a place to read', say);
    if (step.questions.length === 0)
      say(line.head, 'wrong place', 'ask at least one question below: heated_area: number in ha "How large …?"');
    const seen = new Set<string>();
    for (const { id } of step.questions) {
      if (seen.has(id.text)) say(id, 'name twice', `“${id.text}” is asked twice`);
      seen.add(id.text);
    }
    if (!way.ensured.has('company.website'))
      say(line.head, 'not ensured', 'the company’s site may be missing here: nothing above has made sure of it', undefined, 'warning');
  },
  score: (step, _way, check, say) => {
    oneOf(step.target, ['company', 'person'], 'what can be scored', say);
    exists(
      step.scorecard,
      check.library.scorecards.map((card) => card.name),
      'scorecard',
      say,
    );
  },
  split: checkSplit,
  'look up': (step, way, check, say) => {
    oneOf(step.field, ['email'], 'what can be looked up', say);
    exists(
      step.chain,
      check.library.chains.map((chain) => chain.name),
      'lookup chain',
      say,
    );
    way.ensured.add(step.field.text);
  },
  open: (step, _way, check, say) => {
    exists(
      step.pipeline,
      check.library.pipelines.map((pipeline) => pipeline.name),
      'pipeline',
      say,
    );
    const pipeline = check.library.pipelines.find((entry) => entry.name === step.pipeline.text);
    if (pipeline) exists(step.stage, pipeline.stages, `stage of ${step.pipeline.text}`, say);
  },
  assign: (step, way, check, say) => {
    exists(step.team, check.library.teams, 'team', say);
    if (!step.what) return;
    check.used.add(step.what.text);
    if (step.what.text !== 'person' && !(way.results.has(step.what.text) && way.results.get(step.what.text)?.stage))
      say(step.what, 'unknown name', `“${step.what.text}” is not a deal opened above: write open deal … as ${step.what.text}`);
  },
  set: (step, way, check, say) => {
    assigned(step.assignment, way, check, say);
  },
  note: (step, way, check, say) => {
    feel(step.text, 'string', way, check, say);
  },
  write: (step, way, check, say) => {
    oneOf(step.channel, ['email'], 'a channel', say);
    exists(
      step.template,
      check.library.templates.map((template) => template.name),
      'text',
      say,
    );
    needsEmail(step.channel, way, say);
  },
  ask: (step, way, check, say) => {
    exists(step.who, [...check.library.teams, ...ASKABLE_ROLES], 'team or role', say);
    check.used.add(step.message.text);
    way.asked.add(step.message.text);
    if (!way.results.get(step.message.text)?.body)
      say(step.message, 'unknown name', `“${step.message.text}” is not a message written above: write email "…" as ${step.message.text}`);
    if (step.otherwise?.does === 'tell') oneOf(step.otherwise.who, ASKABLE_ROLES, 'whom to tell', say);
    if (step.otherwise && !step.within) say(step.otherwise.text, 'wrong place', '“otherwise” needs a limit: within 2 days');
  },
  send: (step, way, check, say) => {
    check.used.add(step.message.text);
    if (!way.results.get(step.message.text)?.body)
      say(step.message, 'unknown name', `“${step.message.text}” is not a message written above`);
    approved(step.message.text, step.message, way, say);
  },
  'follow up': (step, way, check, say) => {
    exists(
      step.plan,
      check.library.plans.map((plan) => plan.name),
      'plan',
      say,
    );
    const plan = check.library.plans.find((entry) => entry.name === step.plan.text);
    for (const touch of plan?.touches ?? [])
      if (!check.library.templates.some((template) => template.name === touch.template))
        say(
          step.plan,
          'unknown thing',
          `the plan’s touch on day ${touch.day} uses the text ${quote(touch.template)}, which does not exist`,
        );
    approved(undefined, step.plan, way, say);
    needsEmail(step.plan, way, say);
  },
  wait: () => undefined,
  stop: (_step, way) => {
    way.stopped = true;
  },
};

function checkStep(step: Step, way: Way, check: Check, say: Say, line: Line): void {
  if (step.verb === 'unknown') return;
  runCheck(step.verb, step, way, check, say, line);
}

function runCheck<V extends Exclude<Verb, 'unknown'>>(verb: V, step: Step, way: Way, check: Check, say: Say, line: Line): void {
  CHECKS[verb](step as StepOf<V>, way, check, say, line);
}

function checkSplit(step: StepOf<'split'>, way: Way, check: Check, say: Say): void {
  const ways: Way[] = [];
  let closed = false;
  const seen = new Set<string>();
  for (const arm of step.arms) {
    if (closed) say(arm, 'never reached', 'this arm is never taken: the “else” above takes everything', undefined, 'warning');
    const text = arm.when?.parsed.text.trim() ?? '';
    if (arm.when) {
      feel(arm.when, 'boolean', way, check, say);
      if (seen.has(text))
        say(arm.when, 'never reached', 'this arm is never taken: an arm above has the same condition', undefined, 'warning');
      seen.add(text);
    } else closed = true;
    const own: Way = {
      results: new Map(way.results),
      ensured: new Set([...way.ensured, ...ensures(arm.when?.parsed.expr)]),
      asked: new Set(way.asked),
      stopped: false,
    };
    walk(arm.lines, own, check, say);
    ways.push(own);
  }
  // Below the split only what every way that goes on has ensured is certain; without an else, records also pass by.
  const open = ways.filter((entry) => !entry.stopped);
  if (closed && open.length === 0) {
    way.stopped = true;
    return;
  }
  if (!closed) return;
  for (const field of open[0]?.ensured ?? []) if (open.every((entry) => entry.ensured.has(field))) way.ensured.add(field);
  for (const name of open[0]?.asked ?? []) if (open.every((entry) => entry.asked.has(name))) way.asked.add(name);
  for (const [name, shape] of open[0]?.results ?? []) if (open.every((entry) => entry.results.has(name))) way.results.set(name, shape);
}
