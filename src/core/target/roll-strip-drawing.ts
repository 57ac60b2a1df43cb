import type { Point } from '../geometry/affine';
import { line, discInk, text, wedgeInk, type InkShape } from './figure-ink';
import { circleAbout } from './lift-off';
import { sideAtMm, stationAtMm, stationFigures, type RollStrip } from './roll-strip';
import { stationDiscs } from './station-disc';
import { cutStrip, figureToSheet, WEDGE_BOX_LENGTH_MM } from './wedge';

/** What stands beside every station: its number where stations differ, and which way the roll runs. */
function stationWords(strip: RollStrip, stationNo: number): readonly InkShape[] {
  const y = stationAtMm(strip, stationNo);
  const { form, sides } = strip;
  return sides.flatMap((side): readonly InkShape[] => {
    const x = sideAtMm(strip, side);
    const letter = side.slice(0, 1).toUpperCase();
    const words = form === 'piece' ? letter : `${stationNo}${letter}`;
    const arrow = [
      { x: x + 12, y: y - 6 },
      { x: x + 12, y: y + 12 },
      { x: x + 10, y: y + 8 },
      { x: x + 12, y: y + 12 },
      { x: x + 14, y: y + 8 },
    ];
    return [text({ x: x - 12, y: y + 2 }, words, 4), line(arrow, 0.4)];
  });
}

/** A line across at a station's beginning: from one to the next a rule tells how long the print itself is. */
function startLine(strip: RollStrip, stationNo: number): InkShape {
  const y = (stationNo - 1) * strip.spacingMm + 1;
  const x = WEDGE_BOX_LENGTH_MM / 4;
  const at = strip.sides.includes('left') ? sideAtMm(strip, 'left') : 0;
  return line(
    [
      { x: at - x, y },
      { x: at + x, y },
    ],
    0.2,
  );
}

/** Ink of one station, strip frame. */
export const stationInk = (strip: RollStrip, stationNo: number): readonly InkShape[] => [
  startLine(strip, stationNo),
  ...stationWords(strip, stationNo),
  ...stationFigures(strip, stationNo).flatMap(wedgeInk),
  ...stationDiscs(strip, stationNo).flatMap(discInk),
];

/** Cut lines of one station, strip frame: closed strips, and rounds where there are discs; all are weeded. */
export const stationCuts = (strip: RollStrip, stationNo: number): readonly (readonly Point[])[] => [
  ...stationFigures(strip, stationNo).map((f) => cutStrip(f.halfLengthMm).map((p) => figureToSheet(f, p))),
  ...stationDiscs(strip, stationNo).map((d) => circleAbout(d.centre, d.holeRadiusMm)),
];
