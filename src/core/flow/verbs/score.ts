import { z } from 'zod';
import { speaksOf } from '../../fields';
import { exists, oneOf } from '../meaning/way';
import { asName, deed, named, plain } from '../parts/parts';
import { withThing } from '../parts/phrasing';
import { refuse } from '../tree/clauses';
import { asText, quote } from '../tree/notation';
import type { Named, Word } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

export interface Score {
  readonly verb: 'score';
  readonly target: Word;
  readonly scorecard: Named;
  readonly as?: Word;
}
declare module '../tree/tree' {
  interface Steps {
    readonly score: Score;
  }
}

export const score: VerbOf<Score> = {
  verb: 'score',
  help: 'Weighs the record with a scorecard: points, band, and why.',
  begins: [['score', 'score company with "', 'with a scorecard']],
  names: [[/\bscore\b.*\bwith $/, (library) => library.scorecards.map((card) => card.name), 'scorecard']],
  speaks: [],
  phrases: [
    [
      /^(?:score|rate|grade)(?: them| it| the company| the firm| company)?(?: (?:with|by|using|against|on) (.+))?$/,
      (found, ask) =>
        withThing(
          found[1],
          ask.library.scorecards.map((card) => card.name),
          'scorecard',
          (name) => `score company with ${name} as fit`,
        ),
    ],
  ],
  samples: ['score company with "{scorecard}" as fit%'],

  read(row, clauses) {
    refuse(clauses, 'score');
    const target = row.wantPath('what to score');
    if (!target || !row.want('with', 'score company with "Ideal customer"')) return undefined;
    const scorecard = row.wantName('the scorecard');
    const as = row.asName();
    return scorecard && { verb: 'score', target, scorecard, ...(as && { as }) };
  },
  print: ({ target, scorecard, as }) => [`score ${target.text} with ${quote(scorecard.text)}${asText(as)}`],
  check({ target, scorecard }, _way, { library }, say) {
    oneOf(target, ['company', 'person'], 'what can be scored', say);
    exists(
      scorecard,
      library.scorecards.map((card) => card.name),
      'scorecard',
      say,
    );
    const card = library.scorecards.find((entry) => entry.name === scorecard.text);
    for (const field of library.fields)
      if (field.isProtected && card && speaksOf(JSON.stringify(card), field.key))
        say(scorecard, 'wrong place', `${quote(card.name)} speaks of “${field.label}”, which is protected: nobody is judged by it`);
  },
  result: ({ as }) => ({
    points: { type: 'number', label: as?.text ?? 'points' },
    band: { type: 'string', label: 'band' },
    why: { type: 'string' },
    out: { type: 'boolean' },
    weakest: { type: 'string' },
  }),
  say: ({ target, scorecard, as }) => [deed('Score'), plain(target.text), plain('with'), named(scorecard, 'scorecard'), ...asName(as)],
  json: () => z.strictObject({ verb: z.literal('score'), target: shapes.name, scorecard: shapes.name, as: shapes.as }),
  compiles: () => ({}),
  weighs: LETS_PASS,
  isMadeToBeUsed: true,
};
