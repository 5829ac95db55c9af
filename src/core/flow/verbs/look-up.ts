import { z } from 'zod';
import { emailPath, exists, oneOf } from '../meaning/way';
import { deed, fieldWords, named, plain, value } from '../parts/parts';
import { refused, withThing } from '../parts/phrasing';
import { refuse } from '../tree/clauses';
import { quote } from '../tree/notation';
import type { Named, Word } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

export interface LookUp {
  readonly verb: 'look up';
  readonly field: Word;
  readonly chain: Named;
}
declare module '../tree/tree' {
  interface Steps {
    readonly 'look up': LookUp;
  }
}

export const lookUp: VerbOf<LookUp> = {
  verb: 'look up',
  help: 'Asks paid providers one after the other until an answer is usable. Nothing is asked or paid twice.',
  begins: [['look up', 'look up email with "', 'paid providers']],
  names: [[/\blook up\b.*\bwith $/, (library) => library.chains.map((chain) => chain.name), 'lookup chain']],
  speaks: [],
  phrases: [
    [
      /^(?:find|get|look up|search|fetch)(?: for)? (?:their |the |an? |his |her |work )*(?:e-?mail|mail)(?: address(?:es)?)?(?: (?:with|from|by|using) (.+))?$/,
      (found, ask) =>
        withThing(
          found[1],
          ask.library.chains.filter((chain) => chain.field === 'email').map((chain) => chain.name),
          'lookup chain',
          (name) => `look up email with ${name}`,
        ),
    ],
    [
      /^(?:find|get|look up|search|fetch) (?:their |the |an? )*(?:phone|mobile|number)/,
      () => refused('no lookup chain finds phone numbers: only e-mail can be looked up'),
    ],
  ],
  samples: ['look up email with "{chain}"'],

  read(row, clauses) {
    refuse(clauses, 'look up');
    const field = row.wantPath('the field to look up');
    if (!field || !row.want('with', 'look up email with "Work e-mail"')) return undefined;
    const chain = row.wantName('the lookup chain');
    return chain && { verb: 'look up', field, chain };
  },
  print: ({ field, chain }) => [`look up ${field.text} with ${quote(chain.text)}`],
  check({ field, chain }, way, check, say) {
    oneOf(field, [emailPath(check.about)], 'what can be looked up', say);
    exists(
      chain,
      check.library.chains.map((entry) => entry.name),
      'lookup chain',
      say,
    );
    way.ensured.set(field.text, true);
  },
  result: () => undefined,
  say: ({ field, chain }, fields) => [deed('Look up'), value(fieldWords(field.text, fields)), plain('with'), named(chain, 'chain')],
  json: () => z.strictObject({ verb: z.literal('look up'), field: shapes.name, chain: shapes.name }),
  compiles: () => ({}),
  weighs: LETS_PASS,
  finds({ field }) {
    const path = `person.${field.text.split('.').at(-1) ?? ''}`;
    return { needs: ['person.name', 'company.name', 'company.website', path], fills: [path] };
  },
};
