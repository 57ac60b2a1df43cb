import type { Point } from '../geometry/affine';
import { CELL_WIDTH_MM, stripBoxes, TRAIL_LENGTH_MM, TRAIL_WIDTH_MM, type Block, type Box } from './block';
import { cellsOf } from './cells';
import { COMB_BELOW_MM, COMB_BOX_LENGTH_MM, COMB_BOX_WIDTH_MM, combToSheet } from './comb';
import { combBoxes, combGridOf, pocketPlaces } from './comb-layout';
import { SMALL_DISC_ROOM_MM } from './disc';
import { LIFT_OFF_CLEAR_MM } from './lift-off';
import type { CombFigure, SheetDefinition } from './sheet-definition';
import { wedgeBoxes } from './wedge-layout';

export interface NamedBox extends Box {
  readonly name: string;
}

/** Box about a place of the sheet frame, in block coordinates. */
function squareAbout(block: Block, c: Point, width: number, height: number): Box {
  return {
    left: c.x + block.widthMm / 2 - width / 2,
    bottom: c.y + block.lengthMm / 2 - height / 2,
    width,
    height,
  };
}

function combZone(block: Block, comb: CombFigure): NamedBox {
  const half = COMB_BOX_LENGTH_MM / 2;
  const a = combToSheet(comb, { s: -half, w: -COMB_BELOW_MM });
  const b = combToSheet(comb, { s: half, w: COMB_BOX_WIDTH_MM - COMB_BELOW_MM });
  const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
  return {
    ...squareAbout(block, middle, Math.abs(b.x - a.x), Math.abs(b.y - a.y)),
    name: `spot ${comb.spotNo} comb ${comb.axis}`,
  };
}

/** Both places of each axis, whether a set uses them or not. */
function wedgeZones({ block, checkKind, wedges }: SheetDefinition): readonly NamedBox[] {
  if (wedges.length === 0) return [];
  return cellsOf(block, checkKind).flatMap((cell, i) => {
    const boxes = wedgeBoxes(cell);
    return [
      ...boxes.along.map((box, k) => ({ ...box, name: `spot ${i + 1} along ${k}` })),
      ...boxes.across.map((box, k) => ({ ...box, name: `spot ${i + 1} across ${k}` })),
      { ...boxes.pocket, bottom: boxes.pocket.bottom + 16, height: 4, name: `number ${i + 1}` },
    ];
  });
}

/** Room for the number in the pocket beside a spot's combs. */
function combNumberZones({ block, checkKind, combs }: SheetDefinition): readonly NamedBox[] {
  const grid = combs.length > 0 ? combGridOf(block) : null;
  if (!grid) return [];
  return cellsOf(grid, checkKind).map((c, i) => {
    const { pocket } = combBoxes(c.left, c.bottom, { isBottom: c.isBottomRow, isRight: c.isRightColumn });
    const { x, y } = pocketPlaces(pocket).number;
    return { left: x - 6, bottom: y - 4, width: 12, height: 8, name: `number ${i + 1}` };
  });
}

function liftOffZones({ block, checkKind, liftOffs }: SheetDefinition): readonly NamedBox[] {
  if (liftOffs.length === 0) return [];
  const side = 2 * LIFT_OFF_CLEAR_MM + 2;
  const cells = cellsOf(block, checkKind);
  return [
    ...liftOffs.map((f) => ({ ...squareAbout(block, f.centre, side, side), name: `disc ${f.spotNo}` })),
    ...cells.map((c, i) => ({
      ...{ left: c.left, bottom: c.bottom, width: CELL_WIDTH_MM, height: 10 },
      name: `number ${i + 1}`,
    })),
  ];
}

/** Every zone that must stay free of every other, in block coordinates. */
export function keepOuts(definition: SheetDefinition): readonly NamedBox[] {
  const { block, trailCentre } = definition;
  const strip = stripBoxes(block);
  const room = 2 * SMALL_DISC_ROOM_MM;
  return [
    ...wedgeZones(definition),
    ...definition.combs.map((comb) => combZone(block, comb)),
    ...combNumberZones(definition),
    ...definition.discs.map((d) => ({
      ...squareAbout(block, d.centre, room, room),
      name: `disc ${d.spotNo} set ${d.setNo}`,
    })),
    ...liftOffZones(definition),
    ...definition.roughs.map((r) => ({
      ...squareAbout(block, r.centre, 2 * r.reachMm + 2, 2 * r.reachMm + 2),
      name: `rough ${r.spotNo}`,
    })),
    ...(trailCentre
      ? [{ ...squareAbout(block, trailCentre, TRAIL_WIDTH_MM, TRAIL_LENGTH_MM), name: 'blade trail' }]
      : []),
    { name: 'check line', left: 1, bottom: 1, width: 5, height: block.lengthMm - 2 },
    { name: 'gaps', ...strip.gaps },
    { name: 'code', ...strip.code },
    { name: 'arrow', ...strip.arrow },
  ];
}
