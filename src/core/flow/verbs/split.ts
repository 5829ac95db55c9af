import { z } from 'zod';
import { Layers } from '../meaning/layers';
import { takeOut } from '../meaning/mends';
import type { Mend } from '../meaning/finding';
import { ensures, feel, type Check, type Say, type Way } from '../meaning/way';
import { deed } from '../parts/parts';
import { tail, withCondition } from '../parts/phrasing';
import type { Arm } from '../tree/tree';
import * as shapes from './shapes';
import type { VerbOf } from './verb';

export interface Split {
  readonly verb: 'split';
  readonly arms: readonly Arm[];
}
declare module '../tree/tree' {
  interface Steps {
    readonly split: Split;
  }
}

export const split: VerbOf<Split> = {
  verb: 'split',
  help: 'Several ways: the first arm whose condition holds is taken. Below the split all go on that have not stopped.',
  begins: [
    ['split', 'split', 'several ways'],
    ['when', 'when ', 'one way of a split'],
    ['else', 'else', 'all others'],
  ],
  names: [],
  speaks: [/^when/],
  phrases: [[/^(?:if|in case|when) (.+)$/, (found, ask) => withCondition(tail(found, ask), ask, (when) => `split\n  when ${when}`)]],
  samples: [],

  read(row, _clauses, arms) {
    row.end();
    return { verb: 'split', arms: arms() };
  },
  // Its arms are lines' homes: whoever prints lines prints them.
  print: () => ['split'],
  check: checkSplit,
  result: () => undefined,
  say: () => [deed('Split')],
  json: (line) =>
    z.strictObject({
      verb: z.literal('split'),
      arms: z.array(
        z.strictObject({
          when: shapes.feel.optional().describe('left out for the arm of all others'),
          mark: z.string(),
          comments: z.array(z.string()).optional(),
          get lines() {
            return z.array(line());
          },
        }),
      ),
    }),
  compiles: () => ({}),
  weighs: { loses: 'none', isGuess: true },
  holdsLines: true,
};

function checkSplit(step: Split, way: Way, check: Check, say: Say): void {
  const ways: Way[] = [];
  let closed = false;
  const seen = new Set<string>();
  for (const arm of step.arms) {
    if (closed) say(arm, 'never reached', 'this arm is never taken: the “else” above takes everything', withoutArm(arm, check), 'warning');
    const text = arm.when?.parsed.text.trim() ?? '';
    if (arm.when) {
      feel(arm.when, 'boolean', way, check, say);
      if (seen.has(text))
        say(arm.when, 'never reached', 'this arm is never taken: an arm above has the same condition', withoutArm(arm, check), 'warning');
      seen.add(text);
    } else closed = true;
    const own = branch(way);
    for (const path of ensures(arm.when?.parsed.expr)) own.ensured.set(path, true);
    check.inside(arm.lines, own);
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
  way.writtenFrom.join(open.map((entry) => entry.writtenFrom));
  way.results.join(open.map((entry) => entry.results));
}

const withoutArm = (arm: Arm, check: Check): Mend =>
  takeOut(check.text, { from: arm.from, to: arm.lines.at(-1)?.to ?? arm.to }, 'take this arm out');

const branch = (way: Way): Way => ({
  results: new Layers(way.results),
  ensured: new Layers(way.ensured),
  asked: new Layers(way.asked),
  writtenFrom: new Layers(way.writtenFrom),
  sent: new Layers(way.sent),
  sentJustNow: way.sentJustNow,
  gathered: false,
  stopped: false,
});
