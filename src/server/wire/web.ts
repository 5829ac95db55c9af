import { readConfig } from '../config';
import { LiveHub } from '../platform/live';
import type { World } from '../platform/world';
import { makeWorld } from './world';

const kept = globalThis as unknown as { millraceWorld?: World; millraceHub?: LiveHub };

/** The web process's world: made at first use, so that building needs no database; kept across reloads of modules. */
export function webWorld(): World {
  return (kept.millraceWorld ??= makeWorld(readConfig(), 'millrace-web', { plansAnew: true }));
}

export const metricsKey = (): string | null => readConfig().metricsKey;

export function liveHub(): LiveHub {
  return (kept.millraceHub ??= new LiveHub(webWorld()));
}
