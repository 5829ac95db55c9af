import postgres from 'postgres';

export type Db = postgres.Sql<{ bigint: number; instant: number }>;
export type Tx = postgres.TransactionSql<{ bigint: number; instant: number }> | Db;

/**
 * Opens a pool. Columns come back in camelCase; `bigint` and `timestamptz` as numbers. Nothing connects before first use.
 * `plansAnew`: every statement is planned for the values it is asked with, as lists by a condition need; statements that run a
 * thousand times a second do not.
 */
export function connect(url: string, options: { readonly max: number; readonly name: string; readonly plansAnew?: boolean }): Db {
  const db = postgres(url, {
    max: options.max,
    idle_timeout: 60,
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
  return withGuardedTransactions(db);
}

/**
 * When a transaction's connection is lost, `begin` rejects at once, but the work inside may still be on its way to its next
 * statement, and the driver to its `rollback`: it would write either to a socket that is gone, which ends the process.
 * Here the work's statements are refused then, and the driver never hears how the work ended.
 */
function withGuardedTransactions(db: Db): Db {
  const begin = db.begin.bind(db) as (work: (tx: Tx) => unknown) => Promise<unknown>;
  const guarded = (work: (tx: Tx) => unknown): Promise<unknown> => {
    let over = false;
    const refuseWhenOver = <F extends (...args: never[]) => unknown>(target: F): F =>
      new Proxy(target, {
        apply: (call, self, args) => {
          if (over) throw new Error('the transaction is over: its connection was lost, or it has ended');
          return Reflect.apply(call, self, args) as unknown;
        },
      });
    const guardedWork = async (tx: Tx): Promise<unknown> => {
      const unsafe = refuseWhenOver(tx.unsafe.bind(tx));
      const handle = new Proxy(refuseWhenOver(tx as (...args: never[]) => unknown), {
        get: (target, key) => (key === 'unsafe' ? unsafe : (Reflect.get(target, key) as unknown)),
      }) as unknown as Tx;
      try {
        const result = await work(handle);
        return over ? await never() : result;
      } catch (error) {
        // A statement fails a moment before `begin` knows that the whole connection is gone.
        await new Promise(setImmediate);
        if (over) await never();
        throw error;
      }
    };
    return begin(guardedWork).finally(() => {
      over = true;
    });
  };
  return Object.assign(db, { begin: guarded });
}

const never = (): Promise<never> => new Promise<never>(() => undefined);
