import { expose, transfer } from 'comlink';
import type { MoveRequest, ReadOptions } from '@/formats/cut-file/cut-file';
import { moveCutFile, surveyCutFile } from '@/formats/cut-file/move-cut-file';

/** Reads and moves cut files off the page's own thread. Results are plain data. */
const api = {
  survey: (bytes: Uint8Array, options: ReadOptions) => surveyCutFile(bytes, options),
  move(bytes: Uint8Array, request: MoveRequest, options: ReadOptions, onProgress: (share: number) => void) {
    const moved = moveCutFile(bytes, request, { ...options, onProgress });
    return moved.ok ? transfer(moved, [moved.value.bytes.buffer]) : moved;
  },
};
export type CutFileApi = typeof api;

expose(api);
