import 'server-only';
import type { ArchiveProgress } from '@/contracts/archive';
import { ArchiveRefused } from './archive-read';
import type { Told } from './archive-restore';

const TOLD_EVERY_MS = 200;

/** Lines of JSON while some long work goes on, the last of which tells how it ended. Ends the work when the asker leaves. */
export function progressResponse(request: Request, work: (told: Told) => Promise<ArchiveProgress>): Response {
  const encoder = new TextEncoder();
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      const tell = (line: ArchiveProgress): void => {
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
        if (!(error instanceof ArchiveRefused) && !request.signal.aborted) console.error('archive:', error);
        const message =
          error instanceof ArchiveRefused
            ? error.message
            : 'Something went wrong on the machine that runs Red Plumb. Nothing has changed. Its log says more.';
        tell({ kind: 'refused', message });
      }
      if (!request.signal.aborted) controller.close();
    },
  });
  return new Response(stream, {
    headers: { 'content-type': 'application/x-ndjson; charset=utf-8', 'cache-control': 'no-store' },
  });
}
