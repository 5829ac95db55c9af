import { z } from 'zod';
import { exists, needsEmail, oneOf } from '../meaning/way';
import { asName, deed, named, plain } from '../parts/parts';
import { withThing } from '../parts/phrasing';
import { refuse } from '../tree/clauses';
import { asText, quote } from '../tree/notation';
import type { Named, Word } from '../tree/tree';
import * as shapes from './shapes';
import type { VerbOf } from './verb';
import { channelOf, isByHand } from '../../writer';
import type { Library } from '../meaning/library';

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

/** Texts that leave by themselves. */
const mails = (library: Library): readonly string[] =>
  library.templates.filter((text) => !isByHand(channelOf(text))).map((text) => text.name);

export const write: VerbOf<Write> = {
  verb: 'write',
  help: 'Composes a message from a text, with a personal line from facts. It does not leave yet.',
  begins: [['write', 'write email "', 'from a text']],
  names: [[/\bwrite email $/, mails, 'text']],
  speaks: [],
  phrases: [
    [
      /^(?:write|compose|prepare|draft|make)(?: them| to them| him| her)?(?: a| an| the)?(?: e-?mail| mail| message| text| template)*(?: called| with| from| named| using)? ?(.*)$/,
      (found, ask) => withThing(found[1], mails(ask.library), 'text', (name) => `write email ${name} as opener`),
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
    const text = check.library.templates.find((entry) => entry.name === template.text);
    if (text && isByHand(channelOf(text)))
      say(
        template,
        'wrong place',
        `${quote(text.name)} is the text of a ${channelOf(text)}, which a person does: write task ${quote(text.name)}`,
      );
    else exists(template, mails(check.library), 'text', say);
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
