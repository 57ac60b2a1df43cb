/** The application in as many processes as the machine has to spare, all behind one port: `node scripts/serve.mjs -H <address> -p <port>`. */
import { availableParallelism } from 'node:os';
import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { keepProcesses } from './lib/processes.mjs';

/** More would only take memory: the database wants processors as well. */
const MOST_PROCESSES = 4;

const { values } = parseArgs({ options: { host: { type: 'string', short: 'H' }, port: { type: 'string', short: 'p' } } });

keepProcesses({
  exec: resolve('scripts/server/worker.mjs'),
  args: [values.host ?? '127.0.0.1', values.port ?? '3210'],
  count: Math.min(MOST_PROCESSES, availableParallelism()),
});
