/** The application in as many processes as the machine has to spare, all behind one port. Its arguments are those of `next start`. */
import cluster from 'node:cluster';
import { availableParallelism } from 'node:os';
import { resolve } from 'node:path';
import { NEXT } from './lib/build.mjs';

/** More would only take memory: the database wants processors as well. */
const MOST_PROCESSES = 4;
/** One that ends sooner cannot begin at all: another would fare no better. */
const BEGUN_MS = 5000;

let isEnding = false;

function end(code) {
  if (isEnding) return;
  isEnding = true;
  process.exitCode = code;
  for (const worker of Object.values(cluster.workers ?? {})) worker?.process.kill('SIGTERM');
}

/** A process that is lost is replaced. */
function begin() {
  const from = Date.now();
  cluster.fork().on('exit', (code) => {
    if (isEnding) return;
    if (Date.now() - from < BEGUN_MS) end(code || 1);
    else begin();
  });
}

cluster.setupPrimary({ exec: resolve(NEXT), args: ['start', ...process.argv.slice(2)] });
process.on('SIGINT', () => end(0));
process.on('SIGTERM', () => end(0));
for (let i = 0; i < Math.min(MOST_PROCESSES, availableParallelism()); i++) begin();
