/** Papers as they come, against a key: `npm run evaluate -- documents FOLDER KEY [--answers FILE]`. */
import fs from 'node:fs';
import path from 'node:path';
import { z } from 'zod';
import { fileKind } from '../../../core/intake';
import { openBox } from '../../../server/box';
import { documentText } from '../../../server/intake/document-text';
import { WorldFailure, type DocumentText } from '../../../server/ports';
import { textOf } from '../../../server/intake/entry-files';
import { briefSchema, givenBrief, scoreBrief } from './brief';
import { callSchema, givenCall, scoreCall } from './call';
import { keyFor, cvSchema, givenCv, scoreCv } from './cv';
import { Tally } from './tally';

const keySchema = z.object({
  today: z.string(),
  cvs: z.array(cvSchema).default([]),
  briefs: z.array(briefSchema).default([]),
  calls: z.array(callSchema).default([]),
});

export interface ReadFile {
  readonly text: string;
  readonly readable: boolean;
  readonly hidden: DocumentText['hidden'];
  readonly says: string;
}

async function readFile(file: string): Promise<ReadFile> {
  const bytes = fs.readFileSync(file);
  const kind = fileKind(bytes) ?? 'text';
  try {
    const read = await documentText(openBox, kind, bytes);
    return { text: textOf(read), readable: read.blocks.length > 0, hidden: read.hidden, says: read.says };
  } catch (error) {
    if (!(error instanceof WorldFailure)) throw error;
    return { text: '', readable: false, hidden: [], says: error.message };
  }
}

/** Prints what is right, wrong, missed and made up, and names each fault. */
export async function evaluateDocuments(folder: string, keyFile: string, answersFile: string | undefined): Promise<readonly string[]> {
  const key = keySchema.parse(JSON.parse(fs.readFileSync(keyFile, 'utf8')));
  const now = Date.parse(`${key.today}T10:00:00Z`);
  const say: string[] = [];
  const answers: Record<string, unknown> = { today: key.today };
  if (key.cvs.length > 0) {
    const tally = new Tally();
    const given: unknown[] = [];
    for (const cv of key.cvs) {
      const { text, readable, hidden } = await readFile(path.join(folder, cv.file));
      const is = givenCv(cv.file, readable, text, now, hidden);
      given.push(is);
      scoreCv(keyFor(cv, readable), is, tally);
    }
    answers['cvs'] = given;
    say.push(...tally.faults, ...tally.lines('CVs'));
  }
  if (key.briefs.length > 0) {
    const tally = new Tally();
    const given: unknown[] = [];
    for (const brief of key.briefs) {
      const { text } = await readFile(path.join(folder, brief.file));
      const is = givenBrief(brief.file, text, now);
      given.push(is);
      scoreBrief(brief, is, tally);
    }
    answers['briefs'] = given;
    say.push(...tally.faults, ...tally.lines('Briefs'));
  }
  if (key.calls.length > 0) {
    const tally = new Tally();
    const given: unknown[] = [];
    for (const call of key.calls) {
      const { text } = await readFile(path.join(folder, call.file));
      const is = givenCall(call.file, text, now);
      given.push(is);
      scoreCall(call, is, tally);
    }
    answers['calls'] = given;
    say.push(...tally.faults, ...tally.lines('Calls'));
  }
  if (answersFile !== undefined) fs.writeFileSync(answersFile, `${JSON.stringify(answers, null, 2)}\n`);
  return say;
}
