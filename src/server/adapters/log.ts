import { pino } from 'pino';
import type { Log } from '../ports';

export function pinoLog(level: string, name: string): Log {
  const logger = pino({ level, name });
  return {
    info: (what, detail) => {
      logger.info(detail ?? {}, what);
    },
    warn: (what, detail) => {
      logger.warn(detail ?? {}, what);
    },
    error: (what, detail) => {
      logger.error(detail ?? {}, what);
    },
  };
}
