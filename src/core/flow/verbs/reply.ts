import { z } from 'zod';
import { feel, needsEmail } from '../meaning/way';
import { asName, deed, formula, plain } from '../parts/parts';
import { reading } from '../parts/phrasing';
import { NAME } from '../tree/cursor';
import { refuse } from '../tree/clauses';
import { asText, feelText } from '../tree/notation';
import type { Expr, Word } from '../tree/tree';
import * as shapes from './shapes';
import type { VerbOf } from './verb';

export interface Reply {
  readonly verb: 'reply';
  /** what somebody wrote */
  readonly text: Expr;
  readonly as?: Word;
}
declare module '../tree/tree' {
  interface Steps {
    readonly reply: Reply;
  }
}

export const reply: VerbOf<Reply> = {
  verb: 'reply',
  help: 'Drafts an answer to what somebody wrote, from the book of answers and nothing else. It does not leave yet.',
  begins: [['reply', 'reply to entry.text from answers as answer', 'from the book of answers']],
  names: [],
  speaks: [/^reply to .* from /],
  phrases: [
    [
      /^(?:answer|reply)(?: to)?(?: it| them| him| her| the mail| their (?:mail|message|questions?)| what they (?:wrote|write|asked?))?(?: from| with| by| out of)?(?: our| the)?(?: book(?: of answers)?| agreed answers| answers)?$/,
      () => reading('reply to entry.text from answers as answer'),
    ],
  ],
  samples: ['reply to job_title from answers as r%'],

  read(row, clauses) {
    refuse(clauses, 'reply');
    if (!row.want('to', 'reply to entry.text from answers as answer')) return undefined;
    const text = row.wantFeel('what somebody wrote', [
      ['from', 'answers'],
      ['as', NAME],
    ]);
    if (!row.want('from', 'reply to entry.text from answers as answer') || !row.want('answers', 'from answers')) return undefined;
    const as = row.asName();
    return text && { verb: 'reply', text, ...(as && { as }) };
  },
  print: ({ text, as }) => [`reply to ${feelText(text)} from answers${asText(as)}`],
  check({ text }, way, check, say, line) {
    feel(text, 'string', way, check, say);
    needsEmail(line.head, way, check, say, line);
  },
  result: () => ({
    subject: { type: 'string' },
    body: { type: 'string' },
    covered: { type: 'boolean', label: 'covered' },
    open: { type: 'string', label: 'what nobody has agreed' },
    questions: { type: 'number', label: 'questions' },
    language: { type: 'string' },
  }),
  say: ({ text, as }, fields) => [deed('Reply'), plain('to'), formula(text, fields), plain('from the book of answers'), ...asName(as)],
  json: () => z.strictObject({ verb: z.literal('reply'), text: shapes.feel, as: shapes.as }),
  compiles: ({ text }) => ({ own: text }),
  weighs: { loses: 'few', isGuess: true },
  isMadeToBeUsed: true,
};
