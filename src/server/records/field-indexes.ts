import type { Tx } from '../db';
import { dropIndexes, indexField, indexName, letGo, listFields, onlyOne, ownIndexes } from './store/fields';
import { fieldsToIndex } from './field-uses';
import type { World } from '../platform/world';

/** An index that is not there by then is tried again later: whoever is in its way goes first. */
const WITHIN_MS = 60_000;

/**
 * The worker's part: values of fields that lists and live flows ask for are found by an index, others cost nothing. Made and
 * dropped beside the work of everybody, on one connection, one at a time. Returns how many were made or dropped.
 */
export async function keepFieldIndexes(world: World): Promise<number> {
  const held = await world.db.reserve();
  try {
    return (await onlyOne(held, WITHIN_MS)) ? await keep(held) : 0;
  } finally {
    await letGo(held);
    held.release();
  }
}

async function keep(tx: Tx): Promise<number> {
  const wanted = await fieldsToIndex(tx, await listFields(tx));
  const there = new Set(await ownIndexes(tx));
  const missing = wanted.find((field) => !there.has(indexName(field)));
  if (missing) {
    await indexField(tx, missing);
    return 1;
  }
  const names = new Set(wanted.map(indexName));
  const idle = [...there].filter((name) => !names.has(name));
  await dropIndexes(tx, idle);
  return idle.length;
}
