/**
 * Calls of a described service, one after the other, until the answer is there. Promises: every call goes to the host the
 * service is described at; what it said is given to who asks before the next call, so that they can put it down and come again.
 */
import { beginning, cameBack, nextCall, type Came, type Progress, type Provider, type Question } from '../../core/lookup';
import type { World } from '../platform/world';

export interface Service {
  readonly provider: Provider;
  /** the key as it is sent; empty: none */
  readonly secret: string;
}
/** What came of a call, with the answer itself. */
export type Answered = Came & { readonly answer: unknown };

/** `key`: the same key is the same question, and is charged once. Throws `WorldFailure`. */
export async function* askService(
  world: World,
  { provider, secret }: Service,
  ask: { readonly values: Question['values']; readonly progress?: Progress | undefined; readonly key?: string | undefined },
): AsyncGenerator<Answered, void> {
  let progress: Progress | null = ask.progress ?? beginning(await world.clock.now());
  while (progress !== null) {
    const call = nextCall(provider, { values: ask.values, secret }, progress);
    const headers =
      ask.key === undefined || progress.ticket !== null ? call.headers : { 'idempotency-key': pageKey(ask.key, progress), ...call.headers };
    const answer = await world.providers.call(provider.name, { ...call, headers });
    const came: Came = cameBack(provider, progress, answer, await world.clock.now());
    yield { ...came, answer };
    progress = came.kind === 'wait' ? came.progress : came.kind === 'page' ? came.more : null;
  }
}
const pageKey = (key: string, { pages }: Progress): string => (pages === 0 ? key : `${key} page ${pages + 1}`);
