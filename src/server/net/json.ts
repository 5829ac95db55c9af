import { request } from 'undici';
import { cleanJson } from '../../core/base';
import { WorldFailure } from '../ports';

interface JsonCall {
  /** who is called, for the words of a failure */
  readonly name: string;
  readonly url: string;
  /** left out: a GET */
  readonly body?: unknown;
  readonly headers?: Readonly<Record<string, string>>;
  readonly timeoutMs: number;
}

/** Calls a JSON service and classes what goes wrong. The answer is what it sent, unread; undefined when that was no JSON. */
export async function callJson(call: JsonCall): Promise<unknown> {
  let response;
  try {
    response = await request(call.url, {
      method: call.body === undefined ? 'GET' : 'POST',
      headers: { ...(call.body === undefined ? {} : { 'content-type': 'application/json' }), ...call.headers },
      ...(call.body === undefined ? {} : { body: JSON.stringify(call.body) }),
      headersTimeout: call.timeoutMs,
      bodyTimeout: call.timeoutMs,
    });
  } catch (error) {
    throw new WorldFailure(
      'unreachable',
      `${call.name} could not be reached (${error instanceof Error ? error.message : 'no reason given'})`,
      true,
    );
  }
  refuseStatus(call.name, response.statusCode, response.headers['retry-after']);
  const answer = await response.body.text();
  try {
    return cleanJson(JSON.parse(answer));
  } catch {
    return undefined;
  }
}

/** Throws what a status says went wrong. */
export function refuseStatus(name: string, status: number, retryAfter: string | string[] | undefined): void {
  if (status === 429) throw new WorldFailure('busy', `${name} asked to come back later`, true, Number(retryAfter) * 1000 || null);
  if (status >= 500) throw new WorldFailure('broken', `${name} answered with an error (${status})`, true);
  if (status === 401) throw new WorldFailure('refused', `${name} did not take the key (401)`, false);
  if (status >= 300) throw new WorldFailure('refused', `${name} refused the question (${status})`, false);
}

export function unreadable(name: string): WorldFailure {
  return new WorldFailure('broken', `${name} sent an answer that cannot be read`, true);
}
