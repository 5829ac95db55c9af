import { type Arm, type Line, type ParsedFlow, type Step, type StepOf, type Verb } from '../syntax';
import type { Finding, Mend } from './finding';
import { Layers } from './layers';
import type { Library } from './library';
import { takeOut } from './mends';
import { ENTRY, entryOf, resultOf } from './scope';
import { CHECKS } from './verbs';
import { ensures, exists, feel, type Check, type Say, type Way } from './way';

/** Everything wrong with a flow: syntax, names, types, units, existence, reachability, what nothing has ensured. Ordered by place. */
export function checkFlow(parsed: ParsedFlow, library: Library): readonly Finding[] {
  const findings: Finding[] = parsed.problems.map((problem) => ({ ...problem, code: 'syntax', severity: 'error' }));
  const about = parsed.tree.about?.text ?? 'person';
  const check: Check = { text: parsed.text, about, library, used: new Set(), named: new Map() };
  const say = sayer(findings);
  if (parsed.tree.about && about !== 'person' && about !== 'deal')
    say(parsed.tree.about, 'wrong place', 'a flow is about person or deal', {
      label: 'about person',
      edits: [{ from: parsed.tree.about.from, to: parsed.tree.about.to, insert: 'person' }],
    });
  for (const use of parsed.tree.uses) exists(use.value, library.connections, 'connection', say);
  const first = parsed.tree.lines.find((line) => !line.off);
  if (first && first.step.verb !== 'take in' && first.step.verb !== 'unknown')
    say(first.head, 'no intake', 'the first line says where records come from', {
      label: 'begin with take in from hand',
      edits: [{ from: first.from, to: first.from, insert: 'take in from hand\n' }],
    });
  walk(parsed.tree.lines, newWay(), check, say);
  for (const [name, word] of check.named)
    if (!check.used.has(name))
      say(
        word,
        'never used',
        `nothing below uses “${name}”`,
        { label: `take “as ${name}” out`, edits: [{ from: asBefore(parsed.text, word.from), to: word.to, insert: '' }] },
        'warning',
      );
  return findings.sort((a, b) => a.from - b.from || a.to - b.to);
}

const asBefore = (text: string, at: number): number =>
  at - (/\s{1,80}as\s{1,80}$/.exec(text.slice(Math.max(0, at - 200), at))?.[0].length ?? 0);

const newWay = (): Way => ({
  results: new Layers(),
  ensured: new Layers(),
  asked: new Layers(),
  sent: new Layers(),
  sentJustNow: false,
  gathered: false,
  stopped: false,
});

function sayer(findings: Finding[]): Say {
  return (span, code, message, mend, severity = 'error') => {
    findings.push({ from: span.from, to: Math.max(span.to, span.from + 1), code, severity, message, ...(mend && { mend }) });
  };
}

/** Whose results are made to be used below. */
const USED_OR_WARN: ReadonlySet<Verb> = new Set(['write', 'score', 'sort', 'pick out', 'hand over']);

function walk(lines: readonly Line[], way: Way, check: Check, say: Say): void {
  for (const line of lines) {
    if (line.off) continue;
    if (way.stopped) {
      say(
        line.head,
        'never reached',
        'no record gets here: every way above has stopped',
        takeOut(check.text, line, 'take this line out'),
        'warning',
      );
      return;
    }
    const afterGather = way.gathered;
    way.gathered = false;
    checkStep(line.step, way, check, say, line);
    if (afterGather && line.step.verb !== 'tell' && line.step.verb !== 'hand over')
      say(line.head, 'wrong place', 'a line that works on many comes right below “gather”: tell … or hand over …');
    const entry = entryOf(line.step, check.library);
    if (entry) way.results.set(ENTRY, entry);
    const result = resultOf(line.step, check.library);
    if (!result || !('as' in line.step) || !line.step.as) continue;
    if (way.results.has(result.name)) say(line.step.as, 'name twice', `“${result.name}” is the name of a result above: choose another`);
    way.results.set(result.name, result.shape);
    if (USED_OR_WARN.has(line.step.verb)) check.named.set(result.name, line.step.as);
  }
}

function checkStep(step: Step, way: Way, check: Check, say: Say, line: Line): void {
  if (step.verb === 'unknown') return;
  if (step.verb === 'split') {
    checkSplit(step, way, check, say);
    return;
  }
  runCheck(step.verb, step, way, check, say, line);
}

function runCheck<V extends Exclude<Verb, 'unknown' | 'split'>>(verb: V, step: Step, way: Way, check: Check, say: Say, line: Line): void {
  CHECKS[verb](step as StepOf<V>, way, check, say, line);
}

function checkSplit(step: StepOf<'split'>, way: Way, check: Check, say: Say): void {
  const ways: Way[] = [];
  let closed = false;
  const seen = new Set<string>();
  const removeArm = (arm: Arm): Mend => takeOut(check.text, { from: arm.from, to: arm.lines.at(-1)?.to ?? arm.to }, 'take this arm out');
  for (const arm of step.arms) {
    if (closed) say(arm, 'never reached', 'this arm is never taken: the “else” above takes everything', removeArm(arm), 'warning');
    const text = arm.when?.parsed.text.trim() ?? '';
    if (arm.when) {
      feel(arm.when, 'boolean', way, check, say);
      if (seen.has(text))
        say(arm.when, 'never reached', 'this arm is never taken: an arm above has the same condition', removeArm(arm), 'warning');
      seen.add(text);
    } else closed = true;
    const own: Way = {
      results: new Layers(way.results),
      ensured: new Layers(way.ensured),
      asked: new Layers(way.asked),
      sent: new Layers(way.sent),
      sentJustNow: way.sentJustNow,
      gathered: false,
      stopped: false,
    };
    for (const path of ensures(arm.when?.parsed.expr)) own.ensured.set(path, true);
    walk(arm.lines, own, check, say);
    ways.push(own);
  }
  // Below the split only what every way that goes on has ensured is certain; without an else, records also pass by.
  const open = ways.filter((entry) => !entry.stopped);
  if (closed && open.length === 0) {
    way.stopped = true;
    return;
  }
  way.sentJustNow = (!closed && way.sentJustNow) || open.some((entry) => entry.sentJustNow);
  if (!closed) return;
  way.sent.join(open.map((entry) => entry.sent));
  way.ensured.join(open.map((entry) => entry.ensured));
  way.asked.join(open.map((entry) => entry.asked));
  way.results.join(open.map((entry) => entry.results));
}
