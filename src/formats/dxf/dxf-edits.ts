import { apply, then, type Affine, type Point } from '@/core/geometry/affine';
import { asBulges } from '@/core/geometry/bulge';
import { bowHeight, movePoint, type PlaneMove } from '@/core/geometry/plane-move';
import { BEND_TOLERANCE_MM, type PiecesLeft } from '../cut-file/cut-file';
import type { Splicer } from '../cut-file/splice';
import { codeAt, endAt, pairStartAt, startAt, valueAt, valueOf, type DxfGroups, type DxfRecord } from './dxf-groups';
import { outlineOfItem, type DxfItem, type DxfOutline, type DxfPiece } from './dxf-items';
import { dxfNumber, polylineWords, type NewOutline } from './dxf-words';

/** The move in the drawing's own units, and in a mirrored frame. */
export function moveInUnits({ affine, bow }: PlaneMove, mm: number, isMirrored: boolean): PlaneMove<'file'> {
  const { xx, xy, yx, yy, tx, ty } = affine;
  const scaled: Affine<'file', 'file'> = { xx, xy, yx, yy, tx: tx / mm, ty: ty / mm };
  const flip: Affine<'file', 'file'> = { xx: -1, xy: 0, yx: 0, yy: 1, tx: 0, ty: 0 };
  const own = isMirrored ? then(then(flip, scaled), flip) : scaled;
  if (!bow) return { affine: own };
  const side = isMirrored ? -1 : 1;
  const pivot = { x: (side * bow.pivot.x) / mm, y: bow.pivot.y / mm };
  // What points along x turns with the mirror; what points along y is the same seen from either side.
  const [acrossSide, alongSide] = bow.along === 'y' ? [side, 1] : [1, side];
  const [perMm, alongPerMm] = [bow.perMm * mm * acrossSide, (bow.alongPerMm ?? 0) * mm * alongSide];
  return { affine: own, bow: { along: bow.along, pivot, perMm, alongPerMm } };
}

const isSimilar = (a: Affine<'file', 'file'>): boolean =>
  Math.abs(a.xx - a.yy) < 1e-12 && Math.abs(a.xy + a.yx) < 1e-12;

/** Pairs of codes that hold a place, and those that hold a direction. */
const PLACES: Readonly<Record<number, number>> = { 10: 20, 11: 21 };
const DIRECTIONS: Readonly<Record<number, number>> = { 12: 22, 13: 23 };

type Change = (code: number, value: number) => number;

/** One number of a record where the old one stood. */
function writeNumber(groups: DxfGroups, i: number, value: number, out: Splicer): void {
  out.take({ start: startAt(groups, i), end: endAt(groups, i), words: dxfNumber(value) });
}

const unchanged: Change = (_code, value) => value;

/** New numbers for the places of one record, each where the old one stood; its other numbers by `change`. */
function writeInPlace(record: DxfRecord, affine: Affine<'file', 'file'>, out: Splicer, change = unchanged): void {
  const { groups, from, to } = record;
  const linear = { ...affine, tx: 0, ty: 0 };
  for (let i = from; i < to; i++) {
    const code = codeAt(groups, i);
    const next = i + 1 < to ? codeAt(groups, i + 1) : NaN;
    const value = (at: number): number => Number(valueAt(groups, at));
    if (PLACES[code] === next || DIRECTIONS[code] === next) {
      const moved = apply(PLACES[code] === next ? affine : linear, { x: value(i), y: value(i + 1) });
      writeNumber(groups, i, moved.x, out);
      writeNumber(groups, i + 1, moved.y, out);
      i += 1;
    } else if (change !== unchanged && TURNED.has(code)) writeNumber(groups, i, change(code, value(i)), out);
  }
}

/** Radius, and start and end angle, of a circle or arc. */
const TURNED: ReadonlySet<number> = new Set([40, 50, 51]);

/** A circle or arc under a turn and one scale: radius and angles follow. */
function writeTurned(record: DxfRecord, affine: Affine<'file', 'file'>, out: Splicer): void {
  const scale = Math.hypot(affine.xx, affine.yx);
  const turnDeg = (Math.atan2(affine.yx, affine.xx) * 180) / Math.PI;
  writeInPlace(record, affine, out, (code, value) =>
    code === 40 ? value * scale : (((value + turnDeg) % 360) + 360) % 360,
  );
}

