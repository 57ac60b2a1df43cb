import { spawn, spawnSync } from 'node:child_process';

/** Runs to the end with its output shown; resolves to the exit code. */
export function runShown(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: 'inherit', ...options });
    child.on('error', reject);
    child.on('close', (code, signal) => resolve(signal ? 1 : (code ?? 1)));
  });
}

/** Runs to the end beside something else whose output is shown; resolves to { status, output } once all output is there. */
export function runHeld(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'], ...options });
    let output = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (bytes) => (output += bytes));
    child.on('error', reject);
    child.on('close', (code, signal) => resolve({ status: signal ? 1 : (code ?? 1), output }));
  });
}

/** Runs quietly while everything else goes on; resolves to { status, output }. */
export function runCaptured(command, args, options = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'], ...options });
    let output = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (bytes) => (output += bytes));
    child.on('error', (error) => resolve({ status: 127, output: `${error}` }));
    // Not "close": a server that was started in the background keeps the output open.
    child.on('exit', (code) => setImmediate(() => resolve({ status: code ?? 1, output })));
  });
}

/** Runs quietly; { status, output }. */
export function runQuiet(command, args, options = {}) {
  const done = spawnSync(command, args, { encoding: 'utf8', ...options });
  return {
    status: done.error ? 127 : (done.status ?? 1),
    output: `${done.stdout ?? ''}${done.stderr ?? ''}${done.error ?? ''}`,
  };
}

export const onPath = (command) => runQuiet('sh', ['-c', `command -v ${command}`]).status === 0;
