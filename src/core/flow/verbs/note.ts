import { z } from 'zod';
import { feel } from '../meaning/way';
import { deed, formula } from '../parts/parts';
import { original, reading } from '../parts/phrasing';
import { refuse } from '../tree/clauses';
import { feelText, quote } from '../tree/notation';
import type { Expr } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

export interface Note {
  readonly verb: 'note';
  readonly text: Expr;
}
declare module '../tree/tree' {
  interface Steps {
    readonly note: Note;
  }
}

export const note: VerbOf<Note> = {
  verb: 'note',
  help: 'Writes a note on the record.',
  begins: [['note', 'note "', 'on the person']],
  names: [],
  speaks: [/^note/],
  phrases: [
    [
      /^(?:leave|write|make|add) (?:a )?note(?: that| saying|:)? (.+)$|^(?:note|remember) that (.+)$/,
      (found, ask) => reading(`note ${quote(original(found[1] ?? found[2] ?? '', ask))}`),
    ],
  ],
  samples: ['note "Worth a look: " + name', 'note if company.employees > 10 then "large" else string(company.employees)'],

  read(row, clauses) {
    refuse(clauses, 'note');
    const text = row.wantFeel('the text of the note');
    return text && { verb: 'note', text };
  },
  print: ({ text }) => [`note ${feelText(text)}`],
  check({ text }, way, check, say) {
    feel(text, 'string', way, check, say);
  },
  result: () => undefined,
  say: ({ text }, fields) => [deed('Note'), formula(text, fields)],
  json: () => z.strictObject({ verb: z.literal('note'), text: shapes.feel }),
  compiles: ({ text }) => ({ own: text }),
  weighs: LETS_PASS,
};
