import 'server-only';
import { Worker, type ResourceLimits } from 'node:worker_threads';
import type { Answered, ComputationName } from '@/compute/computations';
import { fail } from '@/core/result';
import type { FileProblem } from '@/formats/cut-file/cut-file';

interface ThreadBounds {
  readonly longestMs: number;
  readonly mostMemoryMb: number;
}

const BOUNDS: ThreadBounds = { longestMs: 30_000, mostMemoryMb: 600 };

const tooMuch: FileProblem = {
  kind: 'too-large',
  where: 'file',
  words: 'Reading it took too long or too much memory: split the drawing, or correct it in the browser.',
};

/** The one message of a thread, or that it was too much when the thread dies or outlives its bounds. */
export function answerWithin(
  start: (resourceLimits: ResourceLimits) => Worker,
  { longestMs, mostMemoryMb }: ThreadBounds,
): Promise<Answered> {
  return new Promise((resolve) => {
    const worker = start({ maxOldGenerationSizeMb: mostMemoryMb });
    const end = (answered: Answered): void => {
      clearTimeout(timer);
      resolve(answered);
      void worker.terminate();
    };
    const giveUp = (): void => {
      end({ parsed: true, result: fail(tooMuch) });
    };
    const timer = setTimeout(giveUp, longestMs);
    worker.on('message', end);
    worker.on('error', (error) => {
      console.error(error);
      giveUp();
    });
    worker.on('exit', giveUp);
  });
}

/** Computes in a thread of its own, within a time and memory that a hostile file cannot exceed. */
export function computeInThread(name: ComputationName, raw: unknown): Promise<Answered> {
  return answerWithin(
    (resourceLimits) =>
      new Worker(new URL('../threads/computation.thread.ts', import.meta.url), {
        workerData: { name, raw },
        resourceLimits,
      }),
    BOUNDS,
  );
}
