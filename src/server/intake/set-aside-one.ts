/** Setting one thing aside that could not be taken, with its reason. */
import { createHash } from 'node:crypto';
import { cleanText, clip, stableId } from '../../core/base';
import { WorldFailure } from '../ports';
import { insertSetAside, type SetAsideRow } from './store/set-aside';
import { Refusal, type World } from '../platform/world';

const SAYS_MAX = 200;
const WHY_MAX = 400;

/** Why a thing could not be taken, in words for who looks after the door; what broke in us is in the log. */
export function reasonOf(world: World, error: unknown): string {
  if (error instanceof WorldFailure || error instanceof Refusal) return clip(cleanText(error.message), WHY_MAX);
  world.log.error('something that came in could not be taken', {
    error: error instanceof Error ? (error.stack ?? error.message) : String(error),
  });
  return 'something broke inside Millrace when it was taken in';
}

export async function setAside(
  world: World,
  entry: {
    readonly intakeId: string | null;
    readonly kind: SetAsideRow['kind'];
    readonly says: string;
    readonly why: string;
    readonly raw: Uint8Array;
  },
): Promise<void> {
  const id = stableId('set aside', entry.intakeId ?? 'answers', createHash('sha256').update(entry.raw).digest('hex'));
  await insertSetAside(
    world.db,
    { ...entry, id, says: clip(cleanText(entry.says), SAYS_MAX), why: clip(entry.why, WHY_MAX) },
    await world.clock.now(),
  );
}
