import 'server-only';
import { fork } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { log } from '../log';

export interface ChildBounds {
  readonly longestMs: number;
  /** Resident memory of the whole process: buffers and decoders count as well. */
  readonly mostBytes: number;
}

/** Why a child gave no answer. */
export type ChildFailure = 'took-too-long' | 'took-too-much-memory' | 'ended-without-an-answer';
export type ChildAnswer =
  { readonly ok: true; readonly value: unknown } | { readonly ok: false; readonly failure: ChildFailure };

const LOOK_EVERY_MS = 25;
const PAGE_BYTES = 4096;

/** Resident bytes of a process as Linux counts them; null once it is gone. Source: proc(5), /proc/pid/statm, second field. */
function residentBytes(pid: number): number | null {
  try {
    return Number(readFileSync(`/proc/${pid}/statm`, 'utf8').split(' ')[1]) * PAGE_BYTES;
  } catch {
    return null;
  }
}

/**
 * Hands a task to a process of its own and waits for its one answer. A process that takes longer or more memory than it may is
 * killed, whatever native code it is in.
 */
export function askChild(module: string, task: object, { longestMs, mostBytes }: ChildBounds): Promise<ChildAnswer> {
  return new Promise((resolve) => {
    const child = fork(module, [], {
      serialization: 'advanced',
      stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
      execArgv: [],
    });
    let lastWords = '';
    child.stderr?.on('data', (bytes: Buffer) => (lastWords = `${lastWords}${bytes.toString()}`.slice(-2000)));
    const end = (answer: ChildAnswer): void => {
      clearTimeout(timer);
      clearInterval(looking);
      child.kill('SIGKILL');
      resolve(answer);
    };
    const timer = setTimeout(() => {
      end({ ok: false, failure: 'took-too-long' });
    }, longestMs);
    const looking = setInterval(() => {
      const bytes = child.pid === undefined ? null : residentBytes(child.pid);
      if (bytes !== null && bytes > mostBytes) end({ ok: false, failure: 'took-too-much-memory' });
    }, LOOK_EVERY_MS);
    child.on('message', (value) => {
      end({ ok: true, value });
    });
    child.on('error', (error) => {
      lastWords = error.message;
    });
    child.on('close', (code, signal) => {
      if (code !== 0 && signal !== 'SIGKILL') log.warn({ code, signal, lastWords }, 'a decoding process failed');
      end({ ok: false, failure: 'ended-without-an-answer' });
    });
    child.send(task, () => undefined);
  });
}
