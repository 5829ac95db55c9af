/**
 * Reading what came from outside: documents, pages, mails, calendars, lists, archives, flow texts longer than a screen. Promises:
 * what is here runs in a process of its own with limits of memory, time and output, which knows no secret, no database and no
 * address; whatever a file does there ends as a problem of that file. Refuses: storing, asking, connecting.
 */
import { v8Bytes } from './wire';
import { WorldFailure, type Box, type DocumentText } from '../ports';
import { BOX_LIMITS } from './limits';
import { TASKS } from './tasks';

export { BOX_LIMITS, POOL, type BoxLimit } from './limits';
export { ARCHIVE_LIMITS } from './limits';
export { decode, pageOf } from './page';
export { readMail } from './mail';
export { answerJob, jobFailure, type BoxAnswer, type BoxJob } from './wire';

/** A document as text; of a scan the letters are recognised, and where they cannot be, it says so. */
export async function documentText(box: Pick<Box, 'run'>, kind: 'pdf' | 'docx' | 'text', bytes: Uint8Array): Promise<DocumentText> {
  const read = await box.run('document', { kind, bytes });
  if (!read.isScan) return read;
  try {
    return { ...(await box.run('scan', { bytes })), hidden: read.hidden };
  } catch (error) {
    if (!(error instanceof WorldFailure)) throw error;
    return { ...read, says: `${read.says}; ${error.message}` };
  }
}

/** The same work in the process that asks, for tests and figures: without limits of memory and time. */
export const openBox: Box = {
  run: async (kind, input) => {
    const out = await TASKS[kind](input);
    v8Bytes(out, BOX_LIMITS[kind]);
    return out;
  },
  close: async () => undefined,
};
