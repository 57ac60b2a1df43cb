import { proxy } from 'comlink';
import type { JobEdge, JobItem } from '@/core/layout/job-draft';
import type { Result } from '@/core/result';
import type { FileProblem } from '@/formats/cut-file/cut-file';
import type { ArtSurvey, EdgeAnswer, EdgeQuestion, ItemView, LayoutApi } from './layout.worker';
import { workerHandle } from './worker-handle';

export type { FileProblem } from '@/formats/cut-file/cut-file';
export type { ArtGroup, ArtSurvey, EdgeAnswer, EdgeQuestion, ItemView } from './layout.worker';

type Tell = (share: number) => void;

/** A handle on the worker that makes items ready. `cancel` ends what runs; the next call starts a new one, which has read nothing. */
export interface LayoutWorker {
  readonly read: (fileId: string, text: string) => Promise<Result<ArtSurvey, FileProblem>>;
  readonly naturalSize: (item: JobItem) => Promise<{ readonly widthMm: number; readonly lengthMm: number } | null>;
  readonly prepare: (
    item: JobItem,
    options: { readonly edge: JobEdge; readonly isMirrored: boolean },
    onProgress: Tell,
  ) => Promise<Result<ItemView, FileProblem>>;
  readonly edge: (question: EdgeQuestion) => Promise<EdgeAnswer>;
  readonly fingerprint: (file: File, onProgress: Tell) => Promise<string>;
  readonly cancel: () => void;
}

export function layoutWorker(): LayoutWorker {
  const { api, cancel } = workerHandle<LayoutApi>(
    () => new Worker(new URL('./layout.worker.ts', import.meta.url), { type: 'module' }),
  );
  return {
    read: (fileId, text) => api().read(fileId, text),
    naturalSize: (item) => api().naturalSize(item),
    prepare: (item, options, onProgress) => api().prepare(item, options, proxy(onProgress)),
    edge: (question) => api().edge(question),
    fingerprint: (file, onProgress) => api().fingerprint(file, proxy(onProgress)),
    cancel,
  };
}
