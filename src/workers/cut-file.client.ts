import { proxy } from 'comlink';
import type { CorrectedFile } from '@/formats/cut-file/move-cut-file';
import type { FileProblem, MoveRequest, ReadOptions, Survey } from '@/formats/cut-file/cut-file';
import type { Result } from '@/core/result';
import type { CutFileApi } from './cut-file.worker';
import { workerHandle } from './worker-handle';

export type { DrawnGroup, DrawnLine, FileProblem, GroupBy, Remark, Survey } from '@/formats/cut-file/cut-file';
export type { CorrectedFile } from '@/formats/cut-file/move-cut-file';

/** A handle on the worker that reads cut files. `cancel` ends what runs; the next call starts a new one. */
export interface CutFileWorker {
  readonly survey: (bytes: Uint8Array, options: ReadOptions) => Promise<Result<Survey, FileProblem>>;
  readonly move: (
    bytes: Uint8Array,
    request: MoveRequest,
    options: ReadOptions,
    onProgress: (share: number) => void,
  ) => Promise<Result<CorrectedFile, FileProblem>>;
  readonly cancel: () => void;
}

export function cutFileWorker(): CutFileWorker {
  const { api, cancel } = workerHandle<CutFileApi>(
    () => new Worker(new URL('./cut-file.worker.ts', import.meta.url), { type: 'module' }),
  );
  return {
    survey: (bytes, options) => api().survey(bytes, options),
    move: (bytes, request, options, onProgress) => api().move(bytes, request, options, proxy(onProgress)),
    cancel,
  };
}
