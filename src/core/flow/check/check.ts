import type { Finding } from '../meaning/finding';
import { Layers } from '../meaning/layers';
import type { Library } from '../meaning/library';
import { takeOut } from '../meaning/mends';
import { ENTRY } from '../meaning/scope';
import { exists, type Check, type Say, type Way } from '../meaning/way';
import type { Line, ParsedFlow } from '../tree/tree';
import { entryOf, resultOf, verbOf } from '../verbs';

/** Everything wrong with a flow: syntax, names, types, units, existence, reachability, what nothing has ensured. Ordered by place. */
export function checkFlow(parsed: ParsedFlow, library: Library): readonly Finding[] {
  const findings: Finding[] = parsed.problems.map((problem) => ({ ...problem, code: 'syntax', severity: 'error' }));
  const about = parsed.tree.about?.text ?? 'person';
  const say = sayer(findings);
  const check: Check = {
    text: parsed.text,
    about,
    library,
    used: new Set(),
    named: new Map(),
    inside: (lines, way) => {
      walk(lines, way, check, say);
    },
  };
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
  writtenFrom: new Layers(),
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
    const verb = verbOf(line.step);
    verb.check(line.step, way, check, say, line);
    if (afterGather && !verb.speaksForMany)
      say(line.head, 'wrong place', 'a line that works on many comes right below “gather”: tell … or hand over …');
    const entry = entryOf(line.step, check.library);
    if (entry) way.results.set(ENTRY, entry);
    const result = resultOf(line.step, check.library);
    if (!result || !('as' in line.step) || !line.step.as) continue;
    if (way.results.has(result.name)) say(line.step.as, 'name twice', `“${result.name}” is the name of a result above: choose another`);
    way.results.set(result.name, result.shape);
    if (verb.isMadeToBeUsed) check.named.set(result.name, line.step.as);
  }
}
