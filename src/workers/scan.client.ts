import { proxy } from 'comlink';
import type { Result } from '@/core/result';
import type { MeasuredScan, ScanApi, ScanFailure, ScanSought, ScanTold } from './scan.worker';
import { workerHandle } from './worker-handle';

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
  const { api, cancel } = workerHandle<ScanApi>(
    () => new Worker(new URL('./scan.worker.ts', import.meta.url), { type: 'module' }),
  );
  return {
    measure: (file, sought, tell) => api().measure(file, sought, proxy(tell)),
    cancel,
  };
}
