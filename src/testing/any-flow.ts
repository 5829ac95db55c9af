/** Flows of every shape, as fast-check draws them: every verb with its clauses, arms in arms, comments, lines switched off. */
import fc from 'fast-check';
import { verbOf, verbs } from '../core/flow/syntax';
import { DEMO_LIBRARY } from './demo-library';

/** The first thing of each kind in the demo's library, by the name that samples give it. */
const { scorecards, chains, pipelines, openings, teams, templates, plans, people, webhooks } = DEMO_LIBRARY;
const THINGS: Readonly<Record<string, string | undefined>> = {
  scorecard: scorecards[0]?.name,
  chain: chains[0]?.name,
  pipeline: pipelines[0]?.name,
  stage: pipelines[0]?.stages[0],
  opening: openings[0]?.name,
  'opening stage': openings[0]?.stages[0],
  team: teams[0],
  text: templates[0]?.name,
  plan: plans[0]?.name,
  task: templates.find(({ channel }) => channel !== undefined)?.name,
  person: people[0],
  webhook: webhooks[0],
};
/** Samples of every verb, those that send twice as often. */
const LINES: readonly string[] = [...verbs(), verbOf({ verb: 'unknown', text: '' })].flatMap((verb) => {
  const lines = verb.samples.map((sample) => sample.replace(/\{([a-z ]+)\}/g, (_, name: string) => THINGS[name] ?? name));
  return verb.sends ? [...lines, ...lines] : lines;
});
const CONDITIONS: readonly string[] = [
  'email != null',
  'company.heated_area >= 2 ha',
  'company.country in ("GB", "NL")',
  'not(phone = null) and company.expansion = true',
  'company.controls_since between 1990 and 2010',
];

interface AnyLine {
  readonly text: string;
  readonly off: boolean;
  readonly comment: boolean;
  readonly arms: readonly AnyArm[];
}
interface AnyArm {
  readonly when: string | undefined;
  readonly lines: readonly AnyLine[];
}

const { lines } = fc.letrec<{ lines: readonly AnyLine[]; line: AnyLine }>((tie) => ({
  lines: fc.array(tie('line'), { minLength: 1, maxLength: 4 }),
  line: fc.oneof(
    { depthSize: 'small', maxDepth: 2 },
    {
      weight: 5,
      arbitrary: fc.record({
        text: fc.constantFrom(...LINES),
        off: fc.integer({ min: 0, max: 9 }).map((n) => n === 9),
        comment: fc.integer({ min: 0, max: 9 }).map((n) => n === 9),
        arms: fc.constant([]),
      }),
    },
    {
      weight: 2,
      arbitrary: fc.record({
        text: fc.constant('split'),
        off: fc.integer({ min: 0, max: 14 }).map((n) => n === 14),
        comment: fc.constant(false),
        arms: fc
          .tuple(
            fc.array(fc.tuple(fc.constantFrom(...CONDITIONS), tie('lines')), { minLength: 1, maxLength: 3 }),
            fc.option(tie('lines'), { nil: undefined }),
          )
          .map(([arms, otherwise]): readonly AnyArm[] => [
            ...arms.map(([when, inner]) => ({ when, lines: inner })),
            ...(otherwise ? [{ when: undefined, lines: otherwise }] : []),
          ]),
      }),
    },
  ),
}));

/** The canonical text of a flow about people, as `printFlow` gives it, without marks. */
export const anyFlow: fc.Arbitrary<string> = lines.map((list) => {
  let number = 0;
  const rows: string[] = [];
  const write = (given: readonly AnyLine[], depth: number): void => {
    const indent = '  '.repeat(depth);
    for (const line of given) {
      number += 1;
      if (line.comment) rows.push(`${indent}// about line ${number}`);
      for (const row of line.text.replaceAll('%', String(number)).split('\n')) {
        // What is not understood is kept as it stands: it has no switch; nor has a clause.
        const off = line.off && !/^(?:paint| )/.test(row) ? 'off: ' : '';
        rows.push(`${indent}${off}${row}`);
      }
      for (const arm of line.arms) {
        rows.push(`${indent}  ${arm.when === undefined ? 'else' : `when ${arm.when}`}`);
        write(arm.lines, depth + 2);
      }
    }
  };
  write(list, 0);
  return `flow "Any"\nabout person\n\ntake in from hand\n${rows.join('\n')}\n`;
});
