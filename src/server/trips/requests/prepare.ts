import type { Answer, RecordView, Request } from '../../../core/engine';
import { WorldFailure } from '../../ports';
import { findDossier, insertDossier } from '../../research/store/dossiers';
import { wakeWorkers } from '../../platform/store/wake';
import { HeldBack } from '../../workspace/connections';
import type { World } from '../../platform/world';

const LOOK_AGAIN_MS = 3_000;

/** Has the dossier of the trip's person made. It is asked for once, under the line's own id, and the trip looks again until it is there. */
export async function prepare(
  world: World,
  view: RecordView,
  request: Extract<Request, { kind: 'prepare' }>,
): Promise<Extract<Answer, { kind: 'prepare' }>> {
  const now = await world.clock.now();
  const row = await findDossier(world.db, request.id);
  if (row?.state === 'done')
    return { kind: 'prepare', paper: row.id, address: `/records/people/${view.person.id}/dossier`, costMicro: row.costMicro };
  if (row?.state === 'failed')
    throw new WorldFailure('broken', `the dossier could not be made: ${row.problem ?? 'no reason is known'}`, false);
  if (!row) {
    await insertDossier(
      world.db,
      { id: request.id, recordKind: 'person', recordId: view.person.id, afresh: false, mailTo: null, createdBy: null },
      now,
    );
    await wakeWorkers(world.db);
  }
  throw new HeldBack('the dossier is being made', now + LOOK_AGAIN_MS, true);
}
