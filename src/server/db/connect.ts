import postgres from 'postgres';

export type Db = postgres.Sql<{ bigint: number; instant: number }>;
export type Tx = postgres.TransactionSql<{ bigint: number; instant: number }> | Db;

/**
 * Opens a pool. Columns come back in camelCase; `bigint` and `timestamptz` as numbers. Nothing connects before first use.
 * `plansAnew`: every statement is planned for the values it is asked with, as lists by a condition need; statements that run a
 * thousand times a second do not.
 */
export function connect(url: string, options: { readonly max: number; readonly name: string; readonly plansAnew?: boolean }): Db {
  return postgres(url, {
    max: options.max,
    idle_timeout: 60,
    // Seconds until a lost connection is tried again: a database that restarts is asked again soon, not up to 20 s later.
    backoff: (tries) => Math.min(0.1 * 2 ** tries, 2),
    onnotice: () => undefined,
    // Statements here are short: compiling a plan (on by default where many rows are estimated) costs more than running it.
    connection: { application_name: options.name, jit: 'off', ...(options.plansAnew === true && { plan_cache_mode: 'force_custom_plan' }) },
    transform: { column: { from: postgres.toCamel } },
    types: {
      bigint: { to: 20, from: [20], serialize: (value: number) => String(value), parse: (raw: string) => Number(raw) },
      instant: {
        to: 1184,
        from: [1184],
        serialize: (value: number | string) => (typeof value === 'number' ? new Date(value).toISOString() : value),
        parse: (raw: string) => Date.parse(raw),
      },
    },
  });
}
