/** What each verb does in a trip, in a file of its own; everything that runs, answers, wakes or replays lines asks here. */
import type { z } from 'zod';
import type { JsonObject } from '../../base';
import type { Shape, Step, Steps } from '../../flow/syntax';
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
import { wait } from './wait';
import { write } from './write';
import { decode, type RunOf } from './verb';

export type { AnswerOf, Asks, EventOf, RequestOf, RunOf, Upcaster, Wakes } from './verb';
export { PLAIN } from './verb';

/** A shape that nothing runs does not compile. */
const RUNS = {
  ask,
  assign,
  'follow up': followUp,
  gather,
  'hand over': handOver,
  keep,
  'look up': lookUp,
  match,
  move,
  note,
  open,
  'pick out': pickOut,
  prepare,
  read,
  reply,
  score,
  send,
  set,
  sort,
  split,
  stop,
  'take in': takeIn,
  task,
  tell,
  unknown,
  wait,
  write,
} satisfies { readonly [V in keyof Steps]: RunOf<Steps[V]> };

const table = new Map<string, RunOf<Shape>>(Object.entries(RUNS) as [string, RunOf<Shape>][]);

/** Makes known what a verb does; once. */
export function addRun<S extends Shape>(description: RunOf<S>): void {
  if (table.has(description.verb)) throw new Error(`what “${description.verb}” does is described twice`);
  table.set(description.verb, description);
}

/** What the verb of a line does. */
export function runOf(step: Step): RunOf<Shape> {
  const found = table.get(step.verb);
  if (!found) throw new Error(`broken invariant: nothing runs “${step.verb}”`);
  return found;
}

/** What lines of each verb keep in the journal to be read again. */
export type Details = { readonly [V in keyof typeof RUNS]: z.infer<(typeof RUNS)[V]['detail']> };

/** The one door through which kept details are read: older shapes are lifted to today's; undefined where a line kept none of it. */
export const readDetail = <V extends keyof Details>(verb: V, kept: JsonObject): Details[V] | undefined =>
  decode(kept, RUNS[verb].detail as z.ZodType<Details[V]>, RUNS[verb].older);
