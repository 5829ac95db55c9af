import postgres from 'postgres';

export type Db = postgres.Sql<{ bigint: number; instant: number }>;
export type Tx = postgres.TransactionSql<{ bigint: number; instant: number }> | Db;

/** Opens a pool. Columns come back in camelCase; `bigint` and `timestamptz` as numbers. Nothing connects before first use. */
export function connect(url: string, options: { readonly max: number; readonly name: string }): Db {
  return postgres(url, {
    max: options.max,
    idle_timeout: 60,
    onnotice: () => undefined,
    connection: { application_name: options.name },
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
