import { z } from 'zod';
import { assigned, ensures, feel, oneOf } from '../meaning/way';
import { condition, deed, fieldWords, formula, plain, value } from '../parts/parts';
import { tail, withCondition } from '../parts/phrasing';
import { assignment } from '../tree/clauses';
import type { Cursor } from '../tree/cursor';
import { assignmentText, feelText } from '../tree/notation';
import type { Token } from '../tree/rows';
import { SCREENS } from '../tree/screens';
import type { Assignment, Expr, Word } from '../tree/tree';
import * as shapes from './shapes';
import type { VerbOf } from './verb';

export interface Keep {
  readonly verb: 'keep';
  readonly when: Expr;
  /** what is screened out although the condition holds: words of `SCREENS` */
  readonly unless?: readonly Word[];
  readonly otherwise?: Assignment;
}
declare module '../tree/tree' {
  interface Steps {
    readonly keep: Keep;
  }
}

export const keep: VerbOf<Keep> = {
  verb: 'keep',
  help: 'Only records for which the condition holds go on. An unknown value is a “no”, and the journal says it was unknown. “unless” screens out tests, abuse, thrown-away mailboxes, dead sites, customers, and more.',
  begins: [['keep', 'keep when ', 'only these go on']],
  names: [],
  speaks: [/^keep/, /^else set/],
  phrases: [
    [
      /^(?:only|keep|continue|go on|proceed|filter)(?: on| those| them| people| persons| companies| firms| records)*(?: only)?(?: if| when| where| those| people| companies| who| whose| that| which)* (.+)$/,
      (found, ask) => withCondition(tail(found, ask), ask, (when) => `keep when ${when}`),
    ],
    [
      /^(?:drop|skip|leave out|throw out|discard|exclude)(?: everyone| all| those| people| companies| records| them)*(?: if| when| where| who| whose| that| which)* (.+)$/,
      (found, ask) => withCondition(tail(found, ask), ask, (when) => `keep when not(${when})`),
    ],
  ],
  samples: [
    'keep when email != null',
    'keep when company.name != null and (email != null or company.website != null)\n  unless test entry, disposable mailbox, customer\n  else set status = "incomplete"',
  ],

  read(row, clauses) {
    if (!row.want('when', 'keep when email != null')) return undefined;
    const when = row.wantFeel('the condition');
    let otherwise;
    let unless: readonly Word[] | undefined;
    for (const clause of clauses) {
      if (clause.take('else', 'set')) otherwise = assignment(clause);
      else if (clause.take('unless')) unless = readScreens(clause);
      else clause.say('below “keep” only unless … and else set … may stand', clause.row);
    }
    return when && { verb: 'keep', when, ...(unless && { unless }), ...(otherwise && { otherwise }) };
  },
  print: ({ when, unless, otherwise }) => [
    `keep when ${feelText(when)}`,
    ...(unless ? [`unless ${unless.map((screen) => screen.text).join(', ')}`] : []),
    ...(otherwise ? [`else ${assignmentText(otherwise)}`] : []),
  ],
  check(step, way, check, say) {
    feel(step.when, 'boolean', way, check, say);
    for (const path of ensures(step.when.parsed.expr)) way.ensured.set(path, true);
    for (const screen of step.unless ?? []) oneOf(screen, SCREENS, 'what can be screened out', say);
    if (step.otherwise) assigned(step.otherwise, way, check, say);
  },
  result: () => undefined,
  say: ({ when, unless, otherwise }, fields) => [
    deed('Keep'),
    plain('when'),
    condition(when, fields),
    ...(unless ? [plain('unless'), value(unless.map((screen) => screen.text).join(', '))] : []),
    ...(otherwise
      ? [plain('· else set'), value(fieldWords(otherwise.field.text, fields)), plain('to'), formula(otherwise.value, fields)]
      : []),
  ],
  json: () =>
    z.strictObject({
      verb: z.literal('keep'),
      when: shapes.feel,
      unless: z.array(shapes.name).optional(),
      otherwise: shapes.setting.optional(),
    }),
  compiles: ({ when, otherwise }) => ({ own: when, clause: otherwise?.value }),
  weighs: { loses: 'unknown', isGuess: true },
};

/** `unless test entry, disposable mailbox` */
function readScreens(row: Cursor): readonly Word[] {
  const out: Word[] = [];
  do {
    const [first, ...more] = wordsUntilComma(row);
    if (!first) {
      row.say(`say what to screen out: ${SCREENS.join(', ')}`);
      break;
    }
    const last = more.at(-1) ?? first;
    out.push({ from: first.from, to: last.to, text: [first, ...more].map((token) => token.text).join(' ') });
  } while (row.take(','));
  row.end();
  return out;
}
function wordsUntilComma(row: Cursor): readonly Token[] {
  const out: Token[] = [];
  for (let token = row.peek(); token && token.text !== ','; token = row.peek()) {
    const taken = row.take(token.text);
    if (!taken) break;
    out.push(taken);
  }
  return out;
}
