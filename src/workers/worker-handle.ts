import { wrap, type Remote } from 'comlink';

/** A worker that begins when it is first asked, and anew after it was cancelled. */
export interface WorkerHandle<Api> {
  readonly api: () => Remote<Api>;
  /** Ends what runs. */
  readonly cancel: () => void;
}

/** @param make starts the worker; told by its own address, so that it is built along. */
export function workerHandle<Api>(make: () => Worker): WorkerHandle<Api> {
  let running: { readonly worker: Worker; readonly api: Remote<Api> } | null = null;
  return {
    api: () => {
      if (!running) {
        const worker = make();
        running = { worker, api: wrap<Api>(worker) };
      }
      return running.api;
    },
    cancel: () => {
      running?.worker.terminate();
      running = null;
    },
  };
}
