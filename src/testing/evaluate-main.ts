/** `evaluate-main.ts [WEB_FOLDER KEY_FILE]`: the reader's table, by question and by type of answer, and every answer that is not right. */
import path from 'node:path';
import { evaluate, figuresOf, type Judged } from './evaluate';

const demo = path.resolve(import.meta.dirname, '../../demo');
const judged = evaluate(process.argv[2] ?? path.join(demo, 'web'), process.argv[3] ?? path.join(demo, 'answers.json'));
const say = (line: string): void => {
  process.stdout.write(`${line}\n`);
};
const share = (value: number): string => `${(value * 100).toFixed(1)} %`;

function table(title: string, by: (entry: Judged) => string): void {
  const rows = [...new Set(judged.map(by))].map((name) => [name, figuresOf(judged.filter((entry) => by(entry) === name))] as const);
  say(`\n${title.padEnd(18)}${['right', 'wrong', 'missed', 'abstained', 'precision', 'recall'].map((word) => word.padStart(11)).join('')}`);
  for (const [name, figures] of [...rows, ['all', figuresOf(judged)] as const])
    say(
      name.padEnd(18) +
        [figures.right, figures.wrong, figures.missed, figures.abstained, share(figures.precision), share(figures.recall)]
          .map((cell) => String(cell).padStart(11))
          .join(''),
    );
}

for (const { host, question, expected, answer, verdict } of judged)
  if (verdict === 'wrong' || verdict === 'missed')
    say(
      `${verdict.padEnd(7)} ${host} ${question}: ${JSON.stringify(expected)} expected, ${JSON.stringify(answer.value)} given${answer.quote === null ? '' : ` from “${answer.quote}”`}`,
    );
table('question', (entry) => entry.question);
table('type', (entry) => entry.type);
const { precision, recall } = figuresOf(judged);
say(`\n${new Set(judged.map((entry) => entry.host)).size} sites. Bars: precision 97 %, recall 85 %.`);
process.exitCode = precision >= 0.97 && recall >= 0.85 ? 0 : 1;
