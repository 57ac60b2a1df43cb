import type { Point } from '../geometry/affine';
import { blockToSheet, GAP_PITCH_MM, stripBoxes, TRAIL_LENGTH_MM, TRAIL_WIDTH_MM, type Block } from './block';
import { combCuts } from './comb';
import { combInk, discInk, HAIR_MM, liftOffInk, line, roughInk, text, wedgeInk, type InkShape } from './figure-ink';
import { circleAbout, liftOffCut } from './lift-off';
import { referenceGapsMm } from './reference-gaps';
import { RING_TO_NUMBER_MM } from './comb-layout';
import { discOf, type RoughFigure, type SetNo, type SheetDefinition } from './sheet-definition';
import { cutStrip, figureToSheet } from './wedge';

export type CutPath = readonly Point[];

/** The cut L: a closed outline 1.5 mm wide whose outer corner is the place read. */
export function roughCut(rough: RoughFigure): CutPath {
  const { x, y } = rough.centre;
  const corners = [
    [0, 0],
    [8, 0],
    [8, 1.5],
    [1.5, 1.5],
    [1.5, 8],
    [0, 8],
    [0, 0],
  ] as const;
  return corners.map(([dx, dy]) => ({ x: x + dx, y: y + dy }));
}

const CIRCLE_SIDES = 96;
const TRAIL_RADIUS_MM = 5;

/** Blade trail: a circle with a straight lead-in and 2 mm of overcut. It closes only when the blade offset is right. */
export function trailCut(centre: Point): CutPath {
  const y = centre.y + 2;
  const arc = Array.from({ length: CIRCLE_SIDES + 7 }, (_, i) => {
    const angle = (2 * Math.PI * i) / CIRCLE_SIDES;
    return { x: centre.x + TRAIL_RADIUS_MM * Math.cos(angle), y: y + TRAIL_RADIUS_MM * Math.sin(angle) };
  });
  return [{ x: centre.x + TRAIL_RADIUS_MM, y: y - 4 }, ...arc];
}

function trailInk(centre: Point): readonly InkShape[] {
  const x = TRAIL_WIDTH_MM / 2;
  const y = TRAIL_LENGTH_MM / 2;
  const frame = [
    { x: centre.x - x, y: centre.y - y },
    { x: centre.x + x, y: centre.y - y },
    { x: centre.x + x, y: centre.y + y },
    { x: centre.x - x, y: centre.y + y },
    { x: centre.x - x, y: centre.y - y },
  ];
  return [
    line(frame, HAIR_MM),
    text({ x: centre.x, y: centre.y - 7.2 }, 'does it', 1.5),
    text({ x: centre.x, y: centre.y - 9.8 }, 'close?', 1.5),
  ];
}

export const CHECK_LINE_X_MM = 3.5;

/** The long check line with a bar at each end; measured from bar to bar. */
function checkLineInk(block: Block): readonly InkShape[] {
  const bottom = (block.lengthMm - block.checkLineMm) / 2;
  const at = (x: number, y: number): Point => blockToSheet(block, x, y);
  const x = CHECK_LINE_X_MM;
  return [
    line([at(x, bottom), at(x, bottom + block.checkLineMm)], 0.2),
    ...[bottom, bottom + block.checkLineMm].map((y) => line([at(x - 2, y), at(x + 2, y)], 0.2)),
    text(at(x - 0.8, block.lengthMm / 2), `bar to bar ${block.checkLineMm} mm`, 1.4, 90),
  ];
}

/** Pairs of bars with a known gap between them, to compare a rim with. */
function gapsInk({ block, liftOffs }: Pick<SheetDefinition, 'block' | 'liftOffs'>): readonly InkShape[] {
  const isForRims = liftOffs.length > 0;
  // Wide gaps need narrower bars to stay within their pitch.
  const [start, width] = isForRims ? [1.5, 1.2] : [2.5, 1.6];
  return referenceGapsMm(block, isForRims).flatMap((gap, i) => {
    const x = stripBoxes(block).gaps.left + start + i * GAP_PITCH_MM;
    const bar = (left: number): InkShape => ({
      kind: 'fill',
      points: [
        [left, 4.5],
        [left + width, 4.5],
        [left + width, 10],
        [left, 10],
      ].map(([px, py]) => blockToSheet(block, px!, py!)),
    });
    return [bar(x), bar(x + width + gap), text(blockToSheet(block, x + width + gap / 2, 2), gap.toFixed(1), 1.4)];
  });
}

