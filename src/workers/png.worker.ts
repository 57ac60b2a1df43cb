import { expose, transfer } from 'comlink';
import { ok, type Result } from '@/core/result';
import type { ImageProblem } from '@/formats/image/gray-image';
import { openPng, type OpenedPieces, type OpenedPng } from '@/formats/image/png-source';

let opened: OpenedPng | null = null;

/** Inflates one PNG beside whoever makes a picture of it. */
const api = {
  async open(file: Blob): Promise<Result<Pick<OpenedPng, 'head' | 'palette'>, ImageProblem>> {
    const result = await openPng(file);
    if (!result.ok) return result;
    opened = result.value;
    return ok({ head: opened.head, palette: opened.palette });
  },
  async next(): Promise<OpenedPieces> {
    const pieces = (await opened?.next()) ?? [];
    return transfer(
      pieces,
      pieces.map(({ buffer }) => buffer),
    );
  },
};
export type PngApi = typeof api;

expose(api);
