/**
 * `main.ts`: the demo's questions before the demo's sites. `main.ts trades`: every trade read with what was learnt from all others.
 * `main.ts answers [BOOK [aside]]`: answers drafted from a book.
 * `main.ts sayings FOLDER`: answers of a line each, by kind.
 * `main.ts FOLDER KEY [--answers FILE]`: any folder of sites, cold, worded and taught; the answers of the last step that differs.
 */
import fs from 'node:fs';
import { MODEL } from '../../core/reader/learning';
import { evaluateAnswers } from './answers';
import { evaluateDocuments } from './documents';
import { readKeys } from './key';
import { evaluateLists } from './lists';
import { evaluateMail } from './mail';
import { figuresOf, judge, leaveOneOut, readSites, STEPS, type Judged } from './run';
import { evaluateSayings } from './sayings';
import { demoSites, trainingSets } from './sets';

const say = (line: string): void => {
  process.stdout.write(`${line}\n`);
};
const share = (value: number): string => `${(value * 100).toFixed(1)} %`;
const WIDTH = 26;
const head = (title: string): void =>
  say(
    `\n${title.padEnd(WIDTH)}${['right', 'wrong', 'missed', 'abstained', 'precision', 'recall'].map((word) => word.padStart(11)).join('')}`,
  );

function row(name: string, judged: readonly Judged[]): void {
  const { right, wrong, missed, abstained, precision, recall } = figuresOf(judged);
  say(
    name.padEnd(WIDTH) +
      [right, wrong, missed, abstained, share(precision), share(recall)].map((cell) => String(cell).padStart(11)).join(''),
  );
}

function table(title: string, judged: readonly Judged[], by: (entry: Judged) => string): void {
  head(title);
  for (const name of new Set(judged.map(by)))
    row(
      name,
      judged.filter((entry) => by(entry) === name),
    );
  row('all', judged);
}

/** Of the answers given at each tenth of confidence, how many are right. */
function reliability(judged: readonly Judged[]): void {
  say(`\n${'confidence'.padEnd(WIDTH)}${['answers', 'right'].map((word) => word.padStart(11)).join('')}`);
  for (let tenth = 0; tenth < 10; tenth++) {
    const within = judged.filter(({ answer }) => answer.found && Math.min(9, Math.floor(answer.confidence * 10)) === tenth);
    if (within.length === 0) continue;
    const right = within.filter(({ verdict }) => verdict === 'right').length;
    say(
      `${`${(tenth / 10).toFixed(1)} to ${((tenth + 1) / 10).toFixed(1)}`.padEnd(WIDTH)}${String(within.length).padStart(11)}${share(right / within.length).padStart(11)}`,
    );
  }
}

function faults(judged: readonly Judged[]): void {
  for (const { host, question, expected, answer, verdict } of judged)
    if (verdict === 'wrong' || verdict === 'missed')
      say(
        `${verdict.padEnd(7)} ${host} ${question}: ${JSON.stringify(expected.value)} expected, ${JSON.stringify(answer.value)} given${answer.quote === null ? '' : ` from “${answer.quote}”`}`,
      );
}

const [first, second, flag, file] = process.argv.slice(2);
if (first === 'mail') {
  const [, folder, key, option, answers] = process.argv.slice(2);
  if (folder === undefined || key === undefined) throw new Error('say FOLDER and KEY: the folder of the mails and the file of the key');
  for (const line of await evaluateMail(folder, key, option === '--answers' ? answers : undefined)) say(line);
} else if (first === 'sayings') {
  for (const line of evaluateSayings(second ?? 'evaluation/sayings')) say(line);
} else if (first === 'answers') {
  if (!evaluateAnswers(process.argv.slice(3), say)) process.exitCode = 1;
} else if (first === 'lists') {
  const [, folder, key, option, answers] = process.argv.slice(2);
  if (folder === undefined || key === undefined) throw new Error('say FOLDER and KEY: the folder of the lists and the file of the key');
  for (const line of evaluateLists(folder, key, option === '--answers' ? answers : undefined)) say(line);
} else if (first === 'documents') {
  const [, folder, key, option, answers] = process.argv.slice(2);
  if (folder === undefined || key === undefined) throw new Error('say FOLDER and KEY: the folder of the papers and the file of the key');
  for (const line of await evaluateDocuments(folder, key, option === '--answers' ? answers : undefined)) say(line);
} else if (first === 'trades') {
  const judged = leaveOneOut(trainingSets());
  for (const step of STEPS)
    table(
      `${step}, trade left out`,
      judged.filter((entry) => entry.step === step),
      (entry) => entry.trade,
    );
  table(
    'worded, by form',
    judged.filter((entry) => entry.step === 'worded'),
    (entry) => entry.form,
  );
  reliability(judged);
} else if (first === undefined) {
  const judged = judge(demoSites(), MODEL, ['worded']);
  faults(judged);
  table('question', judged, (entry) => entry.question);
  table('form', judged, (entry) => entry.form);
  reliability(judged);
  const { precision, recall } = figuresOf(judged);
  say(`\n${new Set(judged.map((entry) => entry.host)).size} sites. Bars: precision 97 %, recall 90 %.`);
  process.exitCode = precision >= 0.97 && recall >= 0.9 ? 0 : 1;
} else {
  if (second === undefined) throw new Error('say FOLDER and KEY: the folder of the sites and the file of the key');
  const judged = readKeys(second).flatMap((key) => judge(readSites(key, first), MODEL));
  for (const step of STEPS) {
    const of = judged.filter((entry) => entry.step === step);
    if (step === STEPS.at(-1)) faults(of);
    table(step, of, (entry) => entry.question);
  }
  reliability(judged);
  if (flag === '--answers' && file !== undefined) {
    const answers: Record<string, Record<string, Record<string, unknown>>> = {};
    for (const entry of judged) ((answers[entry.step] ??= {})[entry.host] ??= {})[entry.question] = entry.answer.value;
    const last = STEPS.at(-1) ?? 'taught';
    fs.writeFileSync(file, `${JSON.stringify(answers[last] ?? {}, null, 2)}\n`);
  }
}
