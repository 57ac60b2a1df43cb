/** Runs in the browser: measures one file as the application does, in a worker that was just started. */
import type { ScanFigure } from '../../src/core/scan/measured-figure';
import { scanWorker } from '../../src/workers/scan.client';

export interface Timed {
  /** From the start of the worker until every disc is measured; close-ups are made after that. */
  readonly measuredMs: number;
  readonly allMs: number;
  readonly good: number;
}

export type TimeScan = (href: string, figures: readonly ScanFigure[]) => Promise<Timed>;

const timed: TimeScan = async (href, figures) => {
  const file = await (await fetch(href)).blob();
  const worker = scanWorker();
  const from = performance.now();
  let measuredMs = NaN;
  const done = await worker.measure(file, { figures, lay: 'sheet' }, (told) => {
    if (told.stage === 'measured') measuredMs = performance.now() - from;
  });
  const allMs = performance.now() - from;
  worker.cancel();
  if (!done.ok) throw new Error(JSON.stringify(done.error));
  return { measuredMs, allMs, good: done.value.result.discs.filter((d) => d.state === 'good').length };
};

Object.assign(globalThis, { timed });
