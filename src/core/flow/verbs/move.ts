import { z } from 'zod';
import { exists, isDeal } from '../meaning/way';
import { deed, named, plain, value } from '../parts/parts';
import { refused, withThing } from '../parts/phrasing';
import { refuse } from '../tree/clauses';
import { quote } from '../tree/notation';
import type { Named, Word } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

export interface Move {
  readonly verb: 'move';
  readonly what: Word;
  readonly stage: Named;
}
declare module '../tree/tree' {
  interface Steps {
    readonly move: Move;
  }
}

const stagesOf = (among: readonly { readonly stages: readonly string[] }[]): readonly string[] => [
  ...new Set(among.flatMap((entry) => entry.stages)),
];

export const move: VerbOf<Move> = {
  verb: 'move',
  help: 'Moves the deal or the application to another stage.',
  begins: [['move', 'move deal to "', 'a deal to a stage']],
  names: [[/\bmove \w+ to $/, (library) => stagesOf([...library.pipelines, ...library.openings]), 'stage']],
  speaks: [],
  phrases: [
    [
      /^(?:move|put|shift) (?:the |it |this )?(?:deal )?(?:in)?to (.+)$/,
      (found, ask) =>
        ask.above.deal === undefined
          ? refused('no deal is opened above: put an open line first')
          : withThing(found[1], stagesOf(ask.library.pipelines), 'stage', (name) => `move ${ask.above.deal ?? 'deal'} to ${name}`),
    ],
  ],
  samples: ['open deal in "{pipeline}" at "{stage}" as d%\nmove d% to "{stage}"'],

  read(row, clauses) {
    refuse(clauses, 'move');
    const what = row.wantPath('the deal or application to move');
    if (!what || !row.want('to', 'move deal to "Meeting"')) return undefined;
    const stage = row.wantName('the stage');
    return stage && { verb: 'move', what, stage };
  },
  print: ({ what, stage }) => [`move ${what.text} to ${quote(stage.text)}`],
  check({ what, stage }, way, check, say) {
    check.used.add(what.text);
    if (!isDeal(what.text, way, check))
      say(what, 'unknown name', `“${what.text}” is no deal or application opened above: write open deal … as ${what.text}`);
    const isApplication = way.results.get(what.text)?.opening !== undefined;
    exists(stage, stagesOf(isApplication ? check.library.openings : check.library.pipelines), 'stage', say);
  },
  result: () => undefined,
  say: ({ what, stage }) => [deed('Move'), value(what.text), plain('to'), named(stage, 'stage')],
  json: () => z.strictObject({ verb: z.literal('move'), what: shapes.name, stage: shapes.name }),
  compiles: () => ({}),
  weighs: LETS_PASS,
};
