import { z } from 'zod';
import { ASKABLE_ROLES } from '../meaning/known';
import { exists, feel, oneOf } from '../meaning/way';
import { deed, formula, named, plain, value } from '../parts/parts';
import { original, reading, refused, withThing, type Ask, type PhraseReading } from '../parts/phrasing';
import type { Cursor } from '../tree/cursor';
import { feelText, quote } from '../tree/notation';
import type { Expr, Named, Word } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

/** Whom a line speaks to: a role as a bare word, else a person, a team or a webhook by name. */
export type Addressee = { readonly kind: 'role'; readonly name: Word } | { readonly kind: 'named'; readonly name: Named };

export interface Tell {
  readonly verb: 'tell';
  readonly who: Addressee;
  readonly byEmail: boolean;
  readonly text: Expr;
  /** the result of a `prepare` line that goes along */
  readonly paper?: Word;
}
declare module '../tree/tree' {
  interface Steps {
    readonly tell: Tell;
  }
}

/** Whose record it is, not whose workspace. */
export const ITS_OWNER = 'its owner';

export const tell: VerbOf<Tell> = {
  verb: 'tell',
  help: 'Tells a colleague, a team or a webhook; nothing waits for it.',
  begins: [
    ['tell', 'tell owner "', 'a colleague'],
    ['tell its owner', 'tell its owner "', 'whose record it is'],
  ],
  names: [[/^tell $/, (library) => [...library.people, ...library.teams, ...library.webhooks], 'person, team or webhook']],
  speaks: [/^tell (?:\w+|"[^"]*")(?: by email)? /],
  phrases: [
    [/^(?:tell|notify|inform|let|warn) (.+?)(?: know)?(?: that|:| about it:?) (.+)$/, tellSomebody],
    [/^(?:tell|notify|inform) ("[^"]+"|\S+)$/, () => refused('say what to tell them: tell owner "…"')],
  ],
  samples: [
    'tell owner by email "Look at " + name',
    'tell its owner "Look at " + name',
    'tell "{person}" "not sure about " + name',
    'prepare "Dossier" as t%\ntell owner by email "About " + name\n  with t%',
  ],

  read(row, clauses) {
    let paper: Word | undefined;
    for (const clause of clauses) {
      if (clause.take('with')) {
        paper = clause.wantPath('the document that goes along');
        clause.end();
      } else clause.say('below “tell” only with … may stand', clause.row);
    }
    const who = readAddressee(row);
    if (!who) return undefined;
    const byEmail = row.take('by', 'email') !== undefined;
    const text = row.wantFeel('what to tell them');
    return text && { verb: 'tell', who, byEmail, text, ...(paper && { paper }) };
  },
  print: ({ who, byEmail, text, paper }) => [
    `tell ${who.kind === 'role' ? who.name.text : quote(who.name.text)}${byEmail ? ' by email' : ''} ${feelText(text)}`,
    ...(paper ? [`with ${paper.text}`] : []),
  ],
  check({ who, byEmail, text, paper }, way, check, say) {
    feel(text, 'string', way, check, say);
    if (paper) {
      check.used.add(paper.text);
      if (way.results.get(paper.text)?.address === undefined)
        say(paper, 'unknown name', `“${paper.text}” is no document prepared above: write prepare "Dossier" as ${paper.text}`);
      else if (!byEmail) say(paper, 'wrong place', 'a document goes along by e-mail: write tell … by email');
    }
    if (who.kind === 'role') {
      oneOf(who.name, [...ASKABLE_ROLES, ITS_OWNER], 'whom to tell', say);
      return;
    }
    const { people, teams, webhooks } = check.library;
    exists(who.name, [...people, ...teams, ...webhooks], 'person, team or webhook', say);
    if (byEmail && webhooks.includes(who.name.text)) say(who.name, 'wrong place', 'a webhook is told by webhook, not by email');
  },
  result: () => undefined,
  say: ({ who, byEmail, text, paper }, fields) => [
    deed('Tell'),
    who.kind === 'role' ? value(who.name.text) : named(who.name, 'addressee'),
    ...(byEmail ? [plain('by e-mail')] : []),
    formula(text, fields),
    ...(paper ? [plain('with'), value(paper.text)] : []),
  ],
  json: () =>
    z.strictObject({
      verb: z.literal('tell'),
      who: z.strictObject({ kind: z.enum(['role', 'named']), name: shapes.name }),
      byEmail: z.boolean(),
      text: shapes.feel,
      paper: shapes.name.optional(),
    }),
  compiles: ({ text }) => ({ own: text }),
  weighs: LETS_PASS,
  speaksForMany: true,
};

function readAddressee(row: Cursor): Addressee | undefined {
  if (row.peek()?.kind === 'String') {
    const name = row.wantName('a person, a team or a webhook');
    return name && { kind: 'named', name };
  }
  const its = row.take('its', 'owner');
  if (its) return { kind: 'role', name: { from: its.from, to: its.to, text: ITS_OWNER } };
  const name = row.wantPath('whom to tell (owner, its owner, or a name in quotes)');
  return name && { kind: 'role', name };
}

function tellSomebody(found: RegExpExecArray, ask: Ask): PhraseReading {
  const text = original(found[2] ?? '', ask);
  const who = original(found[1] ?? '', ask).replace(/^the /, '');
  if ((ASKABLE_ROLES as readonly string[]).includes(who.toLowerCase())) return reading(`tell ${who.toLowerCase()} ${quote(text)}`);
  const { people, teams, webhooks } = ask.library;
  return withThing(who, [...people, ...teams, ...webhooks], 'person, team or webhook', (name) => `tell ${name} ${quote(text)}`);
}
