import { proxy } from 'comlink';
import type { PieceReading, PieceSought } from '@/core/piece/piece-reading';
import type { Result } from '@/core/result';
import type { PieceApi, PieceFailure, PieceTold } from './piece.worker';
import { workerHandle } from './worker-handle';

export type { PieceFailure, PieceTold } from './piece.worker';
export type { PicturePreview } from './picture-of';

/** A handle on the worker that measures photographed pieces. `cancel` ends what runs; the next call starts a new one. */
export interface PieceWorker {
  readonly measure: (
    file: Blob,
    sought: PieceSought,
    tell: (told: PieceTold) => void,
  ) => Promise<Result<PieceReading, PieceFailure>>;
  readonly cancel: () => void;
}

export function pieceWorker(): PieceWorker {
  const { api, cancel } = workerHandle<PieceApi>(
    () => new Worker(new URL('./piece.worker.ts', import.meta.url), { type: 'module' }),
  );
  return {
    measure: (file, sought, tell) => api().measure(file, sought, proxy(tell)),
    cancel,
  };
}
