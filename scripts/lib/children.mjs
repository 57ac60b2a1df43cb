import { spawn } from 'node:child_process';

const KILL_AFTER_MS = 12_000;
const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 10_000;
const HEALTHY_MS = 30_000;

/** Asks a process to end and kills it when it does not; resolves once it is gone. */
export function endChild(child) {
  if (!child || typeof child.exitCode === 'number' || child.signalCode) return Promise.resolve();
  return new Promise((resolve) => {
    const timer = setTimeout(() => child.kill('SIGKILL'), KILL_AFTER_MS);
    // Closed: the processes that it started, which hold its output, are gone as well.
    child.on('close', () => {
      clearTimeout(timer);
      resolve();
    });
    child.kill('SIGTERM');
  });
}

/** A process of the application whose output goes to the log, and which ends when this process is lost. */
export function startServer({ address, port, env, log }) {
  const child = spawn(process.execPath, ['scripts/serve.mjs', '-H', address, '-p', String(port)], {
    stdio: ['ignore', 'pipe', 'pipe', 'ipc'],
    env,
  });
  for (const stream of [child.stdout, child.stderr]) stream.pipe(log, { end: false });
  return child;
}

/**
 * Keeps one process running until told to end: it is started again, ever more slowly while it dies at once.
 * @param onFirstFailure called when the very first one ends before `isUp` says that it works: another would fare no better
 */
export function keepChild({ start, isUp, onFirstFailure }) {
  let isEnding = false;
  let wasUp = false;
  let waitMs = FIRST_WAIT_MS;
  let child;
  const begin = () => {
    if (isEnding) return;
    const bornAt = Date.now();
    child = start();
    child.on('exit', async () => {
      if (isEnding) return;
      if (!wasUp && !(wasUp = await isUp())) return onFirstFailure();
      waitMs = Date.now() - bornAt > HEALTHY_MS ? FIRST_WAIT_MS : Math.min(2 * waitMs, LONGEST_WAIT_MS);
      setTimeout(begin, waitMs);
    });
  };
  begin();
  return {
    markUp: () => (wasUp = true),
    end: () => {
      isEnding = true;
      return endChild(child);
    },
  };
}
