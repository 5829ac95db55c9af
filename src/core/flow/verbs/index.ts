/**
 * The verbs of the flow language, each described in a file of its own: everything that reads, prints, checks, says, completes,
 * compiles or weighs lines asks here. Promises: what is not described is no line. Refuses: running - the engine has its own
 * description of what each verb does.
 */
import type { Library } from '../meaning/library';
import type { ResultShape } from '../meaning/scope';
import type { Step, Steps } from '../tree/tree';
import { ask } from './ask';
import { assign } from './assign';
import { followUp } from './follow-up';
import { gather } from './gather';
import { handOver } from './hand-over';
import { keep } from './keep';
import { lookUp } from './look-up';
import { match } from './match';
import { move } from './move';
import { note } from './note';
import { open } from './open';
import { pickOut } from './pick-out';
import { prepare } from './prepare';
import { read } from './read';
import { reply } from './reply';
import { score } from './score';
import { send } from './send';
import { set } from './set';
import { sort } from './sort';
import { split } from './split';
import { stop } from './stop';
import { takeIn } from './take-in';
import { task } from './task';
import { tell } from './tell';
import { unknown } from './unknown';
import type { Shape, VerbOf } from './verb';
import { wait } from './wait';
import { write } from './write';

export type { ChangeIntake, ClockIntake } from './take-in';
export { ITS_OWNER, type Addressee } from './tell';
export type { Beginning, Finds, Shape, VerbOf, Weighs } from './verb';
export { LETS_PASS } from './verb';
export type { AnswerPart } from './hand-over';
export type { SortLabel } from './sort';
export type { WaitFor } from './wait';

/** In the order in which they are offered, and in which everyday words are tried. A shape without a description does not compile. */
const DESCRIBED: { readonly [V in keyof Steps]: VerbOf<Steps[V]> } = {
  'take in': takeIn,
  keep,
  match,
  read,
  score,
  split,
  'look up': lookUp,
  open,
  move,
  assign,
  set,
  note,
  ask,
  'follow up': followUp,
  send,
  write,
  reply,
  wait,
  gather,
  sort,
  'pick out': pickOut,
  tell,
  'hand over': handOver,
  prepare,
  task,
  stop,
  unknown,
};

/** What no verb of the house is asked by: a made-up one in a test, say. */
const table = new Map<string, VerbOf<Shape>>(Object.entries(DESCRIBED));

/** Makes a verb known to the language; a name is given once. */
export function addVerb<S extends Shape>(description: VerbOf<S>): void {
  if (table.has(description.verb)) throw new Error(`the verb “${description.verb}” is described twice`);
  table.set(description.verb, description);
  byFirst = firstWords();
}

/** The description of a line's verb. */
export function verbOf(step: Step): VerbOf<Shape> {
  const found = table.get(step.verb);
  if (!found) throw new Error(`broken invariant: the verb “${step.verb}” is not described`);
  return found;
}

/** Every verb that a line may begin with, in their order. */
export const verbs = (): readonly VerbOf<Shape>[] => [...table.values()].filter((entry) => entry.verb !== 'unknown');

/** The verbs by their first word, longest first, so that a line tries only those it may begin with. */
function firstWords(): ReadonlyMap<string, readonly (readonly [words: readonly string[], verb: VerbOf<Shape>])[]> {
  const found = new Map<string, (readonly [readonly string[], VerbOf<Shape>])[]>();
  for (const entry of verbs()) {
    const words = entry.verb.split(' ');
    const [first = ''] = words;
    found.set(
      first,
      [...(found.get(first) ?? []), [words, entry] as const].sort((a, b) => b[0].length - a[0].length),
    );
  }
  return found;
}
let byFirst = firstWords();

/** Takes the verb that a row begins with; undefined when it begins with none. */
export function takeVerb(row: {
  peek(): { readonly text: string } | undefined;
  takeAll(words: readonly string[]): unknown;
}): VerbOf<Shape> | undefined {
  for (const [words, verb] of byFirst.get(row.peek()?.text ?? '') ?? []) if (row.takeAll(words)) return verb;
  return undefined;
}

/** What a line leaves behind under its `as` name. */
export function resultOf(step: Step, library: Pick<Library, 'fields'>): { readonly name: string; readonly shape: ResultShape } | undefined {
  if (!('as' in step) || step.as === undefined) return undefined;
  const shape = verbOf(step).result(step, library);
  return shape && { name: step.as.text, shape };
}

/** What comes with a record from a form or another intake, as the parts of `entry`. */
export const entryOf = (step: Step, library: Pick<Library, 'intakes'>): ResultShape | undefined => verbOf(step).brings?.(step, library);