/** Curves that no entity of the format holds under this move become circular pieces: 0.2 um, with a bow 5 um. */
const ARC_TOLERANCE_MM = 0.0002;

export interface Target {
  readonly version: string;
  readonly mm: number;
  readonly move: PlaneMove<'file'>;
  readonly isMirrored: boolean;
  readonly left: PiecesLeft;
}

const keepsStraight = (piece: DxfPiece, move: PlaneMove<'file'>, tolerance: number): boolean =>
  piece.isStraight && bowHeight(move, piece.at(0), piece.at(1)) <= tolerance / 2;

/** Cut short when no pieces are left. */
function bentOutline(outline: DxfOutline, { mm, move, isMirrored, left }: Target): NewOutline {
  const tolerance = (move.bow ? BEND_TOLERANCE_MM : ARC_TOLERANCE_MM) / mm;
  const bent: NewOutline = { xs: [], ys: [], bulges: [], isClosed: outline.isClosed, isMirrored };
  const { xs, ys, bulges } = bent;
  for (const piece of outline.pieces()) {
    if (xs.length === 0) pushPlace(bent, movePoint(move, piece.at(0)));
    const pieces = keepsStraight(piece, move, tolerance)
      ? [{ to: movePoint(move, piece.at(1)), bulge: 0 }]
      : asBulges((t) => movePoint(move, piece.at(t)), tolerance);
    if (pieces.length > 1) left.pieces -= pieces.length;
    if (left.pieces <= 0) return bent;
    for (const { to, bulge } of pieces) {
      bulges.push(bulge);
      pushPlace(bent, to);
    }
  }
  // A closed line does not say its start twice.
  if (outline.isClosed) {
    xs.pop();
    ys.pop();
  } else bulges.push(0);
  return bent;
}

function pushPlace({ xs, ys }: NewOutline, { x, y }: Point<'file'>): void {
  xs.push(x);
  ys.push(y);
}

/** Writes an entity anew as a polyline of circular pieces. */
function writeAsPolyline(item: DxfItem, outline: DxfOutline, target: Target, out: Splicer): void {
  const { record, vertices, tail } = item;
  const last = tail ?? vertices.at(-1) ?? record;
  const bent = bentOutline(outline, target);
  if (bent.xs.length === 0) return;
  out.take({
    start: pairStartAt(record.groups, record.from),
    end: pairStartAt(record.groups, last.to),
    words: polylineWords(item, bent, target.version),
  });
}

const ROUND: ReadonlySet<string> = new Set(['CIRCLE', 'ARC']);
export const LOOSE: ReadonlySet<string> = new Set(['SPLINE', 'POINT']);

/** A mesh, or the corners of a smoothed curve: it is not redrawn, its corners move. */
const isSpecial = ({ record }: DxfItem): boolean =>
  record.type === 'POLYLINE' && (Number(valueOf(record, 70) ?? 0) & 0x74) !== 0;

type Written = 'moved' | 'cannot-bend' | 'not-cut';

function writeLoose({ record }: DxfItem, { affine, bow }: PlaneMove<'file'>, out: Splicer): Written {
  if (record.type === 'SPLINE' && bow) return 'cannot-bend';
  if (!LOOSE.has(record.type)) return 'not-cut';
  writeInPlace(record, affine, out);
  return 'moved';
}

/** Every place where it stands; the centre line of an old polyline is told by its corners. */
function writeCorners({ record, vertices }: DxfItem, affine: Affine<'file', 'file'>, out: Splicer): void {
  if (record.type === 'POLYLINE') for (const vertex of vertices) writeInPlace(vertex, affine, out);
  else if (ROUND.has(record.type)) writeTurned(record, affine, out);
  else writeInPlace(record, affine, out);
}

/** Writes one entity where it moves to; a text, a hatch or a dimension is none that is cut. */
export function writeMoved(item: DxfItem, target: Target, out: Splicer): Written {
  const { affine, bow } = target.move;
  const outline = outlineOfItem(item);
  if (!outline) return writeLoose(item, target.move, out);
  const keepsCurves = isSimilar(affine) && item.record.type !== 'ELLIPSE';
  if (isSpecial(item) && bow) return 'cannot-bend';
  if (isSpecial(item) || (!bow && (!outline.isCurved || keepsCurves))) writeCorners(item, affine, out);
  else writeAsPolyline(item, outline, target, out);
  return 'moved';
}
