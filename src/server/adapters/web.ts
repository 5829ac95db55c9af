import net from 'node:net';
import robotsParser from 'robots-parser';
import { request } from 'undici';
import { dialAgent, NotConnected, onTheWire } from '../net';
import { WorldFailure, type Box, type Web } from '../ports';

const LIMITS = {
  bytes: 2 * 1024 * 1024,
  redirects: 5,
  connectMs: 3_000,
  bodyMs: 6_000,
  robotsBytes: 500 * 1024,
  robotsMs: 24 * 3_600_000,
  gapMs: 40,
  hosts: 5_000,
} as const;
const AGENT_NAME = 'MillraceReader';

interface Robots {
  readonly allows: (url: string) => boolean;
  readonly readAt: number;
}

/** What is known of hosts is bounded: the one that came first goes. */
function forgetOldest(map: Map<string, unknown>): void {
  if (map.size > LIMITS.hosts) map.delete(map.keys().next().value ?? '');
}

/** The real web reader. With `standin` (`host:port`), hosts ending in `.example` are served from there and from nowhere else. */
export function webReader(standin: string | null, box: Box): Web {
  const agent = dialAgent({ standin }, { connectMs: LIMITS.connectMs, answerMs: LIMITS.bodyMs });
  const robots = new Map<string, Robots>();
  const lastCall = new Map<string, Promise<void>>();

  /** One call at a time per host, with a small gap. */
  const inTurn = async <T>(host: string, work: () => Promise<T>): Promise<T> => {
    const before = lastCall.get(host) ?? Promise.resolve();
    let release: () => void = () => undefined;
    lastCall.set(
      host,
      new Promise((resolve) => {
        release = resolve;
      }),
    );
    await before;
    forgetOldest(lastCall);
    try {
      return await work();
    } finally {
      setTimeout(release, LIMITS.gapMs);
    }
  };

  const get = async (
    url: string,
  ): Promise<{ status: number; type: string; bytes: Buffer; location: string | null; retryAfter: number | null }> => {
    const target = new URL(url);
    if (target.protocol !== 'http:' && target.protocol !== 'https:')
      throw new WorldFailure('refused', `${target.protocol} addresses are not read`, false);
    if (target.port !== '' || net.isIP(target.hostname.replace(/^\[|\]$/g, '')) !== 0)
      throw new WorldFailure('refused', `${target.host} is not a public site`, false);
    const wire = onTheWire(target, standin);
    try {
      const response = await request(wire, {
        dispatcher: agent,
        headers: { 'user-agent': `${AGENT_NAME}/1 (reads public pages for their answers)`, accept: 'text/html,text/plain;q=0.8' },
      });
      const header = (name: string): string => {
        const value = response.headers[name];
        return Array.isArray(value) ? (value[0] ?? '') : (value ?? '');
      };
      const chunks: Buffer[] = [];
      let size = 0;
      for await (const chunk of response.body as AsyncIterable<Buffer>) {
        size += chunk.length;
        if (size > LIMITS.bytes) {
          response.body.destroy();
          throw new WorldFailure('too large', `${target.hostname} sent a page of more than ${LIMITS.bytes / 1024 / 1024} MB`, false);
        }
        chunks.push(chunk);
      }
      return {
        status: response.statusCode,
        type: header('content-type'),
        bytes: Buffer.concat(chunks),
        location: header('location') || null,
        retryAfter: Number(header('retry-after')) * 1000 || null,
      };
    } catch (error) {
      throw failure(error, target.hostname);
    }
  };

  /** The rules of a host, wherever it keeps them: a redirect is followed, also to another host (RFC 9309 2.3.1.2). */
  const rulesOf = async (origin: string, hostname: string): Promise<Robots> => {
    let at = `${origin}/robots.txt`;
    for (let hop = 0; hop <= LIMITS.redirects; hop++) {
      const answer = await get(at);
      if (answer.status >= 300 && answer.status < 400 && answer.location !== null && URL.canParse(answer.location, at)) {
        at = new URL(answer.location, at).href;
        continue;
      }
      // No file (4xx) means everything may be read; a server error means nothing may until it is mended.
      if (answer.status >= 500 || answer.status === 429)
        throw new WorldFailure('busy', `${hostname} answered with an error (${answer.status})`, true, answer.retryAfter);
      if (answer.status >= 300) break;
      const rules = robotsParser(`${origin}/robots.txt`, answer.bytes.subarray(0, LIMITS.robotsBytes).toString('utf8'));
      return { allows: (asked) => rules.isAllowed(asked, AGENT_NAME) !== false, readAt: Date.now() };
    }
    return { allows: () => true, readAt: Date.now() };
  };

  /** By origin: what a host says over http is not what it says over https, nor what its www-twin says. */
  const allowed = async (url: string): Promise<boolean> => {
    const { origin, hostname } = new URL(url);
    let known = robots.get(origin);
    if (!known || Date.now() - known.readAt > LIMITS.robotsMs) {
      known = await rulesOf(origin, hostname);
      robots.set(origin, known);
      forgetOldest(robots);
    }
    return known.allows(url);
  };

  return {
    async page(url) {
      if (!URL.canParse(url)) throw new WorldFailure('refused', `“${url}” is no address`, false);
      let at = url;
      for (let hop = 0; hop <= LIMITS.redirects; hop++) {
        const { hostname, protocol } = new URL(at);
        const current = at;
        if (protocol !== 'http:' && protocol !== 'https:') throw new WorldFailure('refused', `${protocol} addresses are not read`, false);
        if (!(await inTurn(hostname, () => allowed(current))))
          throw new WorldFailure('refused', `${hostname} does not want its pages read (robots.txt)`, false);
        const answer = await inTurn(hostname, () => get(current));
        if (answer.status >= 300 && answer.status < 400 && answer.location) {
          if (!URL.canParse(answer.location, at)) throw new WorldFailure('broken', `${hostname} redirects to what is no address`, false);
          at = new URL(answer.location, at).href;
          continue;
        }
        if (answer.status === 429 || answer.status === 503)
          throw new WorldFailure('busy', `${hostname} asked to come back later (${answer.status})`, true, answer.retryAfter);
        if (answer.status >= 500) throw new WorldFailure('broken', `${hostname} answered with an error (${answer.status})`, true);
        if (answer.status === 403 || answer.status === 401)
          throw new WorldFailure('refused', `${hostname} does not let us in (${answer.status})`, false);
        if (answer.status >= 400) throw new WorldFailure('not found', `${at} is not there (${answer.status})`, false);
        if (!/^text\/(?:html|plain)|^application\/xhtml/.test(answer.type))
          throw new WorldFailure('refused', `${at} is no text page (${answer.type || 'no type'})`, false);
        return box.run('page', { url: at, status: answer.status, type: answer.type, bytes: answer.bytes });
      }
      throw new WorldFailure('refused', `${new URL(url).hostname} redirects without end`, false);
    },
  };
}

function failure(error: unknown, host: string): WorldFailure {
  if (error instanceof WorldFailure) return error;
  if (error instanceof NotConnected)
    return new WorldFailure('not found', error.code === 'ENOTFOUND' ? `there is no site ${host}` : `${host} is not a public site`, false);
  const code = error instanceof Error && 'code' in error ? String(error.code) : '';
  if (code === 'ENOTFOUND' || code === 'EAI_AGAIN') return new WorldFailure('not found', `there is no site ${host}`, code === 'EAI_AGAIN');
  if (/TIMEOUT/.test(code)) return new WorldFailure('timeout', `${host} did not answer in time`, true);
  return new WorldFailure('unreachable', `${host} could not be reached`, true);
}
