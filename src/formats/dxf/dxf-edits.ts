import { apply, then, type Affine } from '@/core/geometry/affine';
import { asBulges, type BulgePiece } from '@/core/geometry/bulge';
import { movePoint, type PlaneMove } from '@/core/geometry/plane-move';
import { BEND_TOLERANCE_MM } from '../cut-file/cut-file';
import type { Edit } from '../cut-file/splice';
import { valueOf, type DxfRecord } from './dxf-groups';
import { outlineOfItem, type DxfItem } from './dxf-items';
import { dxfNumber, polylineWords } from './dxf-words';

/** The move in the drawing's own units, and in a mirrored frame. */
export function moveInUnits({ affine, bow }: PlaneMove, mm: number, isMirrored: boolean): PlaneMove<'file'> {
  const { xx, xy, yx, yy, tx, ty } = affine;
  const scaled: Affine<'file', 'file'> = { xx, xy, yx, yy, tx: tx / mm, ty: ty / mm };
  const flip: Affine<'file', 'file'> = { xx: -1, xy: 0, yx: 0, yy: 1, tx: 0, ty: 0 };
  const own = isMirrored ? then(then(flip, scaled), flip) : scaled;
  if (!bow) return { affine: own };
  const side = isMirrored ? -1 : 1;
  const pivot = { x: (side * bow.pivot.x) / mm, y: bow.pivot.y / mm };
  // A bow along y points across, so it turns with the mirror; one along x is the same seen from either side.
  return { affine: own, bow: { ...bow, pivot, perMm: bow.perMm * mm * (bow.along === 'y' ? side : 1) } };
}

const isSimilar = (a: Affine<'file', 'file'>): boolean =>
  Math.abs(a.xx - a.yy) < 1e-12 && Math.abs(a.xy + a.yx) < 1e-12;

/** Pairs of codes that hold a place, and those that hold a direction. */
const PLACES: Readonly<Record<number, number>> = { 10: 20, 11: 21 };
const DIRECTIONS: Readonly<Record<number, number>> = { 12: 22, 13: 23 };

/** New numbers for the places of one record, each where the old one stood. */
function inPlace(record: DxfRecord, affine: Affine<'file', 'file'>): readonly Edit[] {
  const edits: Edit[] = [];
  const linear = { ...affine, tx: 0, ty: 0 };
  for (const [i, x] of record.groups.entries()) {
    const y = record.groups[i + 1];
    const isPlace = y !== undefined && PLACES[x.code] === y.code;
    if (!isPlace && (y === undefined || DIRECTIONS[x.code] !== y.code)) continue;
    const moved = apply(isPlace ? affine : linear, { x: Number(x.value), y: Number(y.value) });
    edits.push({ start: x.start, end: x.end, words: dxfNumber(moved.x) });
    edits.push({ start: y.start, end: y.end, words: dxfNumber(moved.y) });
  }
  return edits;
}

/** A circle or arc under a turn and one scale: radius and angles follow. */
function turnedCircle(record: DxfRecord, affine: Affine<'file', 'file'>): readonly Edit[] {
  const scale = Math.hypot(affine.xx, affine.yx);
  const turnDeg = (Math.atan2(affine.yx, affine.xx) * 180) / Math.PI;
  const own = record.groups.flatMap((g): readonly Edit[] => {
    const { start, end } = g;
    if (g.code === 40) return [{ start, end, words: dxfNumber(Number(g.value) * scale) }];
    if (g.code === 50 || g.code === 51)
      return [{ start, end, words: dxfNumber((((Number(g.value) + turnDeg) % 360) + 360) % 360) }];
    return [];
  });
  return [...inPlace(record, affine), ...own];
}

/** Curves that no entity of the format holds under this move become circular pieces: 0.2 um, with a bow 5 um. */
const ARC_TOLERANCE_MM = 0.0002;

export interface Target {
  readonly version: string;
  readonly mm: number;
  readonly move: PlaneMove<'file'>;
  readonly isMirrored: boolean;
}

function asPolyline(item: DxfItem, { version, mm, move, isMirrored }: Target): readonly Edit[] {
  const outline = outlineOfItem(item);
  const first = outline?.pieces[0];
  if (!outline || !first) return [];
  const tolerance = (move.bow ? BEND_TOLERANCE_MM : ARC_TOLERANCE_MM) / mm;
  const pieces = outline.pieces.flatMap((piece): readonly BulgePiece<'file'>[] =>
    piece.isStraight && !move.bow
      ? [{ to: movePoint(move, piece.at(1)), bulge: 0 }]
      : asBulges((t) => movePoint(move, piece.at(t)), tolerance),
  );
  const groups = [item.record, ...item.vertices, ...(item.tail ? [item.tail] : [])].flatMap((r) => r.groups);
  const start = groups[0]?.pairStart ?? 0;
  const end = groups.at(-1)?.pairEnd ?? start;
  const words = polylineWords(
    item,
    { start: movePoint(move, first.at(0)), pieces, isClosed: outline.isClosed, isMirrored },
    version,
  );
  return [{ start, end, words }];
}

const ROUND: ReadonlySet<string> = new Set(['CIRCLE', 'ARC']);
const LOOSE: ReadonlySet<string> = new Set(['SPLINE', 'POINT']);

/** A mesh, or the corners of a smoothed curve: it is not redrawn, its corners move. */
const isSpecial = ({ record }: DxfItem): boolean =>
  record.type === 'POLYLINE' && (Number(valueOf(record, 70) ?? 0) & 0x74) !== 0;

function looseEdits(item: DxfItem, { affine, bow }: PlaneMove<'file'>): EditsOrNot {
  if (item.record.type === 'SPLINE' && bow) return 'cannot-bend';
  return LOOSE.has(item.record.type) ? inPlace(item.record, affine) : null;
}

/** Every place where it stands; the centre line of an old polyline is told by its corners. */
function cornersInPlace(item: DxfItem, affine: Affine<'file', 'file'>): readonly Edit[] {
  if (item.record.type === 'POLYLINE') return item.vertices.flatMap((v) => inPlace(v, affine));
  return ROUND.has(item.record.type) ? turnedCircle(item.record, affine) : inPlace(item.record, affine);
}

type EditsOrNot = readonly Edit[] | 'cannot-bend' | null;

/** Edits of one entity; null when it is none that is cut (a text, a hatch, a dimension). */
export function editsOf(item: DxfItem, target: Target): EditsOrNot {
  const { affine, bow } = target.move;
  const outline = outlineOfItem(item);
  if (!outline) return looseEdits(item, target.move);
  if (isSpecial(item)) return bow ? 'cannot-bend' : cornersInPlace(item, affine);
  const isCurved = outline.pieces.some((p) => !p.isStraight);
  const keepsCurves = isSimilar(affine) && item.record.type !== 'ELLIPSE';
  return bow || (isCurved && !keepsCurves) ? asPolyline(item, target) : cornersInPlace(item, affine);
}
