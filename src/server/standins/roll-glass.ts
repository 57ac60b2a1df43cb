import 'server-only';
import { apply, translation, then, type Affine, type Point } from '@/core/geometry/affine';
import type { Rng } from '@/core/math/random';
import { line, type InkShape } from '@/core/target/figure-ink';
import {
  SIDE_WIDTH_MM,
  sideAtMm,
  slotName,
  stationAtMm,
  type RollStrip,
  type StripSide,
} from '@/core/target/roll-strip';
import { stationCuts, stationInk } from '@/core/target/roll-strip-drawing';
import { AXES } from '@/core/target/wedge';
import type { SheetPicture } from './print-and-cut';

/** A4 glass: so many pieces lie on it, in rows from the top. */
export const GLASS_MM = { widthMm: 210, lengthMm: 297 };
const COLUMNS = 4;
const ROWS = 3;
const PITCH_MM = { across: 50, along: 94 };
/** A piece is cut off the roll so far from its station's middle. */
const HALF_LENGTH_MM = 34;
const LAID_DOWN_RAD = 0.08;

export const PIECES_ON_GLASS = COLUMNS * ROWS;

interface Piece {
  readonly stationNo: number;
  readonly side: StripSide;
}

/** Pieces of some stations, from one on, as many as have room. */
export function piecesFrom(strip: RollStrip, firstNo: number): readonly Piece[] {
  const most = Math.floor(PIECES_ON_GLASS / strip.sides.length);
  const count = Math.min(most, strip.stations - firstNo + 1);
  return Array.from({ length: Math.max(0, count) }, (_, i) => firstNo + i).flatMap((stationNo) =>
    strip.sides.map((side) => ({ stationNo, side })),
  );
}

/** Cut less print of a disc, by the name of its place. */
export type CutOffs = ReadonlyMap<string, number>;

const pointsOf = (shape: InkShape): readonly Point[] => (shape.kind === 'text' ? [] : shape.points);

/** A piece's own frame (its station's middle at its side) to where it lies. */
function lying(i: number, isTurned: boolean, rng: Rng): Affine {
  const at = {
    x: ((i % COLUMNS) - (COLUMNS - 1) / 2) * PITCH_MM.across + 2 * (rng() - 0.5),
    y: ((ROWS - 1) / 2 - Math.floor(i / COLUMNS)) * PITCH_MM.along + 2 * (rng() - 0.5),
  };
  const turn = LAID_DOWN_RAD * (2 * rng() - 1) + (isTurned ? Math.PI : 0);
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  return { xx: cos, xy: -sin, yx: sin, yy: cos, tx: at.x, ty: at.y };
}

/** What lies on the glass: pieces cut off the roll about their figures, the cuts where the stand-in's knife made them. */
export function piecesOnGlass(
  strip: RollStrip,
  pieces: readonly Piece[],
  { cutOffs, isTurned }: { readonly cutOffs: CutOffs; readonly isTurned: boolean },
  rng: Rng,
): SheetPicture {
  const ink: SheetPicture['ink'][number][] = [];
  const cuts: (readonly Point[])[] = [];
  pieces.forEach((piece, i) => {
    const middle = { x: sideAtMm(strip, piece.side), y: stationAtMm(strip, piece.stationNo) };
    const isOwn = (points: readonly Point[]): boolean =>
      points.length > 0 &&
      points.every((p) => Math.abs(p.x - middle.x) < SIDE_WIDTH_MM / 2 && Math.abs(p.y - middle.y) < HALF_LENGTH_MM);
    const placing = then(translation(-middle.x, -middle.y), lying(i, isTurned, rng));
    const [x = 0, y = 0] = AXES.map((axis) => cutOffs.get(slotName({ ...piece, axis })) ?? 0);
    const put = (points: readonly Point[]): readonly Point[] => points.map((p) => apply(placing, p));
    const [w, h] = [SIDE_WIDTH_MM / 2, HALF_LENGTH_MM];
    const edge = [
      { x: middle.x - w, y: middle.y - h },
      { x: middle.x + w, y: middle.y - h },
      { x: middle.x + w, y: middle.y + h },
      { x: middle.x - w, y: middle.y + h },
      { x: middle.x - w, y: middle.y - h },
    ];
    for (const shape of [line(edge, 0.15), ...stationInk(strip, piece.stationNo)]) {
      const points = pointsOf(shape);
      if (points !== edge && !isOwn(points)) continue;
      const widthMm = shape.kind === 'line' ? shape.widthMm : 0;
      ink.push({ points: put(points), isFilled: shape.kind === 'fill', widthMm });
    }
    for (const cut of stationCuts(strip, piece.stationNo).filter(isOwn))
      cuts.push(put(cut.map((p) => ({ x: p.x + x, y: p.y + y }))));
  });
  return { ink, cuts };
}
