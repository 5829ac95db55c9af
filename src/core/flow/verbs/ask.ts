import { z } from 'zod';
import { printDuration } from '../../base';
import { ASKABLE_ROLES } from '../meaning/known';
import { exists, oneOf } from '../meaning/way';
import { deed, length, named, plain, value } from '../parts/parts';
import { message, NO_MESSAGE, SPAN, span, withThing, type Ask as Asked, type PhraseReading } from '../parts/phrasing';
import type { Cursor } from '../tree/cursor';
import { quote } from '../tree/notation';
import type { Named, Wait, Word } from '../tree/tree';
import * as shapes from './shapes';
import type { VerbOf } from './verb';

export interface Ask {
  readonly verb: 'ask';
  readonly who: Named;
  readonly message: Word;
  readonly within?: Wait;
  readonly otherwise?:
    { readonly does: 'stop'; readonly text: Named } | { readonly does: 'tell'; readonly who: Word; readonly text: Named };
}
declare module '../tree/tree' {
  interface Steps {
    readonly ask: Ask;
  }
}

export const ask: VerbOf<Ask> = {
  verb: 'ask',
  help: 'Waits for a person to approve the message, change it, or refuse it.',
  begins: [['ask', 'ask "', 'a person']],
  names: [[/\bask $/, (library) => [...library.teams, ...ASKABLE_ROLES], 'team or role']],
  speaks: [],
  phrases: [
    [
      /^(?:have|let|get) (?:the )?(?:team )?(.+?) (?:approve|check|look at|look over|confirm)(?: it| the mail| the message| the e-?mail)?(?: within (.+))?$/,
      askApproval,
    ],
    [
      /^ask (?:the )?(?:team )?(.+?) (?:for approval|to check|to look at it|to approve(?: it)?|whether it is good)(?: within (.+))?$/,
      askApproval,
    ],
  ],
  samples: ['write email "{text}" as a%\nask "{team}" to approve a% within 2 days\n  otherwise tell owner "late"'],

  read(row, clauses) {
    const who = row.wantName('a team or a role');
    if (!who || !row.want('to', 'ask "north" to approve opener') || !row.want('approve', 'ask "north" to approve opener')) return undefined;
    const about = row.wantPath('the message to approve');
    if (!about) return undefined;
    let extra: Pick<Ask, 'within' | 'otherwise'> = {};
    for (const clause of [row, ...clauses]) {
      if (clause.take('within')) {
        const within = clause.wantDuration();
        if (within) extra = { ...extra, within };
      }
      if (clause.take('otherwise')) extra = { ...extra, ...readOtherwise(clause) };
      if (clause !== row) clause.end();
    }
    return { verb: 'ask', who, message: about, ...extra };
  },
  print: ({ who, message: about, within, otherwise }) => [
    `ask ${quote(who.text)} to approve ${about.text}${within ? ` within ${printDuration(within.duration)}` : ''}`,
    ...(otherwise
      ? [
          otherwise.does === 'stop'
            ? `otherwise stop ${quote(otherwise.text.text)}`
            : `otherwise tell ${otherwise.who.text} ${quote(otherwise.text.text)}`,
        ]
      : []),
  ],
  check(step, way, check, say) {
    way.sentJustNow = false;
    exists(step.who, [...check.library.teams, ...ASKABLE_ROLES], 'team or role', say);
    check.used.add(step.message.text);
    way.asked.set(step.message.text, true);
    if (!way.results.get(step.message.text)?.body)
      say(step.message, 'unknown name', `“${step.message.text}” is not a message written above: write email "…" as ${step.message.text}`);
    if (step.otherwise?.does === 'tell') oneOf(step.otherwise.who, ASKABLE_ROLES, 'whom to tell', say);
    if (step.otherwise && !step.within) say(step.otherwise.text, 'wrong place', '“otherwise” needs a limit: within 2 days');
  },
  result: () => undefined,
  say: ({ who, message: about, within, otherwise }) => [
    deed('Ask'),
    named(who, 'who'),
    plain('to approve'),
    value(about.text),
    ...(within ? [plain('within'), length(within)] : []),
    ...(otherwise ? [plain(otherwise.does === 'stop' ? '· else stop' : `· else tell ${otherwise.who.text}`)] : []),
  ],
  json: () =>
    z.strictObject({
      verb: z.literal('ask'),
      who: shapes.name,
      message: shapes.name,
      within: shapes.span.optional(),
      otherwise: z
        .discriminatedUnion('does', [
          z.strictObject({ does: z.literal('stop'), text: z.string() }),
          z.strictObject({ does: z.literal('tell'), who: shapes.name, text: z.string() }),
        ])
        .optional(),
    }),
  compiles: () => ({}),
  weighs: { loses: 'few', isGuess: true },
};

/** `stop "nobody looked"`, or `tell owner "an approval is overdue"` */
function readOtherwise(clause: Cursor): Pick<Ask, 'otherwise'> {
  if (clause.take('stop')) {
    const text = clause.wantName('the reason');
    return text ? { otherwise: { does: 'stop', text } } : {};
  }
  if (clause.take('tell')) {
    const who = clause.wantPath('whom to tell');
    const text = clause.wantName('what to tell them');
    return who && text ? { otherwise: { does: 'tell', who, text } } : {};
  }
  clause.say('write otherwise tell owner "…", or otherwise stop "…"');
  return {};
}

function askApproval(found: RegExpExecArray, asked: Asked): PhraseReading {
  const name = message(asked);
  if (name === undefined) return NO_MESSAGE;
  const limit = found[2] === undefined ? '' : ` within ${spanOf(found[2])}`;
  return withThing(found[1], [...asked.library.teams, ...ASKABLE_ROLES], 'team or role', (who) => `ask ${who} to approve ${name}${limit}`);
}
function spanOf(said: string): string {
  const found = new RegExp(`^${SPAN}$`).exec(said.trim());
  return found ? span(found[1], found[2]) : '2 days';
}
