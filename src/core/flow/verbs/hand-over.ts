import { z } from 'zod';
import { printDuration } from '../../base';
import { answerName, CAME } from '../meaning/scope';
import { exists, twice } from '../meaning/way';
import { asName, deed, length, named, plain } from '../parts/parts';
import { withThing } from '../parts/phrasing';
import { answerType } from '../tree/clauses';
import type { Cursor } from '../tree/cursor';
import { answerTypeText, asText, quote } from '../tree/notation';
import type { AnswerType, Named, Span, Wait, Word } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

/** One part of the answer a line waits for. */
export interface AnswerPart extends Span {
  readonly id: Word;
  readonly type: AnswerType;
}

export interface HandOver {
  readonly verb: 'hand over';
  readonly to: Named;
  /** set: the trip waits for an answer with these parts */
  readonly answer?: { readonly atMost: Wait; readonly parts: readonly AnswerPart[] };
  readonly as?: Word;
}
declare module '../tree/tree' {
  interface Steps {
    readonly 'hand over': HandOver;
  }
}

export const handOver: VerbOf<HandOver> = {
  verb: 'hand over',
  help: 'Posts the record to a webhook, signed; with “wait for an answer” it goes on when the answer comes.',
  begins: [['hand over', 'hand over to "', 'to a webhook']],
  names: [[/\bhand over to $/, (library) => library.webhooks, 'webhook']],
  speaks: [],
  phrases: [
    [
      /^(?:pass|hand|give|post|forward)(?: it| them| this| the record)?(?: over| on)? to (.+)$/,
      (found, ask) => withThing(found[1], ask.library.webhooks, 'webhook', (name) => `hand over to ${name}`),
    ],
  ],
  samples: ['hand over to "{webhook}" and wait, at most 2 hours as v%\n  free: yes/no\n  price: number in EUR'],

  read(row, clauses) {
    if (!row.want('to', 'hand over to "Warehouse"')) return undefined;
    const to = row.wantName('the webhook');
    if (!to) return undefined;
    let answer: HandOver['answer'];
    if (row.take('and', 'wait')) {
      row.take(',');
      const atMost = row.want('at', 'and wait, at most 2 hours') && row.want('most', 'at most 2 hours') ? row.wantDuration() : undefined;
      const parts = clauses.map(readPart).filter((made) => made !== undefined);
      if (!atMost) return undefined;
      answer = { atMost, parts };
    } else for (const clause of clauses) clause.say('parts of an answer need “and wait, at most …” on the line above', clause.row);
    const as = row.asName();
    return { verb: 'hand over', to, ...(answer && { answer }), ...(as && { as }) };
  },
  print: ({ to, answer, as }) => [
    `hand over to ${quote(to.text)}${answer ? ` and wait, at most ${printDuration(answer.atMost.duration)}` : ''}${asText(as)}`,
    ...(answer?.parts ?? []).map((part) => `${part.id.text}: ${answerTypeText(part.type)}`),
  ],
  check({ to, answer }, _way, check, say) {
    exists(to, check.library.webhooks, 'webhook', say);
    twice(
      (answer?.parts ?? []).map((part) => part.id),
      say,
    );
  },
  result: ({ answer }) => ({
    ...CAME,
    ...Object.fromEntries((answer?.parts ?? []).map((part) => [part.id.text, answerName(part.type)])),
  }),
  say: ({ to, answer, as }) => [
    deed('Hand over'),
    plain('to'),
    named(to, 'webhook'),
    ...(answer ? [plain('and wait, at most'), length(answer.atMost)] : []),
    ...asName(as),
  ],
  json: () =>
    z.strictObject({
      verb: z.literal('hand over'),
      to: shapes.name,
      answer: z.strictObject({ atMost: shapes.span, parts: z.array(z.strictObject({ id: shapes.name, type: shapes.answer })) }).optional(),
      as: shapes.as,
    }),
  compiles: () => ({}),
  weighs: LETS_PASS,
  speaksForMany: true,
  isMadeToBeUsed: true,
};

/** `approved: yes/no` */
function readPart(row: Cursor): AnswerPart | undefined {
  const id = row.wantPath('the name of the part');
  if (!id || !row.want(':', 'approved: yes/no')) return undefined;
  const type = answerType(row);
  row.end();
  return type && { from: id.from, to: row.row.to, id, type };
}
