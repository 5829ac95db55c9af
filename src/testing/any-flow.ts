/** Flows of every shape, as fast-check draws them: every verb with its clauses, arms in arms, comments, lines switched off. */
import fc from 'fast-check';

/** What the library of the demo knows by these names; `%` is the number of the line, so that results have names of their own. */
const LINES: readonly string[] = [
  'keep when email != null',
  'keep when company.name != null and (email != null or company.website != null)\n  unless test entry, disposable mailbox, customer\n  else set status = "incomplete"',
  'match company, person\n  ask above 0.60\n  same above 0.95',
  'read company from website, news as r%\n  heated_area: number in ha "How large is the area under heated glass?"\n  expansion: yes/no "Was an expansion announced?"\n  crop: one of "tomato", "cut flowers" "What do they grow?"\n  at most 8 pages, 0.20 EUR\n  no older than 1 day',
  'score company with "Grower fit" as fit%',
  'look up email with "Work e-mail"',
  'open deal in "Glasshouse sales" at "Qualified" as deal%',
  'assign in turn among "north"',
  'set status = "seen"',
  'set company.heated_area = company.heated_area + 1 ha',
  'note "Worth a look: " + name',
  'note if company.all_year = true then "all year" else string(company.controls_since)',
  'write email "First contact" as m%',
  'wait 3 working days',
  "wait until 09:05 on a working day in reader's time",
  'wait for email != null, at most 2 weeks as w%',
  'gather 5 or 1 day as g%',
  'sort job_title as s%\n  grower: "grows something" like "head grower", "grower"\n  office: "works in the office" like "accountant"',
  'pick out cv from job_title as cv%',
  'tell owner by email "Look at " + name',
  'tell its owner "Look at " + name',
  'tell "Lucía Ferrer Mas" "not sure about " + name',
  'hand over to "Yard board" and wait, at most 2 hours as v%\n  free: yes/no\n  price: number in EUR',
  'stop "disqualified"',
  'stop',
  'paint it blue\n  and twice',
];
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
      const [head = '', ...clauses] = line.text.replaceAll('%', String(number)).split('\n');
      // What is not understood is kept as it stands: it has no switch.
      rows.push(`${indent}${line.off && !head.startsWith('paint') ? 'off: ' : ''}${head}`, ...clauses.map((clause) => indent + clause));
      for (const arm of line.arms) {
        rows.push(`${indent}  ${arm.when === undefined ? 'else' : `when ${arm.when}`}`);
        write(arm.lines, depth + 2);
      }
    }
  };
  write(list, 0);
  return `flow "Any"\nabout person\n\ntake in from hand\n${rows.join('\n')}\n`;
});
