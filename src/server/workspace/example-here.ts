/** The example that is in this workspace: what came with it, written down so that it can go again. */
import { z } from 'zod';
import { RECORD_KINDS } from '../../core/base';
import { THING_KINDS } from '../../core/things';
import type { Tx } from '../db';
import { getSetting, putSetting } from '../platform/store/settings';

const HERE = 'example';
/** What comes with a flow by name: things with benches of their own, and the doors it takes in from. */
export const CAME_KINDS = [...THING_KINDS, 'intake'] as const;
const hereSchema = z.object({
  name: z.string(),
  title: z.string(),
  since: z.number(),
  flows: z.array(z.string()),
  things: z.array(z.object({ kind: z.enum(CAME_KINDS), id: z.string(), name: z.string() })),
  fields: z.array(z.object({ record: z.enum(RECORD_KINDS), key: z.string() })),
  teams: z.array(z.string()),
  companies: z.array(z.string()),
  people: z.array(z.string()),
});
export type ExampleHere = Readonly<z.infer<typeof hereSchema>>;

export const exampleHere = async (tx: Tx): Promise<ExampleHere | undefined> => hereSchema.safeParse(await getSetting(tx, HERE)).data;
export const putExampleHere = (tx: Tx, here: ExampleHere | null): Promise<void> => putSetting(tx, HERE, here);

/** Rows that are one's own: not of the example. */
export async function ownOf<T extends { readonly id: string }>(tx: Tx, rows: Promise<readonly T[]>): Promise<readonly T[]> {
  const [all, here] = await Promise.all([rows, exampleHere(tx)]);
  const theirs = new Set(here?.things.map(({ id }) => id));
  return all.filter(({ id }) => !theirs.has(id));
}
