import { z } from 'zod';
import { plain } from '../parts/parts';
import type { StepOf } from '../tree/tree';
import { LETS_PASS, type VerbOf } from './verb';

/** A line that was not understood stays as it was typed. No line begins with its word. */
export const unknown: VerbOf<StepOf<'unknown'>> = {
  verb: 'unknown',
  help: '',
  begins: [],
  names: [],
  speaks: [],
  phrases: [],
  samples: ['paint it blue\n  and twice'],

  read: () => undefined,
  print: ({ text }) => text.split('\n'),
  check: () => undefined,
  result: () => undefined,
  say: ({ text }) => [plain(text.split('\n')[0] ?? '')],
  json: () => z.strictObject({ verb: z.literal('unknown'), text: z.string() }),
  compiles: () => ({}),
  weighs: LETS_PASS,
};
