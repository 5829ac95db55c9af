/** A broken invariant: always a bug, never an expected outcome. Stops the job that met it. */
export function assert(condition: unknown, what: string): asserts condition {
  if (!condition) throw new Error(`broken invariant: ${what}`);
}

/** Closes a switch over a union: a new member fails to compile here. */
export function never(value: never): never {
  throw new Error(`unexpected case: ${JSON.stringify(value)}`);
}
