import type { Point } from '@/core/geometry/affine';
import type { PlaneMove } from '@/core/geometry/plane-move';

/** Axis-aligned, page frame, mm. */
export interface Box {
  readonly left: number;
  readonly bottom: number;
  readonly right: number;
  readonly top: number;
}

export type CutFileFormat = 'svg' | 'dxf' | 'hpgl';
/** How a drawing tells cut lines from the rest: by colour (or pen), or by layer. */
export type GroupBy = 'colour' | 'layer';

/** Lines of a drawing that share a colour or a layer: the user says what they are. */
export interface DrawnGroup {
  readonly by: GroupBy;
  /** As the file's bytes spell it: what a move is asked for by. */
  readonly name: string;
  /** As its writer meant it. */
  readonly label: string;
  readonly count: number;
  /** Page frame: origin lower left, y up, mm. Null where nothing has a place of its own. */
  readonly box: Box | null;
}

/** Told to the user; nothing is left out silently. */
export interface Remark {
  readonly kind:
    | 'size-not-stated'
    | 'unit-not-stated'
    | 'clipped'
    | 'text-stays'
    | 'not-moved'
    | 'style-not-understood'
    | 'extent-moves'
    | 'negative';
  readonly words: string;
}

/** A line to be shown, page frame, mm; curves by chords. */
export interface DrawnLine {
  readonly colour: string;
  readonly layer: string;
  readonly points: readonly Point<'page'>[];
}

export interface Survey {
  readonly format: CutFileFormat;
  readonly widthMm: number | null;
  readonly heightMm: number | null;
  readonly groups: readonly DrawnGroup[];
  /** As many lines as a picture can show; of a very large drawing not all. */
  readonly lines: readonly DrawnLine[];
  readonly remarks: readonly Remark[];
}

/** Which groups move, and how. Everything else stays as its bytes are. */
export interface MoveRequest {
  readonly by: GroupBy;
  readonly names: readonly string[];
  readonly move: PlaneMove;
}

export interface MovedFile {
  readonly text: string;
  readonly movedCount: number;
  readonly remarks: readonly Remark[];
}

/** Why a file is not taken: what stood where, and what would do. */
export interface FileProblem {
  readonly kind:
    'not-a-drawing' | 'too-large' | 'not-understood' | 'not-finite' | 'mixed-use' | 'nothing-to-move' | 'cannot-bend';
  readonly where: string;
  readonly words: string;
}

export interface ReadOptions {
  /** Of an SVG whose size is in plain numbers: 96, or 72 for programs that count so. */
  readonly pxPerInch?: 96 | 72;
  /** Of a DXF without a unit. */
  readonly mmPerUnit?: number;
  /** Told now and then how much is done, 0 to 1. */
  readonly onProgress?: (share: number) => void;
}

/** Between two words of progress. */
const STRIDE = 1024;

/** Tells the progress of a loop without slowing it. @param count of steps done, @param share 0 to 1. */
export function tellProgress({ onProgress }: ReadOptions, count: number, share: number): void {
  if (onProgress && count % STRIDE === 0) onProgress(share);
}

export const problem = (kind: FileProblem['kind'], where: string, words: string): FileProblem => ({
  kind,
  where,
  words,
});

/** Bounds that no honest drawing reaches; a hostile one is refused before it costs anything. */
export const MOST_CHARACTERS = 64 * 1024 * 1024;
export const MOST_ELEMENTS = 200_000;
export const MOST_DEPTH = 64;
/** Nothing that is cut lies farther from its origin than a whole roll is long. */
export const FARTHEST_MM = 100_000;
/** Pieces that bending may make of all the curves and long lines of a file. */
export const MOST_PIECES = 250_000;

/** Pieces that bending may still come to, counted down. */
export interface PiecesLeft {
  pieces: number;
}
/** Curves that cannot stay what they are come within this of where they should be. */
export const BEND_TOLERANCE_MM = 0.005;

/** Number of the line that a place in a text stands in, from 1. */
export function lineNumber(text: string, at: number): number {
  let line = 1;
  for (let end = text.indexOf('\n'); end >= 0 && end < at; end = text.indexOf('\n', end + 1)) line += 1;
  return line;
}

export const tooFar = (where: string): FileProblem =>
  problem('not-finite', where, 'It lies more than 100 m from the origin, or nowhere: the drawing is damaged.');
export const tooManyPieces = (where: string): FileProblem =>
  problem('too-large', where, `Bent, the drawing would come to more than ${MOST_PIECES} pieces.`);
