import { plural, textIn, type JsonObject } from '../../base';
import type { Instruction } from '../../flow/plan';
import type { Run } from '../run';

/** The name of a batch between `gather` and the line that works on many; no flow can write it. */
export const BATCH = '·batch';

export interface Member {
  readonly name: string;
  readonly says: string;
}

/** Those this line speaks for: the trip alone, or all that were gathered with it. Undefined: another trip speaks for it. */
export function spokenFor(run: Run): readonly Member[] | undefined {
  const batch = run.vars[BATCH];
  if (!batch) return [];
  if (batch.place !== 0) return undefined;
  return (Array.isArray(batch.members) ? (batch.members as readonly JsonObject[]) : []).map((member) => ({
    name: textIn(member.name),
    says: textIn(member.says),
  }));
}

export function withTheOthers(line: Instruction, run: Run): void {
  run.log(line, 'passed', `told with the ${plural(Number(run.vars[BATCH]?.size ?? 1) - 1, 'other')} gathered`);
  run.pass(line);
}
