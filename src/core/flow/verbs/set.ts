import { z } from 'zod';
import { assigned } from '../meaning/way';
import { deed, fieldWords, formula, plain, value } from '../parts/parts';
import { original, reading } from '../parts/phrasing';
import { assignment, refuse } from '../tree/clauses';
import { assignmentText, quote } from '../tree/notation';
import type { Assignment } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

export interface SetField {
  readonly verb: 'set';
  readonly assignment: Assignment;
}
declare module '../tree/tree' {
  interface Steps {
    readonly set: SetField;
  }
}

export const set: VerbOf<SetField> = {
  verb: 'set',
  help: 'Writes a field; what was there stays below it, with its source.',
  begins: [['set', 'set ', 'a field']],
  names: [],
  speaks: [/^set/],
  phrases: [
    [
      /^(?:mark|flag|label)(?: them| it| the person| the record)? as (.+)$/,
      (found, ask) => reading(`set status = ${quote(original(found[1] ?? '', ask))}`),
    ],
    [
      /^(?:set|change|put|make) (?:the |their )?status (?:to|=|as) (.+)$/,
      (found, ask) =>
        reading(`set status = ${quote(original(found[1] ?? '', ask))}`, `set company.status = ${quote(original(found[1] ?? '', ask))}`),
    ],
  ],
  samples: ['set status = "seen"', 'set company.employees = company.employees + 1'],

  read(row, clauses) {
    refuse(clauses, 'set');
    const made = assignment(row);
    return made && { verb: 'set', assignment: made };
  },
  print: (step) => [assignmentText(step.assignment)],
  check(step, way, check, say) {
    assigned(step.assignment, way, check, say);
  },
  result: () => undefined,
  say: ({ assignment: made }, fields) => [
    deed('Set'),
    value(fieldWords(made.field.text, fields)),
    plain('to'),
    formula(made.value, fields),
  ],
  json: () => z.strictObject({ verb: z.literal('set'), assignment: shapes.setting }),
  compiles: (step) => ({ own: step.assignment.value }),
  weighs: LETS_PASS,
};
