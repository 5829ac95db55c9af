import { z } from 'zod';
import { deed, named } from '../parts/parts';
import { original, reading } from '../parts/phrasing';
import { refuse } from '../tree/clauses';
import { quote } from '../tree/notation';
import type { Named } from '../tree/tree';
import type { VerbOf } from './verb';

export interface Stop {
  readonly verb: 'stop';
  readonly reason?: Named;
}
declare module '../tree/tree' {
  interface Steps {
    readonly stop: Stop;
  }
}

export const stop: VerbOf<Stop> = {
  verb: 'stop',
  help: 'Ends the trip here, with a reason.',
  begins: [['stop', 'stop "', 'the trip']],
  names: [],
  speaks: [],
  phrases: [
    [
      /^(?:stop|end|finish)(?: here| it| there| the trip)?(?:(?: because|:| as) (.+))?$/,
      (found, ask) => reading(found[1] ? `stop ${quote(original(found[1], ask))}` : 'stop'),
    ],
  ],
  samples: ['stop "disqualified"', 'stop'],

  read(row, clauses) {
    refuse(clauses, 'stop');
    const reason = row.done ? undefined : row.wantName('the reason');
    return { verb: 'stop', ...(reason && { reason }) };
  },
  print: ({ reason }) => [reason ? `stop ${quote(reason.text)}` : 'stop'],
  check(_step, way) {
    way.stopped = true;
  },
  result: () => undefined,
  say: ({ reason }) => [deed('Stop'), ...(reason ? [named(reason, 'text', `“${reason.text}”`)] : [])],
  json: () => z.strictObject({ verb: z.literal('stop'), reason: z.string().optional() }),
  compiles: () => ({}),
  weighs: { loses: 'none', isGuess: false },
  ends: true,
};
