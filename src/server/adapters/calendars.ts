import { request } from 'undici';
import { dialAgent, onTheWire } from '../net';
import { WorldFailure, type Box, type CalendarAccount, type Calendars } from '../ports';
import type { Instant } from '../../core/base';

const TIMEOUT_MS = 10_000;
const MAX_BYTES = 8 * 1024 * 1024;

const stamp = (at: Instant): string =>
  new Date(at)
    .toISOString()
    .replace(/[-:]/g, '')
    .replace(/\.\d+Z$/, 'Z');

/** Asks for whole series too: each is unrolled by who reads it. */
const query = (from: Instant, until: Instant): string => `<?xml version="1.0" encoding="utf-8"?>
<C:calendar-query xmlns:D="DAV:" xmlns:C="urn:ietf:params:xml:ns:caldav"><D:prop><C:calendar-data/></D:prop>
<C:filter><C:comp-filter name="VCALENDAR"><C:comp-filter name="VEVENT"><C:time-range start="${stamp(from)}" end="${stamp(until)}"/></C:comp-filter></C:comp-filter></C:filter>
</C:calendar-query>`;

/** Calendars by CalDAV or as a fetched file. Hosts ending in `.example` are at the stand-in, or nowhere. */
export function httpCalendars(standin: string | null, box: Box): Calendars {
  const times = { connectMs: TIMEOUT_MS, answerMs: TIMEOUT_MS, maxBytes: MAX_BYTES };
  const agents = { public: dialAgent({ standin }, times), private: dialAgent({ standin, privateNetwork: true }, times) };
  const call = async (account: CalendarAccount, method: 'GET' | 'REPORT', body?: string): Promise<string> => {
    let target: URL;
    try {
      target = new URL(account.url);
    } catch {
      throw new WorldFailure('refused', `“${account.url}” is no address of a calendar: it begins with https://`, false);
    }
    if (target.protocol !== 'http:' && target.protocol !== 'https:')
      throw new WorldFailure('refused', `“${account.url}” is no address of a calendar: it begins with https://`, false);
    const login = account.user === '' ? undefined : Buffer.from(`${account.user}:${account.password}`).toString('base64');
    let response;
    try {
      response = await request(onTheWire(target, standin), {
        method: method as 'GET',
        dispatcher: account.privateNetwork ? agents.private : agents.public,
        headersTimeout: TIMEOUT_MS,
        bodyTimeout: TIMEOUT_MS,
        headers: {
          host: target.host,
          ...(login !== undefined && { authorization: `Basic ${login}` }),
          ...(body !== undefined && { 'content-type': 'application/xml; charset=utf-8', depth: '1' }),
        },
        ...(body !== undefined && { body }),
      });
    } catch {
      throw new WorldFailure('unreachable', `${target.host} could not be reached`, true);
    }
    const text = await response.body.text().catch(() => {
      throw new WorldFailure('too large', `${target.host} sent more than ${MAX_BYTES / 1024 / 1024} MB, or broke off`, true);
    });
    const { statusCode: status } = response;
    if (status === 401 || status === 403) throw new WorldFailure('refused', `${target.host} refuses the name or the password`, false);
    if (status === 404) throw new WorldFailure('not found', `there is no calendar at ${account.url}`, false);
    if (status >= 400) throw new WorldFailure('broken', `${target.host} answered with an error (${status})`, status >= 500);
    return text;
  };
  return {
    async read(account, from, until) {
      if (account.kind === 'feed') return [await call(account, 'GET')];
      return box.run('calendar answer', { xml: await call(account, 'REPORT', query(from, until)) });
    },
  };
}
