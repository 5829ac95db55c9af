/** Drafted answers against a key made by people: `npm run evaluate -- answers BOOK`. */
import fs from 'node:fs';
import { z } from 'zod';
import { agreedAnswerSchema, draftReply, statementSchema } from '../../core/answers';

const bookSchema = z.object({
  answers: z.array(agreedAnswerSchema),
  statements: z.array(statementSchema),
  questions: z.array(z.object({ asks: z.string(), by: z.string().nullable(), aside: z.boolean().default(false) })),
});
type Question = z.output<typeof bookSchema>['questions'][number];

export interface AnswerFigures {
  readonly of: number;
  /** answered by what the key names, or rightly by nothing */
  readonly right: number;
  /** the material answers it, and the draft does not */
  readonly leftOut: number;
  /** answered by something else */
  readonly wrong: number;
  /** sentences that neither a fact, a statement nor an agreed answer holds */
  readonly loose: number;
  readonly faults: readonly string[];
}

/** What drafts make of each question of a book. */
export function judgeBook(file: string, which: (question: Question) => boolean): AnswerFigures {
  const book = bookSchema.parse(JSON.parse(fs.readFileSync(file, 'utf8')));
  const figures = { of: 0, right: 0, leftOut: 0, wrong: 0, loose: 0, faults: [] as string[] };
  for (const { asks, by } of book.questions.filter(which)) {
    const draft = draftReply({
      words: asks,
      reading: { kind: 'question', objection: null, quote: null },
      answers: book.answers,
      statements: book.statements,
      language: null,
      scope: { first_name: 'Ada', sender: { name: 'Ben' } },
      facts: [],
      fields: [],
      recipient: { name: 'Ada', reach: 'ada@laundry.example' },
      doNotContact: false,
    });
    const taken = draft.taken[0]?.by ?? null;
    const given = taken === null ? null : taken.kind === 'agreed' ? taken.name : taken.id;
    figures.of += 1;
    figures.loose += draft.sentences.filter((sentence) => sentence.loose !== null).length;
    if (given === by) figures.right += 1;
    else {
      figures[given === null ? 'leftOut' : 'wrong'] += 1;
      figures.faults.push(`${asks} → ${given ?? 'a colleague'}, not ${by ?? 'a colleague'}`);
    }
  }
  return figures;
}

/** Prints the figures of what was developed on and of what was kept aside; false when a sentence was held by nothing. */
export function evaluateAnswers(args: readonly string[], say: (line: string) => void): boolean {
  const [file = 'evaluation/answers/book.json', all] = args;
  const share = (n: number, of: number): string => `${((n / Math.max(1, of)) * 100).toFixed(1)} %`;
  let held = true;
  for (const aside of [false, true]) {
    if (aside && all !== 'aside') continue;
    const { of, right, leftOut, wrong, loose, faults } = judgeBook(file, (question) => question.aside === aside);
    if (of === 0) continue;
    held &&= loose === 0;
    say(
      `${aside ? 'kept aside' : 'developed on'}: ${of} questions, right ${share(right, of)}, left out ${share(leftOut, of)}, answered wrongly ${share(wrong, of)}, sentences held by nothing ${loose}`,
    );
    if (!aside) for (const fault of faults) say(`  ${fault}`);
  }
  return held;
}
