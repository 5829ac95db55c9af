/** Sayings by kind, each a whole answer: `npm run evaluate -- sayings FOLDER`. Lines of text files below the `# kind` they are of. */
import fs from 'node:fs';
import path from 'node:path';
import { OBJECTIONS } from '../../core/answers';
import { consequenceOf, understandReply } from '../../core/reply';

export interface Said {
  /** a kind of answer, or what is objected to: `objection price` */
  readonly saying: string;
  readonly text: string;
}

export function readSayings(folder: string): readonly Said[] {
  return fs
    .readdirSync(folder)
    .filter((name) => name.endsWith('.txt'))
    .sort()
    .flatMap((name) => {
      let saying = '';
      const lines = fs.readFileSync(path.join(folder, name), 'utf8').split('\n');
      return lines.flatMap((line): readonly Said[] => {
        const head = /^# (.+)$/.exec(line)?.[1];
        if (head !== undefined) saying = OBJECTIONS.some((objection) => objection === head) ? `objection ${head}` : head;
        return head !== undefined || line.trim() === '' ? [] : [{ saying, text: line.trim() }];
      });
    });
}

/** What each is understood as, on a day of the demo. */
export function understood({ text }: Said): { readonly saying: string; readonly goesOn: boolean } {
  const { kind, objection } = understandReply({ subject: 'Re: ', text, at: Date.parse('2026-11-24T09:00:00Z'), autoSubmitted: false });
  return { saying: objection === null ? kind : `objection ${objection}`, goesOn: consequenceOf(kind).plan !== 'stop' };
}

/** Answers after which nothing may go on. */
export const STOPPING: ReadonlySet<string> = new Set(['unsubscribe', 'angry', 'decline']);

export function evaluateSayings(folder: string): readonly string[] {
  const said = readSayings(folder);
  const is = said.map(understood);
  const count = (test: (i: number) => boolean): number => said.filter((_, i) => test(i)).length;
  const right = (i: number): boolean => is[i]?.saying === said[i]?.saying;
  const line = (name: string, n: number): string =>
    `${name.padEnd(26)}${String(n).padStart(5)} of ${said.length}  ${((n / Math.max(1, said.length)) * 100).toFixed(1).padStart(5)} %`;
  return [
    ...said.flatMap((entry, i) => (right(i) ? [] : [`${entry.saying} expected, ${is[i]?.saying ?? ''} given: ${entry.text}`])),
    line('right', count(right)),
    line(
      'unclear',
      count((i) => is[i]?.saying === 'unclear' && !right(i)),
    ),
    line(
      'wrong',
      count((i) => is[i]?.saying !== 'unclear' && !right(i)),
    ),
    line(
      'stops that would go on',
      count((i) => STOPPING.has(said[i]?.saying ?? '') && is[i]?.goesOn === true),
    ),
  ];
}
