import { proxy, wrap, type Remote } from 'comlink';
import type { Result } from '@/core/result';
import type { MeasuredScan, ScanApi, ScanFailure, ScanSought, ScanTold } from './scan.worker';

export type { MeasuredScan, ScanFailure, ScanSought, ScanTold } from './scan.worker';
export type { PicturePreview } from './picture-of';

/** A handle on the worker that measures scans. `cancel` ends what runs; the next call starts a new one. */
export interface ScanWorker {
  readonly measure: (
    file: Blob,
    sought: ScanSought,
    tell: (told: ScanTold) => void,
  ) => Promise<Result<MeasuredScan, ScanFailure>>;
  readonly cancel: () => void;
}

export function scanWorker(): ScanWorker {
  let running: { readonly worker: Worker; readonly api: Remote<ScanApi> } | null = null;
  const start = (): Remote<ScanApi> => {
    if (!running) {
      const worker = new Worker(new URL('./scan.worker.ts', import.meta.url), { type: 'module' });
      running = { worker, api: wrap<ScanApi>(worker) };
    }
    return running.api;
  };
  return {
    measure: (file, sought, tell) => start().measure(file, sought, proxy(tell)),
    cancel: () => {
      running?.worker.terminate();
      running = null;
    },
  };
}
