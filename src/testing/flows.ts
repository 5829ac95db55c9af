/** Flows and people as tests of the server make them. */
import { createFlow, flow, saveDraft } from '../server/flows/flows';
import { release, type ReleaseAsk } from '../server/flows/releases';
import type { Actor, World } from '../server/platform/world';
import { createCompany, createPerson } from '../server/records/records';

/** A flow of these lactor, live. */
export async function madeFlow(world: World, actor: Actor, lines: string, ask: ReleaseAsk = {}, name = 'T'): Promise<string> {
  const row = await createFlow(world, actor, `flow "${name}"\nabout person\n\ntake in from hand\n${lines}`);
  await release(world, actor, row.id, ask);
  return row.id;
}
/** Its draft changed, and live. */
export async function redrafted(
  world: World,
  actor: Actor,
  id: string,
  change: (text: string) => string,
  ask: ReleaseAsk = {},
): Promise<void> {
  const row = await flow(world, id);
  await saveDraft(world, actor, id, { text: change(row.draftText), base: row.draftNo });
  await release(world, actor, id, ask);
}
/** People, each with a firm of their own. */
export async function peopleWithFirms(
  world: World,
  actor: Actor,
  count: number,
  more: (i: number) => Readonly<Record<string, string>> = () => ({}),
): Promise<string[]> {
  const out: string[] = [];
  for (let i = 0; i < count; i++) {
    const firm = await createCompany(world, actor, {
      values: { name: `Firm ${i}`, heated_area: String(i + 1), website: `f${i}.example` },
      source: 'hand',
    });
    out.push((await createPerson(world, actor, { values: { name: `Person ${i}`, ...more(i) }, companyId: firm.id, source: 'hand' })).id);
  }
  return out;
}
