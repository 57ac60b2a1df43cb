import 'server-only';
import { availableParallelism } from 'node:os';
import { resolve } from 'node:path';
import Piscina from 'piscina';
import type { Compute } from '@/compute/compute-here';
import type { ComputationName } from '@/compute/computations';
import { fail, ok } from '@/core/result';
import { log } from '../log';
import type { Question, ThreadAnswer } from '../threads/computation';

/** Made from src/server/threads/computation.ts by the build. */
const THREAD = resolve('.red-plumb/threads/computation.mjs');

export interface PoolBounds {
  readonly threads: number;
  /** Questions that wait while every thread is busy; one more is turned away. */
  readonly mostWaiting: number;
  readonly longestMs: number;
  readonly mostHeapMb: number;
}

const BOUNDS: PoolBounds = {
  threads: Math.max(1, Math.min(2, availableParallelism() - 1)),
  mostWaiting: 16,
  longestMs: 30_000,
  mostHeapMb: 600,
};

export type PoolAnswer =
  | ThreadAnswer
  /** Every thread is busy and the queue is full: nothing was begun. */
  | { readonly kind: 'busy' }
  /** Given up for its time or memory; the thread is gone and another takes its place. */
  | { readonly kind: 'too-much' };

export interface ComputationPool {
  readonly ask: (name: ComputationName, body: Uint8Array) => Promise<PoolAnswer>;
  readonly end: () => Promise<void>;
}

/** Lets a few go ahead at once and a few more wait, first come first served. `ask` is null where no more may wait. */
function takeTurns(atOnce: number, mostWaiting: number) {
  const waiting: (() => void)[] = [];
  let underWay = 0;
  return {
    ask: (): Promise<void> | null => {
      if (underWay < atOnce) {
        underWay += 1;
        return Promise.resolve();
      }
      return waiting.length < mostWaiting ? new Promise((resolve) => waiting.push(resolve)) : null;
    },
    done: (): void => {
      const next = waiting.shift();
      // The turn is handed on as it is.
      if (next) next();
      else underWay -= 1;
    },
  };
}

/** Threads that answer questions within bounds of time, memory and waiting. */
export function makePool(thread: string, { threads, mostWaiting, longestMs, mostHeapMb }: PoolBounds): ComputationPool {
  const pool = new Piscina<Question, ThreadAnswer>({
    filename: thread,
    name: 'answerQuestion',
    minThreads: 0,
    maxThreads: threads,
    idleTimeout: 60_000,
    resourceLimits: { maxOldGenerationSizeMb: mostHeapMb },
  });
  // A thread that is lost tells whoever waits for it; the pool itself goes on.
  pool.on('error', () => undefined);
  const turns = takeTurns(threads, mostWaiting);
  return {
    ask: async (name, body) => {
      const turn = turns.ask();
      if (turn === null) return { kind: 'busy' };
      await turn;
      const abort = new AbortController();
      const timer = setTimeout(() => {
        abort.abort();
      }, longestMs);
      try {
        return await pool.run({ name, body }, { signal: abort.signal });
      } catch (error) {
        const words = String((error as { readonly message?: unknown }).message);
        if (!abort.signal.aborted && !words.includes('reaching memory limit')) throw error;
        log.warn({ name, words, isTimeUp: abort.signal.aborted }, 'a computation was given up');
        return { kind: 'too-much' };
      } finally {
        clearTimeout(timer);
        turns.done();
      }
    },
    end: () => pool.destroy(),
  };
}

const kept = globalThis as unknown as { redPlumbPool?: ComputationPool };

/** The one pool of this process. */
export const computationPool = (): ComputationPool => (kept.redPlumbPool ??= makePool(THREAD, BOUNDS));

/** Computes in the pool for a page of our own. A pool that is busy or gives up is a named problem. */
export const computeInPool: Compute = async (name, raw) => {
  const answer = await computationPool().ask(name, new TextEncoder().encode(JSON.stringify(raw)));
  switch (answer.kind) {
    case 'value':
      return { parsed: true, result: ok(JSON.parse(new TextDecoder().decode(answer.json)) as object) };
    case 'not-understood':
      return { parsed: false, issues: answer.issues };
    case 'refused':
      return { parsed: true, result: fail(answer.error) };
    case 'busy':
      return { parsed: true, result: fail({ kind: 'busy' }) };
    case 'too-much':
    case 'not-json':
      return { parsed: true, result: fail({ kind: 'too-large' }) };
  }
};
