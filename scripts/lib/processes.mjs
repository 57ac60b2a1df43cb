import cluster from 'node:cluster';

/** One that ends sooner cannot begin at all: another would fare no better. */
const BEGUN_MS = 5000;

/**
 * Runs a server in several processes behind one port, for as long as this process is not asked to end (SIGTERM, SIGINT). One
 * that is lost is replaced; where one cannot begin, all of them end with its code.
 */
export function keepProcesses({ exec, args, count, begunMs = BEGUN_MS }) {
  let isEnding = false;
  const end = (code) => {
    if (isEnding) return;
    isEnding = true;
    process.exitCode = code;
    for (const worker of Object.values(cluster.workers ?? {})) worker?.process.kill('SIGTERM');
  };
  const begin = () => {
    const from = Date.now();
    cluster.fork().on('exit', (code) => {
      if (isEnding) return;
      if (Date.now() - from < begunMs) end(code || 1);
      else begin();
    });
  };
  cluster.setupPrimary({ exec, args, execArgv: [] });
  process.on('SIGINT', () => end(0));
  process.on('SIGTERM', () => end(0));
  for (let i = 0; i < count; i++) begin();
}
