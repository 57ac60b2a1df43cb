import 'server-only';
import { log, REQUEST_NUMBER } from '../log';

/** What an unexpected error means for the one at the machine. */
export type FaultKind = 'database-stopped' | 'disk-full' | 'fault';

/**
 * States of SQL in which the server cannot be asked, and codes of a connection that was refused or cut.
 * Source: PostgreSQL documentation, appendix A (classes 08, 57P).
 */
const STOPPED = /^(08...|57P0[1-5]|ECONNREFUSED|ECONNRESET|EPIPE|ENOTFOUND|EAI_AGAIN|ETIMEDOUT|EHOSTUNREACH)$/;
const STOPPED_WORDS =
  /Connection terminated|timeout exceeded when trying to connect|Client has encountered a connection error/;
/** 53100: disk full (the same appendix). */
const FULL = /^(53100|ENOSPC)$/;

function* chainOf(error: unknown): Generator<Error> {
  for (let at = error, depth = 0; at instanceof Error && depth < 5; at = at.cause, depth++) yield at;
}

/** What kind of fault an error is; the database's own words are under its causes. */
export function faultKind(error: unknown): FaultKind {
  for (const cause of chainOf(error)) {
    const code = 'code' in cause ? String(cause.code) : '';
    if (FULL.test(code)) return 'disk-full';
    if (STOPPED.test(code) || STOPPED_WORDS.test(cause.message)) return 'database-stopped';
  }
  return 'fault';
}

const WORDS: Readonly<Record<Exclude<FaultKind, 'fault'>, string>> = {
  'database-stopped':
    'The database has stopped and is being started again. What you entered is still here: try again in 10 seconds.',
  'disk-full':
    'The disk is full, so nothing was saved. What you entered is still here. Free some space, then try again.',
};

/** Logs an unexpected error with the number of its request and gives the words to show. */
export function reportFault(error: unknown, requestNumber: string | null): string {
  const kind = faultKind(error);
  log.error({ err: error, kind, request: requestNumber }, 'a request failed');
  if (kind !== 'fault') return WORDS[kind];
  const number = requestNumber === null ? '' : ` (Number in the log: ${requestNumber})`;
  return `This could not be saved just now. What you entered is still here: try again.${number}`;
}

/** The same for a route handler, which has its request at hand. */
export const reportRequestFault = (error: unknown, request: { readonly headers: Headers }): string =>
  reportFault(error, request.headers.get(REQUEST_NUMBER));
