import cluster from 'node:cluster';

/**
 * Runs a server in several processes behind one port, for as long as this process is not asked to end (SIGTERM, SIGINT). One
 * that is lost is replaced; where one ends before it ever listened, another would fare no better: all of them end with its code.
 */
export function keepProcesses({ exec, args, count }) {
  let isEnding = false;
  const end = (code) => {
    if (isEnding) return;
    isEnding = true;
    process.exitCode = code;
    for (const worker of Object.values(cluster.workers ?? {})) worker?.process.kill('SIGTERM');
  };
  const begin = () => {
    let hasListened = false;
    const worker = cluster.fork();
    worker.on('listening', () => (hasListened = true));
    worker.on('exit', (code) => {
      if (isEnding) return;
      if (hasListened) begin();
      else end(code || 1);
    });
  };
  cluster.setupPrimary({ exec, args, execArgv: [] });
  process.on('SIGINT', () => end(0));
  process.on('SIGTERM', () => end(0));
  for (let i = 0; i < count; i++) begin();
}
