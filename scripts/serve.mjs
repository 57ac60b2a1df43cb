/** The application in as many processes as the machine has to spare, all behind one port. Its arguments are those of `next start`. */
import { availableParallelism } from 'node:os';
import { resolve } from 'node:path';
import { NEXT } from './lib/build.mjs';
import { keepProcesses } from './lib/processes.mjs';

/** More would only take memory: the database wants processors as well. */
const MOST_PROCESSES = 4;

keepProcesses({
  exec: resolve(NEXT),
  args: ['start', ...process.argv.slice(2)],
  count: Math.min(MOST_PROCESSES, availableParallelism()),
});
