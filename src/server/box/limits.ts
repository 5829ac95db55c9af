import type { BoxKind } from '../ports';

/** What one reading of something from outside may cost, by kind. `docs/security.md` says how to set them. */
export interface BoxLimit {
  /** resident memory of the process that reads */
  readonly memoryMb: number;
  readonly ms: number;
  /** what it may give back, serialised */
  readonly outBytes: number;
  /** how the thing is called in the words of a problem */
  readonly thing: string;
}

const MB = 1024 * 1024;

export const BOX_LIMITS = {
  document: { memoryMb: 384, ms: 20_000, outBytes: 2 * MB, thing: 'document' },
  scan: { memoryMb: 900, ms: 180_000, outBytes: 2 * MB, thing: 'scan' },
  page: { memoryMb: 256, ms: 5_000, outBytes: 2 * MB, thing: 'page' },
  mail: { memoryMb: 320, ms: 15_000, outBytes: 24 * MB, thing: 'mail' },
  calendar: { memoryMb: 256, ms: 8_000, outBytes: 4 * MB, thing: 'calendar' },
  'calendar answer': { memoryMb: 256, ms: 8_000, outBytes: 12 * MB, thing: 'answer of the calendar' },
  list: { memoryMb: 448, ms: 120_000, outBytes: 1 * MB, thing: 'list' },
  flow: { memoryMb: 384, ms: 10_000, outBytes: 8 * MB, thing: 'flow text' },
  draft: { memoryMb: 384, ms: 15_000, outBytes: 16 * MB, thing: 'flow text' },
  tried: { memoryMb: 448, ms: 30_000, outBytes: 4 * MB, thing: 'question' },
  bundle: { memoryMb: 256, ms: 5_000, outBytes: 10 * MB, thing: 'bundle' },
} as const satisfies Readonly<Record<BoxKind, BoxLimit>>;

/** Archives are measured by their directory before anything of them is unpacked. */
export const ARCHIVE_LIMITS = { unpackedMb: 64, entries: 2_000, ratio: 200, ratioFromMb: 8 } as const;

/** Reading processes of one web or worker process, and after how many readings one is replaced by a fresh one. */
export const POOL = { size: 2, readings: 2_000, watchMs: 50, restingMb: 220, waiting: 500 } as const;
