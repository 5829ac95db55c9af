/**
 * Typed calls from the browser to the REST API. Promises: a refused call throws `ApiProblem` with the server's sentence.
 * Refuses: caching and retrying - pages ask the server afresh.
 */
import { ROUTES, withInstants, type Answer, type OPERATIONS, type OperationId } from '../../api';
import type { DeepReadonly } from '../../core/base';
import type { z } from 'zod';

export { onLive, openLive } from './live';
export { useLive } from './use-live';

type Shape = typeof OPERATIONS;
type Ask<Id extends OperationId> = {
  readonly params?: Readonly<Record<string, string>>;
} & (Shape[Id] extends { query: infer Q extends z.ZodType } ? { readonly query?: z.input<Q> } : object) &
  (Shape[Id] extends { body: infer B extends z.ZodType } ? { readonly body: DeepReadonly<z.input<B>> } : object) & { readonly file?: Blob };

/** What an operation asks for; nothing need be said where it asks for nothing. */
type Asked<Id extends OperationId> = object extends Ask<Id> ? [ask?: Ask<Id>] : [ask: Ask<Id>];

export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly detail: Readonly<Record<string, unknown>>,
  ) {
    super(message);
    this.name = 'ApiProblem';
  }
}

/** Calls one operation by its id. */
export async function call<Id extends OperationId>(id: Id, ...[ask]: Asked<Id>): Promise<Answer<Id>> {
  const operation = ROUTES[id];
  const path = operation.path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(ask?.params?.[name] ?? ''));
  const query =
    ask !== undefined && 'query' in ask && ask.query
      ? `?${new URLSearchParams(Object.entries(ask.query).flatMap(([name, value]) => (value === undefined || value === null ? [] : [[name, String(value)]]))).toString()}`
      : '';
  const body = ask?.file ?? (ask !== undefined && 'body' in ask ? JSON.stringify(ask.body) : undefined);
  const response = await fetch(`/api/v1${path}${query}`, {
    method: operation.method,
    ...(body === undefined
      ? {}
      : { body, headers: { 'content-type': 'takesFile' in operation ? operation.takesFile : 'application/json' } }),
  });
  const answer: unknown = response.headers.get('content-type')?.includes('json') ? await response.json() : await response.text();
  if (!response.ok) {
    const problem = (typeof answer === 'object' && answer !== null ? answer : {}) as Record<string, unknown>;
    throw new ApiProblem(
      response.status,
      typeof problem.detail === 'string' ? problem.detail : `the server answered ${response.status}`,
      problem,
    );
  }
  return withInstants(answer, 'instants' in operation ? operation.instants : []) as Answer<Id>;
}

/** The sentence to show for whatever went wrong. */
export function sayProblem(error: unknown): string {
  if (error instanceof ApiProblem) return error.message;
  return 'Millrace could not be reached: nothing was lost, try again in a moment.';
}
