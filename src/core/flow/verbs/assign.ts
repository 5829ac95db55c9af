import { z } from 'zod';
import { exists, isDeal } from '../meaning/way';
import { deed, named, plain } from '../parts/parts';
import { withThing } from '../parts/phrasing';
import { refuse } from '../tree/clauses';
import { quote } from '../tree/notation';
import type { Named, Word } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

export interface Assign {
  readonly verb: 'assign';
  readonly what?: Word;
  readonly team: Named;
}
declare module '../tree/tree' {
  interface Steps {
    readonly assign: Assign;
  }
}

export const assign: VerbOf<Assign> = {
  verb: 'assign',
  help: 'Gives the person or the deal to a member of a team, in turn.',
  begins: [['assign', 'assign in turn among "', 'a team']],
  names: [[/\bamong $/, (library) => library.teams, 'team']],
  speaks: [],
  phrases: [
    [
      /^(?:assign|give|hand|share out|distribute)(?: it| them| the deal| the person| the lead)?(?: in turn| by turns| evenly)?(?: to| among| between)+ (?:the )?(?:team )?(.+?)(?: in turn| by turns| one after the other)?$/,
      (found, ask) =>
        withThing(
          found[1],
          ask.library.teams,
          'team',
          (name) => `assign ${ask.above.deal === undefined ? '' : `${ask.above.deal} `}in turn among ${name}`,
        ),
    ],
  ],
  samples: ['assign in turn among "{team}"'],

  read(row, clauses) {
    refuse(clauses, 'assign');
    const what = row.peek()?.text === 'in' ? undefined : row.wantPath('what to assign');
    if (!row.want('in', 'assign in turn among "north"') || !row.want('turn', 'in turn') || !row.want('among', 'among "north"'))
      return undefined;
    const team = row.wantName('the team');
    return team && { verb: 'assign', team, ...(what && { what }) };
  },
  print: ({ what, team }) => [`assign ${what ? `${what.text} ` : ''}in turn among ${quote(team.text)}`],
  check({ what, team }, way, check, say) {
    exists(team, check.library.teams, 'team', say);
    if (!what) return;
    check.used.add(what.text);
    if (what.text !== 'person' && !isDeal(what.text, way, check))
      say(what, 'unknown name', `“${what.text}” is no deal or application opened above: write open deal … as ${what.text}`);
  },
  result: () => undefined,
  say: ({ what, team }) => [deed('Assign'), plain(what ? `${what.text} in turn among` : 'in turn among'), named(team, 'team')],
  json: () => z.strictObject({ verb: z.literal('assign'), what: shapes.name.optional(), team: shapes.name }),
  compiles: () => ({}),
  weighs: LETS_PASS,
};
