import { z } from 'zod';
import type { DeepReadonly, JsonObject } from '../core/base';
import type { Topic } from './topics';

export type ApiAction =
  | 'look'
  | 'open papers'
  | 'change records'
  | 'take in'
  | 'edit flows'
  | 'release'
  | 'decide'
  | 'deal with trips'
  | 'move the clock'
  | 'read the audit'
  | 'keep secrets'
  | 'erase';

/** One operation of the REST API: its shape, and the action a role needs for it. */
export type Operation = OperationShape &
  (
    | { readonly method: 'GET' }
    | {
        readonly method: 'POST' | 'PUT' | 'PATCH';
        /** what of it open pages show; `{id}` is filled in from the path. Empty: it changes nothing anybody sees */
        readonly changes: readonly Topic[];
      }
  );

interface OperationShape {
  readonly path: string;
  readonly summary: string;
  readonly needs: ApiAction;
  readonly query?: z.ZodObject;
  readonly body?: z.ZodType;
  /** the request body is a file of this type, not JSON */
  readonly takesFile?: 'text/csv' | 'application/octet-stream';
  /** of the request's body; 1 MB where nothing is said */
  readonly maxBytes?: number;
  readonly answer: z.ZodType;
  readonly status?: 201 | 202;
  /** the answer is a file of one of these types, not JSON: its handler gives a `FileAnswer` */
  readonly givesFile?: readonly string[];
}

export interface FileAnswer {
  readonly name: string;
  readonly type: string;
  readonly content: string | Uint8Array;
}

/** A page of a list: a search, a condition, where to go on. */
export const paging = z.object({
  search: z.string().max(200).optional(),
  /** a condition as in flows, such as company.employees >= 20 */
  where: z.string().max(1000).optional(),
  cursor: z.string().max(200).optional(),
  limit: z.coerce.number().int().min(1).max(200).optional(),
});
export const uuid = z.uuid();
/** The last instant a date can be: the end of the year 2199. */
export const LATEST_MS = Date.UTC(2200, 0, 1) - 1;
/** Megabytes, for limits of bodies. */
export const MB = 1024 * 1024;
export const FLOW_BYTES = 12 * MB;
/** Flow text of any length that is read at all: the lines are counted by who reads it. */
export const flowText = z.string().max(8_000_000);
export const op = <const O extends Operation>(operation: O): O => operation;

/** A moment: milliseconds since 1970 wherever it is worked with, ISO 8601 in UTC as it travels. */
export const instant = z.codec(z.iso.datetime(), z.number(), {
  decode: (said) => Date.parse(said),
  encode: (ms) => new Date(ms).toISOString(),
});

/** What is told by name and has no shape of its own: what a journal's line found, what an audit's line changed. */
export const details = z.record(z.string(), z.json().optional()) as z.ZodType<JsonObject, JsonObject>;

/** What an answer's schema says, as the server gives it and a page has it. */
export type View<S extends z.ZodType> = DeepReadonly<z.output<S>>;
