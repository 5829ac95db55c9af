import { z } from 'zod';
import { printDuration } from '../../base';
import { channelOf, isByHand } from '../../writer';
import type { Library } from '../meaning/library';
import { exists } from '../meaning/way';
import { asName, deed, length, named, plain } from '../parts/parts';
import { withThing } from '../parts/phrasing';
import { refuse } from '../tree/clauses';
import { asText, quote } from '../tree/notation';
import type { Named, Wait, Word } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

export interface Task {
  readonly verb: 'task';
  /** a text that is written for a call, a note or a letter */
  readonly template: Named;
  /** set: the trip waits until it is done */
  readonly atMost?: Wait;
  readonly as?: Word;
}
declare module '../tree/tree' {
  interface Steps {
    readonly task: Task;
  }
}

/** Texts of what people do. */
const byHand = (library: Library): readonly string[] =>
  library.templates.filter((text) => isByHand(channelOf(text))).map((text) => text.name);

export const task: VerbOf<Task> = {
  verb: 'task',
  help: 'Gives whose record it is something to do: a call, a note on a profile, a letter. With “at most” it goes on when that is done.',
  begins: [['task', 'task "', 'for a person to do']],
  names: [[/^task $/, byHand, 'call, note or letter']],
  speaks: [],
  phrases: [
    [
      /^(?:call|ring|phone)(?: them| him| her)?(?: up)?(?: about| with)? (.+)$/,
      (found, ask) => withThing(found[1], byHand(ask.library), 'call', (name) => `task ${name}, at most 2 working days as talk`),
    ],
  ],
  samples: ['task "{task}", at most 2 days as k%'],

  read(row, clauses) {
    refuse(clauses, 'task');
    const template = row.wantName('the text of a call, a note or a letter');
    let atMost: Wait | undefined;
    if (row.take(',')) {
      atMost = row.want('at', 'task "Ring back", at most 2 days') && row.want('most', 'at most 2 days') ? row.wantDuration() : undefined;
      if (!atMost) return undefined;
    }
    const as = row.asName();
    return template && { verb: 'task', template, ...(atMost && { atMost }), ...(as && { as }) };
  },
  print: ({ template, atMost, as }) => [
    `task ${quote(template.text)}${atMost ? `, at most ${printDuration(atMost.duration)}` : ''}${asText(as)}`,
  ],
  check({ template, atMost, as }, _way, check, say) {
    const text = check.library.templates.find((entry) => entry.name === template.text);
    if (text && !isByHand(channelOf(text))) say(template, 'wrong place', `${quote(text.name)} is a mail: write email ${quote(text.name)}`);
    else exists(template, byHand(check.library), 'text of a call, a note or a letter', say);
    if (as && !atMost) say(as, 'wrong place', 'nothing is known of it before it is done: write task "…", at most 2 days as …');
  },
  result: () => ({ done: { type: 'boolean' }, outcome: { type: 'string' }, words: { type: 'string' } }),
  say: ({ template, atMost, as }) => [
    deed('Task'),
    named(template, 'template'),
    ...(atMost ? [plain('and wait, at most'), length(atMost)] : []),
    ...asName(as),
  ],
  json: () => z.strictObject({ verb: z.literal('task'), template: shapes.name, atMost: shapes.span.optional(), as: shapes.as }),
  compiles: () => ({}),
  weighs: LETS_PASS,
};
