import { z } from 'zod';
import { plural, printDuration } from '../../base';
import { asName, deed, figure, length, plain } from '../parts/parts';
import { digits } from '../parts/names';
import { AMOUNT, reading, SPAN, span } from '../parts/phrasing';
import { refuse } from '../tree/clauses';
import { asText } from '../tree/notation';
import type { Amount, Wait, Word } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

export interface Gather {
  readonly verb: 'gather';
  readonly count: Amount;
  readonly atMost: Wait;
  readonly as?: Word;
}
declare module '../tree/tree' {
  interface Steps {
    readonly gather: Gather;
  }
}

export const gather: VerbOf<Gather> = {
  verb: 'gather',
  help: 'Holds records together; one goes on for all when there are enough, or when the time is up.',
  begins: [['gather', 'gather 50 or 1 day', 'many for one line']],
  names: [],
  speaks: [],
  phrases: [
    [
      new RegExp(`^(?:collect|gather|bundle) ${AMOUNT}(?: of them| records| people)?,? or (?:wait |after )?${SPAN}$`),
      (found) => reading(`gather ${digits(found[1] ?? '')} or ${span(found[2], found[3])}`),
    ],
  ],
  samples: ['gather 5 or 1 day as g%\ntell owner "Many: " + name'],

  read(row, clauses) {
    refuse(clauses, 'gather');
    const count = row.wantNumber('how many to gather');
    if (!count || !row.want('or', 'gather 50 or 1 day')) return undefined;
    const limit = row.wantDuration();
    const as = row.asName();
    return limit && { verb: 'gather', count, atMost: limit, ...(as && { as }) };
  },
  print: ({ count, atMost, as }) => [`gather ${count.value} or ${printDuration(atMost.duration)}${asText(as)}`],
  check({ count }, way, _check, say) {
    if (count.value < 2 || !Number.isInteger(count.value)) say(count, 'wrong place', 'gather at least 2');
    way.gathered = true;
  },
  result: () => ({ size: { type: 'number' } }),
  say: ({ count, atMost, as }) => [
    deed('Gather'),
    figure(count, plural(count.value, 'record'), String(count.value)),
    plain('or'),
    length(atMost),
    ...asName(as),
  ],
  json: () => z.strictObject({ verb: z.literal('gather'), count: shapes.amount, atMost: shapes.span, as: shapes.as }),
  compiles: () => ({}),
  weighs: LETS_PASS,
};
