import 'server-only';
import type { Progress } from '@/contracts/progress';
import { reportRequestFault } from './faults';

const TOLD_EVERY_MS = 200;

/** Long work that cannot be done, with the reason in words: nothing was changed. */
export class WorkRefused extends Error {}

/** What long work is handed: where to tell how far it is, and the signal that it is not wanted any more. */
export interface Told {
  /** Called as the work goes on. */
  readonly onProgress?: (words: string, done: number, of: number) => void;
  readonly signal?: AbortSignal;
}

/** Lines of JSON while some long work goes on, the last of which tells how it ended. Ends the work when the asker leaves. */
export function progressResponse<Line extends object>(
  request: Request,
  work: (told: Required<Told>) => Promise<Line>,
): Response {
  const encoder = new TextEncoder();
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      const tell = (line: Line | Progress): void => {
        if (!request.signal.aborted) controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
      };
      let last = '';
      let at = 0;
      const onProgress = (words: string, done: number, of: number): void => {
        if (words === last && Date.now() - at < TOLD_EVERY_MS) return;
        [last, at] = [words, Date.now()];
        tell({ kind: 'progress', words, done, of });
      };
      try {
        tell(await work({ onProgress, signal: request.signal }));
      } catch (error) {
        if (error instanceof WorkRefused) tell({ kind: 'refused', message: error.message });
        else if (!request.signal.aborted) tell({ kind: 'refused', message: reportRequestFault(error, request) });
      }
      if (!request.signal.aborted) controller.close();
    },
  });
  return new Response(stream, {
    headers: { 'content-type': 'application/x-ndjson; charset=utf-8', 'cache-control': 'no-store' },
  });
}
