import 'server-only';
import { Worker } from 'node:worker_threads';
import type { FileWork } from '@/compute/cut-file';
import { fail, type Result } from '@/core/result';
import type { FileProblem, Survey } from '@/formats/cut-file/cut-file';
import type { CorrectedFile } from '@/formats/cut-file/move-cut-file';

const LONGEST_MS = 30_000;
const MOST_MEMORY_MB = 600;

const tooMuch: FileProblem = {
  kind: 'too-large',
  where: 'file',
  words: 'Reading it took too long or too much memory: split the drawing, or correct it in the browser.',
};

type Outcome = Result<CorrectedFile | Survey, FileProblem>;

/** Reads or moves a cut file in a thread of its own, within a time and memory that a hostile file cannot exceed. */
export function fileInThread(work: FileWork): Promise<Outcome> {
  return new Promise((resolve) => {
    const worker = new Worker(new URL('../threads/cut-file.thread.ts', import.meta.url), {
      workerData: work,
      resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB },
    });
    let isDone = false;
    const end = (outcome: Outcome): void => {
      if (isDone) return;
      isDone = true;
      clearTimeout(timer);
      void worker.terminate();
      resolve(outcome);
    };
    const timer = setTimeout(() => {
      end(fail(tooMuch));
    }, LONGEST_MS);
    worker.on('message', (outcome: Outcome) => {
      end(outcome);
    });
    worker.on('error', (error) => {
      console.error(error);
      end(fail(tooMuch));
    });
    worker.on('exit', () => {
      end(fail(tooMuch));
    });
  });
}
