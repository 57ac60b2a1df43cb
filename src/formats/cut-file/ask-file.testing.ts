import type { MoveRequest } from './cut-file';
import { moveCutFile, surveyCutFile } from './move-cut-file';
import { timedAtBest } from './work-time.testing';

/** Moves whatever is red, or drawn with the first pen. */
export const MOVE: MoveRequest = {
  by: 'colour',
  names: ['#ff0000', 'pen 1', 'colour 1', 'colour 7'],
  move: { affine: { xx: 1.001, xy: 0.002, yx: -0.001, yy: 0.999, tx: 1, ty: 2 } },
};
export const BEND: MoveRequest = {
  ...MOVE,
  move: { ...MOVE.move, bow: { perMm: 1e-5, along: 'y', pivot: { x: 0, y: 0 } } },
};

/** As long as an answer may take. */
export const LONGEST_MS = 5000;
/** The same of the largest files: as long as other software is made to wait at most. */
export const PATIENCE_MS = 30_000;

export interface Answer {
  readonly outcome: string;
  readonly ms: number;
}

/** What comes of looking at a file, moving and bending it, and how long each keeps the processor busy. */
export function answersTo(text: string, longestMs = LONGEST_MS): Readonly<Record<string, Answer>> {
  const bytes = Uint8Array.from(Buffer.from(text, 'latin1'));
  const asked = {
    survey: () => surveyCutFile(bytes),
    move: () => moveCutFile(bytes, MOVE),
    bowed: () => moveCutFile(bytes, BEND),
  };
  return Object.fromEntries(
    Object.entries(asked).map(([what, ask]) => {
      const { value: answer, busyMs } = timedAtBest(() => ask(), longestMs);
      const outcome = answer.ok ? ('movedCount' in answer.value ? 'moved' : 'read') : answer.error.kind;
      return [what, { outcome, ms: Math.round(busyMs) }];
    }),
  );
}
