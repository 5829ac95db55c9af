import { z } from 'zod';
import { exists, needsEmail, oneOf } from '../meaning/way';
import { asName, deed, named, plain } from '../parts/parts';
import { withThing } from '../parts/phrasing';
import { refuse } from '../tree/clauses';
import { asText, quote } from '../tree/notation';
import type { Named, Word } from '../tree/tree';
import * as shapes from './shapes';
import type { VerbOf } from './verb';

export interface Write {
  readonly verb: 'write';
  readonly channel: Word;
  readonly template: Named;
  readonly as?: Word;
}
declare module '../tree/tree' {
  interface Steps {
    readonly write: Write;
  }
}

export const write: VerbOf<Write> = {
  verb: 'write',
  help: 'Composes a message from a text, with a personal line from facts. It does not leave yet.',
  begins: [['write', 'write email "', 'from a text']],
  names: [[/\bwrite email $/, (library) => library.templates.map((template) => template.name), 'text']],
  speaks: [],
  phrases: [
    [
      /^(?:write|compose|prepare|draft|make)(?: them| to them| him| her)?(?: a| an| the)?(?: e-?mail| mail| message| text| template)*(?: called| with| from| named| using)? ?(.*)$/,
      (found, ask) =>
        withThing(
          found[1],
          ask.library.templates.map((template) => template.name),
          'text',
          (name) => `write email ${name} as opener`,
        ),
    ],
  ],
  samples: ['write email "{text}" as m%'],

  read(row, clauses) {
    refuse(clauses, 'write');
    const channel = row.wantPath('the channel (email)');
    const template = channel && row.wantName('the text');
    const as = row.asName();
    return channel && template && { verb: 'write', channel, template, ...(as && { as }) };
  },
  print: ({ channel, template, as }) => [`write ${channel.text} ${quote(template.text)}${asText(as)}`],
  check({ channel, template, as }, way, check, say, line) {
    if (as) way.writtenFrom.set(as.text, template.text);
    oneOf(channel, ['email'], 'a channel', say);
    exists(
      template,
      check.library.templates.map((entry) => entry.name),
      'text',
      say,
    );
    needsEmail(channel, way, check, say, line);
  },
  result: () => ({ subject: { type: 'string' }, body: { type: 'string' } }),
  say: ({ channel, template, as }) => [
    deed('Write'),
    plain(channel.text === 'email' ? 'e-mail' : channel.text),
    named(template, 'template'),
    ...asName(as),
  ],
  json: () => z.strictObject({ verb: z.literal('write'), channel: shapes.name, template: shapes.name, as: shapes.as }),
  compiles: () => ({}),
  weighs: { loses: 'few', isGuess: true },
  isMadeToBeUsed: true,
};
