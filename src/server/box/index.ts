/**
 * Reading what came from outside: documents, pages, mails, calendars, lists, archives, flow texts longer than a screen. Promises:
 * what is here runs in a process of its own with limits of memory, time and output, which knows no secret, no database and no
 * address; whatever a file does there ends as a problem of that file. Refuses: storing, asking, connecting.
 */
import { v8Bytes } from './wire';
import type { Box } from '../ports';
import { BOX_LIMITS } from './limits';
import { TASKS } from './tasks';

export { BOX_LIMITS, POOL, type BoxLimit } from './limits';
export { ARCHIVE_LIMITS } from './limits';
export { decode, pageOf } from './page';
export { readMail } from './mail';
export { answerJob, jobFailure, type BoxAnswer, type BoxJob } from './wire';

/** The same work in the process that asks, for tests and figures: without limits of memory and time. */
export const openBox: Box = {
  run: async (kind, input) => {
    const out = await TASKS[kind](input);
    v8Bytes(out, BOX_LIMITS[kind]);
    return out;
  },
  close: async () => undefined,
};
