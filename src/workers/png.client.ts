import { wrap } from 'comlink';
import { ok } from '@/core/result';
import type { OpenPng } from '@/formats/image/png-source';
import type { PngApi } from './png.worker';

/** Opens a PNG in a worker of its own, so that inflating and what is made of it go on side by side. */
export const openPngBeside: OpenPng = async (file) => {
  const worker = new Worker(new URL('./png.worker.ts', import.meta.url), { type: 'module' });
  const api = wrap<PngApi>(worker);
  const failed = new Promise<never>((_resolve, reject) => {
    worker.addEventListener('error', () => {
      reject(new Error('the helper that inflates failed'));
    });
  });
  failed.catch(() => undefined);
  const opened = await Promise.race([api.open(file), failed]);
  if (!opened.ok) {
    worker.terminate();
    return opened;
  }
  return ok({
    ...opened.value,
    next: () => Promise.race([api.next(), failed]),
    close: () => {
      worker.terminate();
      return Promise.resolve();
    },
  });
};
