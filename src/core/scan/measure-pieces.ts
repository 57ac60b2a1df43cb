import { fail, type Result } from '../result';
import { medianOf } from '../math/median';
import { seededRng } from '../math/random';
import { measureDisc } from './disc-measure';
import { findDiscs, findingFactor } from './find-discs';
import { reducedBy, type GrayImage, type Pixel } from './gray';
import { alikeInSize, seenPieces, sizeOf, type Piece, type SeenPieces } from './loose-view';
import { piecesResult } from './measure-loose';
import { resultOf, type MeasuredFigure, type ScanFigure } from './measured-figure';
import type { DecodedDisc } from './page';
import { coarseness, type ScanProblem, type ScanProgress, type ScanResult } from './scan-result';

/** Pieces whose middles lie nearer to each other than this down the picture lie in one row. */
const ROW_MM = 25;

/** A disc among pieces, by its word and its place in reading order, from 1: copied pieces show the same word. */
export const pieceKey = (codeNo: number, orderNo: number): string => `${codeNo} ${orderNo}`;

export function fromPieceKey(key: string): { readonly codeNo: number; readonly orderNo: number } {
  const [codeNo = NaN, orderNo = NaN] = key.split(' ').map(Number);
  return { codeNo, orderNo };
}

/** As one reads: row by row from the top, each from the left. */
export function inReadingOrder<T>(all: readonly T[], placeOf: (one: T) => Pixel, rowPx: number): readonly T[] {
  const fromTop = all.toSorted((a, b) => placeOf(a).y - placeOf(b).y);
  const rows: T[][] = [];
  for (const one of fromTop) {
    const row = rows.at(-1);
    if (row?.[0] !== undefined && placeOf(one).y - placeOf(row[0]).y < rowPx) row.push(one);
    else rows.push([one]);
  }
  return rows.flatMap((row) => row.toSorted((a, b) => placeOf(a).x - placeOf(b).x));
}

/** Discs that show one of the words, all of about one size; none where more of that size show other words. */
function ownOf(decoded: readonly DecodedDisc[], figures: readonly ScanFigure[]): readonly Piece[] {
  const byCode = new Map(figures.map((figure) => [figure.codeNo, figure]));
  const known = decoded.filter(({ code }) => byCode.has(code.codeNo));
  if (known.length === 0) return [];
  const alike = alikeInSize(decoded, medianOf(known.map(sizeOf)));
  const own = alike.flatMap((disc) => {
    const figure = byCode.get(disc.code.codeNo);
    return figure ? [{ figure, disc }] : [];
  });
  return 2 * own.length > alike.length ? own : [];
}

function* measureEach(
  image: GrayImage,
  pieces: readonly Piece[],
  { views, pixelsPerMm }: SeenPieces,
): Generator<ScanProgress, readonly MeasuredFigure[]> {
  const rng = seededRng(1);
  const ordered = inReadingOrder(
    pieces.map(({ figure }, i) => ({ figure, view: views[i]! })),
    ({ view }) => view.centre,
    ROW_MM * pixelsPerMm,
  );
  const measured: MeasuredFigure[] = [];
  for (const { figure, view } of ordered) {
    const keyed = { ...figure, key: pieceKey(figure.codeNo, measured.length + 1) };
    measured.push({ figure: keyed, view, bias: { x: 0, y: 0 }, disc: measureDisc(image, view, keyed, rng) });
    yield { stage: 'measured', done: measured.length, of: ordered.length, disc: resultOf(measured.at(-1)!) };
  }
  return measured;
}

/**
 * Measures pieces cut off a roll that lie on the glass in any number and any way: every coded disc that is seen, in the frame
 * that its own ring tells, the same word as often as it lies there.
 * @param figures one for every word that is looked for, all of one size, holes.
 * @param small the picture reduced by its finding factor, where that was done while it came in.
 * @returns its discs in reading order, each known by `pieceKey`.
 */
export function* measurePieces(
  image: GrayImage,
  figures: readonly ScanFigure[],
  small: GrayImage = reducedBy(image, findingFactor(image)),
): Generator<ScanProgress, Result<ScanResult, ScanProblem>> {
  const decoded = findDiscs(image, small);
  yield { stage: 'found', discs: decoded.map(({ ellipse }) => ellipse.centre) };
  const pieces = ownOf(decoded, figures);
  if (pieces.length === 0) return fail({ kind: decoded.length === 0 ? 'no-discs' : 'other-pieces' });
  const seen = seenPieces(image, pieces);
  const coarse = coarseness(seen.pixelsPerMm);
  if (coarse) return fail(coarse);
  const measured = yield* measureEach(image, pieces, seen);
  return piecesResult(pieces, measured, seen.pixelsPerMm);
}
