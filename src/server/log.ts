import 'server-only';
import { pino } from 'pino';

const kept = globalThis as unknown as { redPlumbLog?: pino.Logger };

/** The log of this process: lines of JSON to standard output, which the start command keeps in files. */
export const log = (kept.redPlumbLog ??= pino({
  level: process.env.RED_PLUMB_LOG_LEVEL ?? 'info',
  base: { pid: process.pid },
}));

/** Header by which a request carries its number; set by the server process, whatever the client sent. */
export const REQUEST_NUMBER = 'x-request-number';
