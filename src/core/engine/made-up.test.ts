/** A verb nobody knows, added through the two doors alone: read, printed, checked, said, offered, drawn as JSON, compiled and run. */
import { z } from 'zod';
import { checkFlow } from '../flow/check';
import { completeAt, helpAt } from '../flow/complete';
import { flowJson, flowJsonSchema } from '../flow/json';
import { readPhrase } from '../flow/phrase';
import { compilePlan } from '../flow/plan';
import { sayLine, sentenceOf } from '../flow/say';
import { addVerb, LETS_PASS, parseFlow, printFlow, type VerbOf } from '../flow/syntax';
import { DEMO_LIBRARY } from '../../testing/demo-library';
import { go, NOW, trip, VIEW } from '../../testing/trips';
import { addRun, advance, PLAIN } from './index';

interface Toast {
  readonly verb: 'drink to';
  readonly whom: string;
}
const drinkTo: VerbOf<Toast> = {
  verb: 'drink to',
  help: 'Raises a glass.',
  begins: [['drink to', 'drink to "', 'a toast']],
  names: [[/\bdrink to $/, (library) => library.people, 'person']],
  speaks: [],
  phrases: [[/^(?:cheer|toast) (.+)$/, (found) => ({ ok: true, lines: [`drink to "${found[1] ?? ''}"`] })]],
  samples: ['drink to "{person}"'],
  read: (row) => {
    const whom = row.wantName('whom to drink to');
    return whom && { verb: 'drink to', whom: whom.text };
  },
  print: ({ whom }) => [`drink to "${whom}"`],
  check({ whom }, _way, { library }, say, line) {
    if (!library.people.includes(whom)) say(line.head, 'unknown thing', `nobody here is called ${whom}`);
  },
  result: () => undefined,
  say: ({ whom }) => [
    { text: 'Drink to', role: 'verb' },
    { text: whom, role: 'value' },
  ],
  json: () => z.strictObject({ verb: z.literal('drink to'), whom: z.string() }),
  compiles: () => ({}),
  weighs: LETS_PASS,
};
addVerb(drinkTo);
addRun<Toast>({
  verb: 'drink to',
  ...PLAIN,
  run({ whom }, line, run) {
    run.commands.push({ kind: 'note', text: `a toast to ${whom}` });
    run.log(line, 'passed', `drank to ${whom}`);
    run.pass(line);
  },
});

const [who = ''] = DEMO_LIBRARY.people;
const TEXT = `flow "Feast"\nabout person\n\ntake in from hand\ndrink to "${who}"\n`;

test('is text, a tree, a sentence and JSON like all others', () => {
  const parsed = parseFlow(TEXT);
  expect(parsed.problems).toEqual([]);
  expect(printFlow(parsed.tree)).toBe(TEXT);
  expect(sentenceOf(sayLine(parsed.tree.lines[1]!))).toBe(`Drink to ${who}`);
  const json = flowJson(parsed.tree);
  expect(json.lines[1]?.step).toEqual({ verb: 'drink to', whom: who });
  expect(JSON.stringify(z.toJSONSchema(flowJsonSchema))).toContain('drink to');
});

test('is checked, offered, explained and understood in everyday words', () => {
  expect(checkFlow(parseFlow(TEXT), DEMO_LIBRARY)).toEqual([]);
  expect(checkFlow(parseFlow(TEXT.replace(who, 'Nobody')), DEMO_LIBRARY).map((finding) => finding.message)).toEqual([
    'nobody here is called Nobody',
  ]);
  const offered = (text: string) => completeAt(text, text.length, DEMO_LIBRARY)?.options.map((option) => option.label);
  expect(offered('dri')).toEqual(['drink to']);
  expect(offered('drink to "')).toEqual(DEMO_LIBRARY.people);
  expect(helpAt('drink to "x"', 3, DEMO_LIBRARY)?.says).toBe('Raises a glass.');
  expect(readPhrase('toast Ada', '', DEMO_LIBRARY)).toEqual({ ok: true, lines: ['drink to "ada"'] });
  expect(
    parseFlow('drnk to "x"')
      .problems.map((problem) => problem.message)
      .join(),
  ).toContain('is not a verb');
});

test('is run', () => {
  const plan = compilePlan(parseFlow(TEXT).tree, DEMO_LIBRARY);
  const result = advance(plan, trip(), go, NOW, VIEW);
  expect(result.journal.map((entry) => entry.says)).toEqual(['taken in from hand', `drank to ${who}`]);
  expect(result.commands).toEqual([{ kind: 'note', text: `a toast to ${who}` }]);
  expect(result.trip.state).toEqual({ kind: 'done' });
});

test('and described once: a second time is refused', () => {
  expect(() => {
    addVerb(drinkTo);
  }).toThrow('described twice');
});
