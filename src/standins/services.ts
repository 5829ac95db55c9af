import fs from 'node:fs/promises';
import type http from 'node:http';
import path from 'node:path';
import { z } from 'zod';
import { fold, stableHash } from '../core/base';
import { readJson, sendJson } from './server';

const KEYS = { pennant: 'pennant-demo-key', ferrygate: 'ferrygate-demo-key', tollgate: 'tollgate-demo-key' } as const;
const companySchema = z.object({
  id: z.string(),
  host: z.string(),
  name: z.string(),
  country: z.string().optional(),
  place: z.string().optional(),
  lines: z.array(z.string()),
});
type Company = z.infer<typeof companySchema>;
const enrichSchema = z.object({ person: z.object({ given_name: z.string(), family_name: z.string(), domain: z.string() }) });

const PAGE = 10;
/** Times that an answer is asked for before it is there. */
const ASKED_IN_VAIN = 1;

/** An address that a service makes up of a name, or none: always the same for the same person. */
function madeUp(service: string, first: string, last: string, domain: string): { readonly address: string; readonly sure: number } | null {
  const dice = Number.parseInt(stableHash(`${service} ${first} ${last} ${domain}`).slice(0, 4), 16) / 0xffff;
  return domain === '' || dice > 0.8 ? null : { address: `${first.slice(0, 1)}.${last}@${domain}`, sure: Math.round(60 + dice * 45) };
}

/**
 * Outside services of shapes of their own, told apart by the host they are asked at: what described connections are made for.
 * *Pennant* answers at once with a list, *Ferrygate* later to who comes with a ticket, *Tollgate* finds companies page by page.
 */
export class Services {
  private readonly tickets = new Map<string, { readonly person: z.infer<typeof enrichSchema>['person']; asked: number }>();

  private constructor(private readonly companies: readonly Company[]) {}

  static async of(folder: string): Promise<Services> {
    return new Services(z.array(companySchema).parse(JSON.parse(await fs.readFile(path.join(folder, 'register.json'), 'utf8'))));
  }

  /** False: it is not asked at the host of a service. */
  async answer(request: http.IncomingMessage, response: http.ServerResponse): Promise<boolean> {
    const host = request.headers.host?.replace(/:\d+$/, '');
    const url = new URL(request.url ?? '/', 'http://service.example');
    if (host === 'api.pennant-data.example') this.pennant(request, url, response);
    else if (host === 'api.ferrygate.example') await this.ferrygate(request, url, response);
    else if (host === 'search.tollgate.example') this.tollgate(url, response);
    else return false;
    return true;
  }

  private pennant(request: http.IncomingMessage, url: URL, response: http.ServerResponse): void {
    if (request.headers['x-api-key'] !== KEYS.pennant) {
      sendJson(response, { error: { code: 'no_key', message: 'send your key as X-Api-Key' } }, 401);
      return;
    }
    const [first = '', last = ''] = fold(url.searchParams.get('name') ?? '').split(/\s+/);
    const domain = url.searchParams.get('domain') ?? '';
    const found = madeUp('pennant', first, last, domain);
    const contacts = found ? [{ address: found.address, score: found.sure, kind: 'work' }] : [];
    sendJson(response, { meta: { credits_left: 412 }, data: { query: { first, last, domain }, contacts } });
  }

  /** The same key twice is one ticket; an answer is there when it is asked for the second time. */
  private async ferrygate(request: http.IncomingMessage, url: URL, response: http.ServerResponse): Promise<void> {
    if (request.headers.authorization !== `Bearer ${KEYS.ferrygate}`) {
      sendJson(response, { problem: 'no token' }, 401);
      return;
    }
    if (request.method === 'POST' && url.pathname === '/v1/enrichments') {
      const { person } = enrichSchema.parse(await readJson(request));
      const id = `fg_${stableHash(`${JSON.stringify(person)} ${String(request.headers['idempotency-key'] ?? '')}`).slice(0, 10)}`;
      if (!this.tickets.has(id)) this.tickets.set(id, { person, asked: 0 });
      sendJson(response, { id, state: 'queued' }, 202);
      return;
    }
    const id = /^\/v1\/enrichments\/(\w+)$/.exec(url.pathname)?.[1] ?? '';
    const ticket = this.tickets.get(id);
    if (!ticket) {
      sendJson(response, { problem: 'no such enrichment' }, 404);
      return;
    }
    ticket.asked += 1;
    if (ticket.asked <= ASKED_IN_VAIN) {
      sendJson(response, { id, state: 'working', emails: [] });
      return;
    }
    const { given_name: first, family_name: last, domain } = ticket.person;
    const found = madeUp('ferrygate', fold(first), fold(last), domain);
    const shared = domain === '' ? [] : [{ address: `office@${domain}`, certainty: 0.99 }];
    sendJson(response, {
      id,
      state: 'ready',
      emails: [...shared, ...(found ? [{ address: found.address, certainty: found.sure / 100 }] : [])],
    });
  }

  private tollgate(url: URL, response: http.ServerResponse): void {
    if (url.searchParams.get('key') !== KEYS.tollgate) {
      sendJson(response, { message: 'the key is missing' }, 403);
      return;
    }
    const asked = (name: string): string => fold(url.searchParams.get(name) ?? '').trim();
    const found = this.companies.filter(
      ({ name, lines, place, country }) =>
        fold(`${name} ${lines.join(' ')}`).includes(asked('q')) &&
        fold(place ?? '').includes(asked('town')) &&
        fold(country ?? '').includes(asked('country')),
    );
    const page = Math.max(1, Number(url.searchParams.get('page') ?? 1) || 1);
    const more = page * PAGE < found.length;
    const next = new URLSearchParams(url.searchParams);
    next.set('page', String(page + 1));
    sendJson(response, {
      total: found.length,
      items: found.slice((page - 1) * PAGE, page * PAGE).map(({ id, name, host, place, country }) => ({
        ref: `http://search.tollgate.example/companies/${id}`,
        legal_name: name,
        web: host,
        seat: { town: place ?? null, country: country ?? null },
      })),
      links: { next: more ? `/companies?${next.toString()}` : null },
    });
  }
}
