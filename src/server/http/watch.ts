/** For who watches over an installation: whether it is up, whether it can work, and how the work stands (Prometheus text format). */
import { timingSafeEqual } from 'node:crypto';
import { collectDefaultMetrics, Gauge, Registry } from 'prom-client';
import { standing, type Standing } from '../platform/store/watch';
import type { World } from '../platform/world';

const GAUGES: Readonly<Record<keyof Standing, readonly [name: string, help: string]>> = {
  tripsDue: ['millrace_trips_due', 'Trips that could go on now'],
  tripsStuck: ['millrace_trips_stuck', 'Trips that wait for a person because something failed'],
  sendsDue: ['millrace_sends_due', 'Messages whose time to leave has come'],
  oldestSendSeconds: ['millrace_oldest_send_seconds', 'How long the oldest of these has been due'],
  callsDue: ['millrace_calls_due', 'Webhook calls and notices whose time has come'],
  inDoubt: ['millrace_in_doubt', 'Messages of which nobody knows whether they left'],
  listsWaiting: ['millrace_lists_waiting', 'Lists that are being taken in or wait for it'],
  reviewsOpen: ['millrace_reviews_open', 'Messages that wait for a decision'],
};

const kept = globalThis as unknown as { millraceMetrics?: { registry: Registry; gauges: Readonly<Record<string, Gauge>> } };
/** Made once a process, also when modules are loaded anew. */
function metrics(): NonNullable<typeof kept.millraceMetrics> {
  if (kept.millraceMetrics) return kept.millraceMetrics;
  const registry = new Registry();
  collectDefaultMetrics({ register: registry });
  const gauges = Object.fromEntries(
    Object.entries(GAUGES).map(([key, [name, help]]) => [key, new Gauge({ name, help, registers: [registry] })]),
  );
  return (kept.millraceMetrics = { registry, gauges });
}

const text = (status: number, body: string, type = 'text/plain; charset=utf-8'): Response =>
  new Response(body, { status, headers: { 'content-type': type, 'cache-control': 'no-store' } });

/** The process answers. */
export const answerHealth = (): Response => text(200, 'up\n');

/** The database answers too. */
export async function answerReady(world: World): Promise<Response> {
  try {
    await world.db`select 1`;
    return text(200, 'ready\n');
  } catch {
    return text(503, 'the database does not answer\n');
  }
}

const same = (a: string, b: string): boolean => a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));

/** Only with the key set for it (`MILLRACE_METRICS_KEY`), as a bearer token; without one there is no such page. */
export async function answerMetrics(world: World, key: string | null, request: Request): Promise<Response> {
  if (key === null) return text(404, 'not found\n');
  if (!same(request.headers.get('authorization') ?? '', `Bearer ${key}`)) return text(401, 'a key is needed: MILLRACE_METRICS_KEY\n');
  const { registry, gauges } = metrics();
  const now = await standing(world.db, await world.clock.now());
  for (const name of Object.keys(GAUGES) as (keyof Standing)[]) gauges[name]?.set(now[name]);
  return text(200, await registry.metrics(), registry.contentType);
}
