import { z } from 'zod';
import { DOCUMENTS } from '../meaning/known';
import { exists } from '../meaning/way';
import { asName, deed, named } from '../parts/parts';
import { refuse } from '../tree/clauses';
import { asText, quote } from '../tree/notation';
import type { Named, Word } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

export interface Prepare {
  readonly verb: 'prepare';
  readonly document: Named;
  readonly as?: Word;
}
declare module '../tree/tree' {
  interface Steps {
    readonly prepare: Prepare;
  }
}

export const prepare: VerbOf<Prepare> = {
  verb: 'prepare',
  help: 'Makes the dossier of the record; “tell … by email” can send it along.',
  begins: [['prepare', 'prepare "', 'a dossier']],
  names: [[/^prepare $/, () => DOCUMENTS, 'document']],
  speaks: [],
  phrases: [],
  samples: ['prepare "Dossier" as dossier%'],

  read(row, clauses) {
    refuse(clauses, 'prepare');
    const document = row.wantName('the document');
    const as = row.asName();
    return document && { verb: 'prepare', document, ...(as && { as }) };
  },
  print: ({ document, as }) => [`prepare ${quote(document.text)}${asText(as)}`],
  check({ document }, _way, _check, say) {
    exists(document, DOCUMENTS, 'document', say);
  },
  result: () => ({ address: { type: 'string' } }),
  say: ({ document, as }) => [deed('Prepare'), named(document, 'document'), ...asName(as)],
  json: () => z.strictObject({ verb: z.literal('prepare'), document: shapes.name, as: shapes.as }),
  compiles: () => ({}),
  weighs: LETS_PASS,
};
