import fs from 'node:fs';
import path from 'node:path';
import { z } from 'zod';
import { briefSchema, givenBrief, scoreBrief } from './documents/brief';
import { cvSchema, givenCv, scoreCv } from './documents/cv';
import { Tally } from './documents/tally';

const FOLDER = path.resolve(import.meta.dirname, '../../../evaluation/documents/work');
const key = z
  .object({ today: z.string(), cvs: z.array(cvSchema), briefs: z.array(briefSchema) })
  .parse(JSON.parse(fs.readFileSync(path.join(FOLDER, 'key.json'), 'utf8')));
const now = Date.parse(`${key.today}T10:00:00Z`);
const isText = ({ file }: { readonly file: string }): boolean => file.endsWith('.txt');
const textOf = ({ file }: { readonly file: string }): string =>
  fs.readFileSync(path.join(FOLDER, file), 'utf8').replace(/[^\S\n]{3,}/g, '\t');

test.each(key.cvs.filter(isText).map((cv) => [cv.file, cv] as const))('the CV %s is read whole, and nothing is made up', (_, cv) => {
  const tally = new Tally();
  scoreCv(cv, givenCv(cv.file, true, textOf(cv), now, []), tally);
  expect(tally.faults).toEqual([]);
});

test.each(key.briefs.map((brief) => [brief.file, brief] as const))('the brief %s is read whole, and nothing is made up', (_, brief) => {
  const tally = new Tally();
  scoreBrief(brief, givenBrief(brief.file, textOf(brief), now), tally);
  expect(tally.faults).toEqual([]);
});

test('a tally tells right, wrong, missed and made up apart', () => {
  const tally = new Tally();
  const same = (a: string, b: string): boolean => a === b;
  tally.field('name', 'a', 'Ann', 'Ann', same);
  tally.field('name', 'b', 'Ann', 'Ben', same);
  tally.field('name', 'c', 'Ann', null, same);
  tally.field('name', 'd', null, 'Ann', same);
  tally.field('name', 'e', null, null, same);
  expect(tally.lines('t').at(-1)).toBe('right of answered 33.3 % (1 of 3), right of what is there 33.3 % (1 of 3), made up 1');
  expect(tally.faults.map((fault) => fault.slice(0, 7))).toEqual(['wrong  ', 'missed ', 'made up']);
});
