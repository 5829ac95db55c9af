import { z } from 'zod';

export type ApiAction = 'look' | 'change records' | 'take in' | 'edit flows' | 'release' | 'decide' | 'deal with trips' | 'move the clock';

/** One operation of the REST API: its shape, and the action a role needs for it. */
export interface Operation {
  readonly method: 'GET' | 'POST' | 'PUT' | 'PATCH';
  readonly path: string;
  readonly summary: string;
  readonly needs: ApiAction;
  readonly query?: z.ZodObject;
  readonly body?: z.ZodType;
  /** the request body is a file of this type, not JSON */
  readonly takesFile?: 'text/csv' | 'application/octet-stream';
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
  /** a condition as in flows, such as company.heated_area >= 2 ha */
  where: z.string().max(1000).optional(),
  cursor: z.string().optional(),
  limit: z.coerce.number().int().min(1).max(200).optional(),
});
export const uuid = z.uuid();
export const op = <const O extends Operation>(operation: O): O => operation;
