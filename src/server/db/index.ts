/**
 * The connection to PostgreSQL and its transactions, and the migration runner. Only this folder and the store import the
 * driver. Instants travel as milliseconds (number) and are `timestamptz` in the database.
 */
export { connect, type Db, type Tx } from './connect';
export { migrate } from './migrate';
export { transact } from './transact';
