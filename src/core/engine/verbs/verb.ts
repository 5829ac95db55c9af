import { z } from 'zod';
import type { JsonObject } from '../../base';
import type { Instruction } from '../../flow/plan';
import type { Shape } from '../../flow/syntax';
import type { Readings } from '../readings';
import type { Run } from '../run';
import type { Answer, Decision, Request, TripEvent } from '../types';

export type AnswerOf<K extends Answer['kind']> = Extract<Answer, { kind: K }>;
export type RequestOf<K extends Request['kind']> = Extract<Request, { kind: K }>;
export type EventOf<K extends TripEvent['kind']> = Extract<TripEvent, { kind: K }>;

/** What a line finds out from outside the core: how it goes on with the answer, and what a replay answers instead. */
export interface Asks<S extends Shape, K extends Answer['kind'] = Answer['kind']> {
  readonly kind: K;
  answered(answer: AnswerOf<K>, step: S, line: Instruction, run: Run): void;
  /** From what was found out then; what was never asked before is named in `missing` and answered with “not found”. */
  replayed(request: RequestOf<K>, readings: Readings, missing: string[]): AnswerOf<K>;
}

/** What else a trip that rests at a line can be woken by. Each says whether the event fits, and changes nothing when it does not. */
export interface Wakes<S extends Shape> {
  decided?(decision: Decision, step: S, line: Instruction, run: Run): boolean;
  /** nobody decided in time about what is asked under `ref` */
  overdue?(ref: string, step: S, line: Instruction, run: Run): boolean;
  gathered?(event: EventOf<'gathered'>, step: S, line: Instruction, run: Run): boolean;
  handedOver?(event: EventOf<'handed over'>, step: S, line: Instruction, run: Run): boolean;
  handedBack?(event: EventOf<'handed back'>, step: S, line: Instruction, run: Run): boolean;
  taskEnded?(event: EventOf<'task ended'>, step: S, line: Instruction, run: Run): boolean;
  /** nothing came within the limit */
  nothingBack?(step: S, line: Instruction, run: Run): void;
  planEnded?(event: EventOf<'plan ended'>, step: S, line: Instruction, run: Run): boolean;
}

/** A shape that details once had, and what they are today. */
export interface Upcaster {
  readonly name: string;
  /** the same detail where it is not of that shape */
  lift(detail: JsonObject): JsonObject;
}

/** What a verb does in a trip. A description that lacks a part does not compile. */
export interface RunOf<S extends Shape> {
  readonly verb: S['verb'];
  /** Runs a line that has just been reached: passes, stops, sticks, rests, or sets a request. */
  run(step: S, line: Instruction, run: Run): void;
  /** null: it asks nothing outside */
  readonly asks: AnyAsks<S> | null;
  /** null: only the clock wakes it */
  readonly wakes: Wakes<S> | null;
  /** What of a journal line of it is read again: parts that are there only sometimes are optional. */
  readonly detail: z.ZodType;
  /** shapes of before, oldest first */
  readonly older: readonly Upcaster[];
  /** the one field a line is there to fill, which a person may fill in its place */
  fills?(step: S): string;
}
type AnyAsks<S extends Shape> = { [K in Answer['kind']]: Asks<S, K> }[Answer['kind']];

/** Of verbs whose journal lines nobody reads again but people. */
export const JUST_SAID = z.looseObject({});
/** What a verb has that asks nothing, waits for nobody and whose lines are only read by people. */
export const PLAIN = { asks: null, wakes: null, detail: JUST_SAID, older: [] } as const;

/** A kept detail as its verb reads it today; undefined where it is of no shape it ever had. */
export function decode<T>(kept: JsonObject, detail: z.ZodType<T>, older: readonly Upcaster[]): T | undefined {
  return detail.safeParse(older.reduce((lifted, upcaster) => upcaster.lift(lifted), kept)).data;
}
/** The details of a verb's lines on the earlier trip, in their order. */
export const recorded = <T>(readings: Readings, verb: string, detail: z.ZodType<T>, older: readonly Upcaster[] = []): readonly T[] =>
  readings.journal.flatMap((entry) => (entry.verb === verb ? (decode(entry.detail, detail, older) ?? []) : []));
