import { never } from '../../../core/base';
import type { RecordView, Request, TripEvent } from '../../../core/engine';
import { WorldFailure } from '../../ports';
import { answerTo } from '../../messages/store/messages';
import type { HeldTrip } from '../store/trips';
import type { World } from '../../platform/world';
import { compose } from './compose';
import { draft } from './draft';
import { lookUp } from './lookup';
import { HeldBack } from '../../workspace/connections';
import { match } from './match';
import { prepare } from './prepare';
import { read } from './read';
import { screen } from './screen';
import { beginReading, readForTrial } from './trial';

/** Begins what a line further below will ask for, so that it is there when it is reached. It answers nobody, and no cost is told yet. */
export async function beginRequest(world: World, held: HeldTrip, view: RecordView, request: Request): Promise<void> {
  try {
    if (request.kind === 'look up') await lookUp(world, held, view, request, 'ahead');
    if (request.kind === 'read') await beginReading(world, held, request);
  } catch (error) {
    if (!(error instanceof HeldBack) && !(error instanceof WorldFailure)) throw error;
  }
}

/** Finds out what a line asked for. What the outside did to us comes back as a `failed` event, never as an exception. */
export async function answerRequest(world: World, held: HeldTrip, view: RecordView, request: Request): Promise<TripEvent> {
  try {
    switch (request.kind) {
      case 'match':
        return { kind: 'answer', answer: await match(world, held, view, request) };
      case 'read':
        return {
          kind: 'answer',
          answer: await (held.trialId === null ? read(world, request, { held, afresh: null }) : readForTrial(world, held, request)),
        };
      case 'look up':
        return { kind: 'answer', answer: await lookUp(world, held, view, request) };
      case 'compose':
        return { kind: 'answer', answer: await compose(world, held, view, request) };
      case 'draft':
        return { kind: 'answer', answer: await draft(world, held, view, request) };
      case 'screen':
        return { kind: 'answer', answer: { kind: 'screen', verdicts: await screen(world, held, view, request) } };
      case 'prepare':
        return { kind: 'answer', answer: await prepare(world, view, request) };
      case 'reply':
        return { kind: 'answer', answer: { kind: 'reply', came: (await answerTo(world.db, request.messageId)) ?? null } };
      default:
        return never(request);
    }
  } catch (error) {
    if (error instanceof HeldBack) return { kind: 'held back', why: error.message, until: error.until, ...(error.soon && { soon: true }) };
    if (!(error instanceof WorldFailure)) throw error;
    return { kind: 'failed', why: error.message, retryable: error.retryable, retryAfterMs: error.retryAfterMs };
  }
}