function arrowInk(block: Block): readonly InkShape[] {
  const { left } = stripBoxes(block).arrow;
  const outline = [
    [5, 10.3],
    [9, 5.8],
    [6.3, 5.8],
    [6.3, 1.8],
    [3.7, 1.8],
    [3.7, 5.8],
    [1, 5.8],
  ] as const;
  return [{ kind: 'fill', points: outline.map(([x, y]) => blockToSheet(block, left + x, y)) }];
}

function borderInk(block: Block): InkShape {
  const at = (x: number, y: number): Point => blockToSheet(block, x, y);
  const { widthMm: w, lengthMm: l } = block;
  return line([at(0.1, 0.1), at(w - 0.1, 0.1), at(w - 0.1, l - 0.1), at(0.1, l - 0.1), at(0.1, 0.1)], 0.2);
}

/** Everything that is printed on the block; `code` is the short code of the definition's hash. */
export function inkOf(definition: SheetDefinition, code: string): readonly InkShape[] {
  const { block } = definition;
  const codeX = stripBoxes(block).code.left + 20;
  return [
    borderInk(block),
    ...checkLineInk(block),
    ...gapsInk(definition),
    ...arrowInk(block),
    text(blockToSheet(block, codeX, 6.2), code, 3),
    text(blockToSheet(block, codeX, 2.4), `W ${block.widthMm}  H ${block.lengthMm} mm`, 1.8),
    ...definition.spots.map((spot) => spotNumber(definition, spot.spotNo, spot.centre)),
    ...definition.wedges.flatMap(wedgeInk),
    ...definition.combs.flatMap(combInk),
    ...definition.discs.flatMap(discInk),
    ...definition.liftOffs.flatMap(liftOffInk),
    ...definition.roughs.flatMap(roughInk),
    ...(definition.trailCentre ? trailInk(definition.trailCentre) : []),
  ];
}

/** The other face of a sheet of lift-off discs, in the front's sheet frame: each disc once more, and the words that say so. */
export function backInkOf(definition: SheetDefinition, code: string): readonly InkShape[] {
  const discs = definition.liftOffs.flatMap(liftOffInk);
  const numbers = definition.liftOffs.map(({ spotNo, centre }) =>
    text({ x: centre.x, y: centre.y - 22 }, String(spotNo), 3),
  );
  return [...discs, ...numbers, text({ x: 0, y: -definition.block.lengthMm / 2 + 6 }, `${code} BACK`, 3)];
}

/** The spot's number: below a lift-off disc, else in the pocket beside the figures, between its discs or beside a comb's ring. */
function spotNumber(definition: SheetDefinition, spotNo: number, centre: Point): InkShape {
  const { block } = definition;
  if (definition.liftOffs.length > 0) return text({ x: centre.x, y: centre.y - 22 }, String(spotNo), 3);
  const ring = definition.combs.length > 0 ? discOf(definition, 1, spotNo) : undefined;
  if (ring) return text({ x: ring.centre.x + RING_TO_NUMBER_MM, y: ring.centre.y - 1.5 }, String(spotNo), 3);
  const isRight = centre.x > block.widthMm / 4;
  const isBottom = centre.y < -block.lengthMm / 4;
  const isComb = definition.combs.length > 0;
  const [aside, low, high] = isComb ? [8, 24, 8] : [10, 10, -10];
  return text(
    { x: centre.x + (isRight ? -aside : aside), y: centre.y + (isBottom ? low : high) - 1.5 },
    String(spotNo),
    3,
  );
}

/** Cut lines of one set in the order of cutting: small figures first, the rough Ls and the blade trail with set 1 only. */
export function cutOf(definition: SheetDefinition, setNo: SetNo): readonly CutPath[] {
  const holes = definition.discs.filter((d) => d.setNo === setNo).map((d) => circleAbout(d.centre, d.holeRadiusMm));
  const strips = definition.wedges
    .filter((w) => w.setNo === setNo)
    .map((w) => cutStrip(w.halfLengthMm).map((p) => figureToSheet(w, p)));
  if (setNo === 2) return [...holes, ...strips];
  return [
    ...(definition.trailCentre ? [trailCut(definition.trailCentre)] : []),
    ...definition.roughs.map(roughCut),
    ...definition.combs.flatMap(combCuts),
    ...holes,
    ...strips,
    ...definition.liftOffs.map(liftOffCut),
  ];
}
