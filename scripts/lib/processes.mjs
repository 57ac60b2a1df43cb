import cluster from 'node:cluster';

/** A process that has not ended this long after it was asked to is killed. */
const GRACE_MS = 8000;
/** The first wait before a lost process is replaced, and the longest, while it is lost again and again. */
const FIRST_WAIT_MS = 100;
const LONGEST_WAIT_MS = 5000;
/** One that lived this long was healthy. */
const HEALTHY_MS = 10_000;

/**
 * Runs a server in several processes behind one port, for as long as this process is not asked to end (SIGTERM, SIGINT, or the end
 * of whoever started it). One that is lost is replaced; where one ends before it ever listened, another would fare no better:
 * all of them end with its code.
 */
export function keepProcesses({ exec, args, count }) {
  let isEnding = false;
  let waitMs = FIRST_WAIT_MS;
  const end = (code) => {
    if (isEnding) return;
    isEnding = true;
    process.exitCode = code;
    const left = Object.values(cluster.workers ?? {}).map((worker) => worker.process);
    for (const child of left) child.kill('SIGTERM');
    setTimeout(() => left.forEach((child) => child.kill('SIGKILL')), GRACE_MS).unref();
    if (process.connected) process.disconnect();
  };
  let haveListened = false;
  const begin = () => {
    if (isEnding) return;
    const bornAt = Date.now();
    const worker = cluster.fork();
    worker.on('listening', () => (haveListened = true));
    worker.on('exit', (code) => {
      if (isEnding) return;
      if (!haveListened) return end(code || 1);
      waitMs = Date.now() - bornAt > HEALTHY_MS ? FIRST_WAIT_MS : Math.min(2 * waitMs, LONGEST_WAIT_MS);
      setTimeout(begin, waitMs);
    });
  };
  // Each process takes its connections from the system itself. Handed over by this one, a connection is lost without a word when its
  // process is killed on the way, and whoever waits for the answer waits for ever.
  cluster.schedulingPolicy = cluster.SCHED_NONE;
  cluster.setupPrimary({ exec, args, execArgv: [] });
  process.on('SIGINT', () => end(0));
  process.on('SIGTERM', () => end(0));
  process.on('disconnect', () => end(0));
  for (let i = 0; i < count; i++) begin();
}
