import { z } from 'zod';
import { oneOf } from '../meaning/way';
import { deed, figure, plain, value } from '../parts/parts';
import { reading } from '../parts/phrasing';
import type { Amount, Word } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

export interface Match {
  readonly verb: 'match';
  readonly targets: readonly Word[];
  readonly askAbove?: Amount;
  readonly sameAbove?: Amount;
}
declare module '../tree/tree' {
  interface Steps {
    readonly match: Match;
  }
}

export const match: VerbOf<Match> = {
  verb: 'match',
  help: 'Looks whether the person or company is in the CRM already; asks where it is not sure.',
  begins: [['match', 'match company, person', 'against the CRM']],
  names: [],
  speaks: [],
  phrases: [
    [
      /^(?:check|see|look) (?:if|whether) (?:we (?:already )?know|they are known|it is known)|^(?:match|compare).*\bcrm\b|^(?:find|look for|remove|check for) duplicates?/,
      () => reading('match company, person\n  ask above 0.60\n  same above 0.95'),
    ],
  ],
  samples: ['match company, person\n  ask above 0.60\n  same above 0.95'],

  read(row, clauses) {
    const targets = [];
    do {
      const target = row.wantPath('what to match (person, company)');
      if (target) targets.push(target);
    } while (row.take(','));
    let bars: Pick<Match, 'askAbove' | 'sameAbove'> = {};
    for (const clause of [row, ...clauses]) {
      while (!clause.done) {
        const which = clause.take('ask', 'above') ? 'askAbove' : clause.take('same', 'above') ? 'sameAbove' : undefined;
        const bar = which && clause.wantNumber('a bar between 0 and 1');
        if (!which || !bar) {
          if (!which) clause.say('write ask above 0.60, or same above 0.95');
          break;
        }
        bars = { ...bars, [which]: bar };
        clause.take(',');
      }
    }
    return { verb: 'match', targets, ...bars };
  },
  print: ({ targets, askAbove, sameAbove }) => [
    `match ${targets.map((target) => target.text).join(', ')}`,
    ...(askAbove ? [`ask above ${askAbove.value.toFixed(2)}`] : []),
    ...(sameAbove ? [`same above ${sameAbove.value.toFixed(2)}`] : []),
  ],
  check({ targets, askAbove, sameAbove }, _way, _check, say) {
    for (const target of targets) oneOf(target, ['person', 'company'], 'what can be matched', say);
    for (const bar of [askAbove, sameAbove]) if (bar && (bar.value < 0 || bar.value > 1)) say(bar, 'bars', 'a bar lies between 0 and 1');
    if (askAbove && sameAbove && askAbove.value > sameAbove.value)
      say(askAbove, 'bars', 'the bar for asking must lie below the bar for “same”');
  },
  result: () => undefined,
  say: ({ targets, askAbove, sameAbove }) => [
    deed('Match'),
    value(targets.map((target) => target.text).join(', ')),
    ...(askAbove ? [plain('· ask above'), figure(askAbove, askAbove.value.toFixed(2))] : []),
    ...(sameAbove ? [plain('· same above'), figure(sameAbove, sameAbove.value.toFixed(2))] : []),
  ],
  json: () =>
    z.strictObject({
      verb: z.literal('match'),
      targets: z.array(shapes.name),
      askAbove: shapes.amount.optional(),
      sameAbove: shapes.amount.optional(),
    }),
  compiles: () => ({}),
  weighs: LETS_PASS,
};
