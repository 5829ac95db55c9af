/** Which flows name a team, a mailbox or another thing that is no library item, in their drafts or as they run. */
import { namesUsed, type NameKind } from '../../core/flow/bundle';
import { listFlows, versionsOf } from './store/flows';
import type { World } from '../platform/world';

/** Gives the names of the flows that speak of a thing. */
export async function flowsNaming(world: World): Promise<(kind: NameKind, name: string) => readonly string[]> {
  const flows = await listFlows(world.db);
  const live = await versionsOf(
    world.db,
    flows.flatMap((flow) => flow.liveVersionId ?? []),
  );
  const uses = flows.map((flow) => {
    const texts = [flow.draftText, live.find((version) => version.id === flow.liveVersionId)?.text ?? ''];
    return { name: flow.name, said: texts.flatMap((text) => namesUsed(text, [])) };
  });
  return (kind, name) => uses.filter((flow) => flow.said.some((use) => use.kind === kind && use.name === name)).map((flow) => flow.name);
}
