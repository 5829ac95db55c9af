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

/** What a host answered to one request. */
interface Got {
  readonly status: number;
  readonly type: string;
  readonly bytes: Buffer;
  readonly location: string | null;
  /** ms; null: it did not say */
  readonly retryAfter: number | null;
}
const isRedirect = (got: Got): boolean => got.status >= 300 && got.status < 400;

/** The real web reader. With `standin` (`host:port`), hosts ending in `.example` are served from there and from nowhere else. */
export const webReader = (standin: string | null, box: Box): Web => new WebReader(standin, box);

class WebReader implements Web {
  private readonly agent;
  private readonly robots = new Map<string, Robots>();
  private readonly lastCall = new Map<string, Promise<void>>();

  constructor(
    private readonly standin: string | null,
    private readonly box: Box,
  ) {
    this.agent = dialAgent({ standin }, { connectMs: LIMITS.connectMs, answerMs: LIMITS.bodyMs });
  }

  async page(url: string): ReturnType<Web['page']> {
    if (!URL.canParse(url)) throw new WorldFailure('refused', `“${url}” is no address`, false);
    let at = url;
    for (let hop = 0; hop <= LIMITS.redirects; hop++) {
      const { hostname, protocol } = new URL(at);
      const current = at;
      if (protocol !== 'http:' && protocol !== 'https:') throw new WorldFailure('refused', `${protocol} addresses are not read`, false);
      if (!(await this.inTurn(hostname, () => this.allowed(current))))
        throw new WorldFailure('refused', `${hostname} does not want its pages read (robots.txt)`, false);
      const got = await this.inTurn(hostname, () => this.get(current));
      if (isRedirect(got) && got.location !== null && got.location !== '') {
        if (!URL.canParse(got.location, at)) throw new WorldFailure('broken', `${hostname} redirects to what is no address`, false);
        at = new URL(got.location, at).href;
        continue;
      }
      refuseStatus(got, at, hostname);
      return this.box.run('page', { url: at, status: got.status, type: got.type, bytes: got.bytes });
    }
    throw new WorldFailure('refused', `${new URL(url).hostname} redirects without end`, false);
  }

  /** One call at a time per host, with a small gap. */
  private async inTurn<T>(host: string, work: () => Promise<T>): Promise<T> {
    const before = this.lastCall.get(host) ?? Promise.resolve();
    let release: () => void = () => undefined;
    this.lastCall.set(
      host,
      new Promise((resolve) => {
        release = resolve;
      }),
    );
    await before;
    forgetOldest(this.lastCall);
    try {
      return await work();
    } finally {
      setTimeout(release, LIMITS.gapMs);
    }
  }

  private async get(url: string): Promise<Got> {
    const target = new URL(url);
    if (target.protocol !== 'http:' && target.protocol !== 'https:')
      throw new WorldFailure('refused', `${target.protocol} addresses are not read`, false);
    if (target.port !== '' || net.isIP(target.hostname.replace(/^\[|\]$/g, '')) !== 0)
      throw new WorldFailure('refused', `${target.host} is not a public site`, false);
    try {
      const response = await request(onTheWire(target, this.standin), {
        dispatcher: this.agent,
        headers: { 'user-agent': `${AGENT_NAME}/1 (reads public pages for their answers)`, accept: 'text/html,text/plain;q=0.8' },
      });
      const header = (name: string): string => {
        const value = response.headers[name];
        return Array.isArray(value) ? (value[0] ?? '') : (value ?? '');
      };
      return {
        status: response.statusCode,
        type: header('content-type'),
        bytes: await bodyOf(response.body, target.hostname),
        location: header('location') || null,
        retryAfter: Number(header('retry-after')) * 1000 || null,
      };
    } catch (error) {
      throw failure(error, target.hostname);
    }
  }

  /** The rules of a host, wherever it keeps them: a redirect is followed, also to another host (RFC 9309 2.3.1.2). */
  private async rulesOf(origin: string, hostname: string): Promise<Robots> {
    let at = `${origin}/robots.txt`;
    for (let hop = 0; hop <= LIMITS.redirects; hop++) {
      const got = await this.get(at);
      if (isRedirect(got) && got.location !== null && URL.canParse(got.location, at)) {
        at = new URL(got.location, at).href;
        continue;
      }
      // No file (4xx) means everything may be read; a server error means nothing may until it is mended.
      if (got.status >= 500 || got.status === 429)
        throw new WorldFailure('busy', `${hostname} answered with an error (${got.status})`, true, got.retryAfter);
      if (got.status >= 300) break;
      const rules = robotsParser(`${origin}/robots.txt`, got.bytes.subarray(0, LIMITS.robotsBytes).toString('utf8'));
      return { allows: (asked) => rules.isAllowed(asked, AGENT_NAME) !== false, readAt: Date.now() };
    }
    return { allows: () => true, readAt: Date.now() };
  }

  /** By origin: what a host says over http is not what it says over https, nor what its www-twin says. */
  private async allowed(url: string): Promise<boolean> {
    const { origin, hostname } = new URL(url);
    let known = this.robots.get(origin);
    if (!known || Date.now() - known.readAt > LIMITS.robotsMs) {
      known = await this.rulesOf(origin, hostname);
      this.robots.set(origin, known);
      forgetOldest(this.robots);
    }
    return known.allows(url);
  }
}

async function bodyOf(body: AsyncIterable<Buffer> & { destroy: () => unknown }, hostname: string): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of body) {
    size += chunk.length;
    if (size > LIMITS.bytes) {
      body.destroy();
      throw new WorldFailure('too large', `${hostname} sent a page of more than ${LIMITS.bytes / 1024 / 1024} MB`, false);
    }
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

/** What is no page to read is said in words. */
function refuseStatus({ status, type, retryAfter }: Got, at: string, hostname: string): void {
  if (status === 429 || status === 503)
    throw new WorldFailure('busy', `${hostname} asked to come back later (${status})`, true, retryAfter);
  if (status >= 500) throw new WorldFailure('broken', `${hostname} answered with an error (${status})`, true);
  if (status === 403 || status === 401) throw new WorldFailure('refused', `${hostname} does not let us in (${status})`, false);
  if (status >= 400) throw new WorldFailure('not found', `${at} is not there (${status})`, false);
  if (!/^text\/(?:html|plain)|^application\/xhtml/.test(type))
    throw new WorldFailure('refused', `${at} is no text page (${type || 'no type'})`, false);
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
