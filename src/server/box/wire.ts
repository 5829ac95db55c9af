/** What goes between a process and the one that reads for it. */
import v8 from 'node:v8';
import { WorldFailure, type BoxKind } from '../ports';
import { BOX_LIMITS, type BoxLimit } from './limits';
import { TASKS } from './tasks';

export interface BoxJob {
  readonly id: number;
  readonly kind: BoxKind;
  readonly input: unknown;
}
export type BoxAnswer =
  | { readonly id: number; readonly out: Uint8Array }
  | { readonly id: number; readonly code: WorldFailure['code']; readonly message: string };

/** The result as bytes; throws when it is more than may come back. */
export function v8Bytes(out: unknown, limit: BoxLimit): Uint8Array {
  const bytes = v8.serialize(out);
  if (bytes.length > limit.outBytes)
    throw new WorldFailure(
      'too large',
      `this ${limit.thing} holds more than can be read (${Math.round(limit.outBytes / 1024 / 1024)} MB)`,
      false,
    );
  return bytes;
}

/** Does one job, in the reading process. Never throws. */
export async function answerJob({ id, kind, input }: BoxJob): Promise<BoxAnswer> {
  const limit = BOX_LIMITS[kind];
  try {
    return { id, out: v8Bytes(await (TASKS[kind] as (input: unknown) => unknown)(input), limit) };
  } catch (error) {
    if (error instanceof WorldFailure) return { id, code: error.code, message: error.message };
    if (error instanceof RangeError) return { id, code: 'too large', message: `this ${limit.thing} is nested deeper than can be read` };
    return { id, code: 'broken', message: `this ${limit.thing} cannot be read: it may be damaged` };
  }
}

/** A reading process that ended in the middle of its work, in words about what it read. */
export function jobFailure(kind: BoxKind, why: 'memory' | 'time' | 'crash'): WorldFailure {
  const { memoryMb, ms, thing } = BOX_LIMITS[kind];
  const says = {
    memory: `this ${thing} needs more memory to read than it may have (${memoryMb} MB)`,
    time: `this ${thing} takes longer to read than it may (${ms / 1000} seconds)`,
    crash: `this ${thing} breaks what reads it`,
  };
  return new WorldFailure('too large', says[why], false);
}
