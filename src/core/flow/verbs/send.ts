import { z } from 'zod';
import { approved, sends } from '../meaning/way';
import { deed, plain, value } from '../parts/parts';
import { message, NO_MESSAGE, reading } from '../parts/phrasing';
import { refuse } from '../tree/clauses';
import type { Word } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

export interface Send {
  readonly verb: 'send';
  readonly message: Word;
  readonly sameThread: boolean;
}
declare module '../tree/tree' {
  interface Steps {
    readonly send: Send;
  }
}

export const send: VerbOf<Send> = {
  verb: 'send',
  help: 'Sends one message, paced within the reader’s office hours and the mailbox’s limits.',
  begins: [['send', 'send ', 'one message']],
  names: [],
  speaks: [],
  phrases: [
    [
      /^(?:send)(?: it| them)?(?: the)?(?: mail| message| e-?mail)?$/,
      (_found, ask) => (message(ask) === undefined ? NO_MESSAGE : reading(`send ${message(ask) ?? ''}`)),
    ],
  ],
  samples: ['write email "{text}" as s%\nask "{team}" to approve s%\nsend s% in the same thread'],

  read(row, clauses) {
    refuse(clauses, 'send');
    const about = row.wantPath('the message to send');
    const sameThread = row.take('in', 'the', 'same', 'thread') !== undefined;
    return about && { verb: 'send', message: about, sameThread };
  },
  print: ({ message: about, sameThread }) => [`send ${about.text}${sameThread ? ' in the same thread' : ''}`],
  check({ message: about }, way, check, say, line) {
    check.used.add(about.text);
    if (!way.results.get(about.text)?.body) say(about, 'unknown name', `“${about.text}” is not a message written above`);
    approved(about.text, about, way, check, say, line);
    sends(way, check, say, line);
    way.sent.set(about.text, true);
  },
  result: () => undefined,
  say: ({ message: about, sameThread }) => [deed('Send'), value(about.text), ...(sameThread ? [plain('in the same thread')] : [])],
  json: () => z.strictObject({ verb: z.literal('send'), message: shapes.name, sameThread: z.boolean() }),
  compiles: () => ({}),
  weighs: LETS_PASS,
  sends: () => [0],
};
