import type { Point } from '../geometry/affine';
import { leastSquares } from '../math/qr';
import { fail, ok, type Result } from '../result';
import { affineThrough, type SeenPlace } from './affine-fit';
import { fromView } from './local-view';
import type { DiscResult, ScanFigure } from './measured-figure';
import type { ScanResult } from './scan-result';

/**
 * What a scanner's own picture may be of a true square: sides of unequal scale and a skew, rectangular within 1 % and 5 mrad.
 * Own prototype's figures, no published source.
 */
export const SCANNER_STRETCH_SD = 0.01 / Math.sqrt(3);
export const SCANNER_SKEW_SD_RAD = 0.005 / Math.sqrt(3);

const LEAST_DISCS = 4;
/** No scan is trusted closer: 1 um over 100 mm. */
const LEAST_SD = 1e-5;

interface Known {
  readonly value: number;
  readonly sd: number;
}

/** How a print differs from its drawing in shape, and the scanner from a true one. */
export interface PrintShape {
  /** Scale across less scale along, as a share: 0.001 is 0.1 % longer across. */
  readonly stretch: Known;
  /** How much less than a right angle the print makes between the sheet's right and up, rad. */
  readonly skewRad: Known;
  /** The same of the scanner, its picture upright. */
  readonly scannerStretch: Known;
  readonly scannerSkewRad: Known;
  /** Variance shared by stretch and skew. */
  readonly covariance: number;
}

/** One scan's map of the print: how unequal and how skew it is, and how the sheet lay. */
interface Seen {
  /** A print seen from behind is skew the other way. */
  readonly side: 1 | -1;
  readonly stretch: number;
  readonly skewRad: number;
  readonly sd: number;
  readonly turnRad: number;
}

/** Middles of printed discs, seen with y up; of a sheet seen from behind with across turned about, so that it is as if seen from the front. */
function placesOf({ discs, isMirrored }: ScanResult, figures: readonly ScanFigure[]): readonly SeenPlace[] {
  const side = isMirrored ? -1 : 1;
  return discs.flatMap(({ key, view, print, state }: DiscResult) => {
    const figure = figures.find((f) => f.key === key);
    if (!print || !view || !figure || state === 'missing') return [];
    const { x, y } = fromView(view, print);
    return [{ at: { x: side * figure.centre.x, y: figure.centre.y }, seen: { x, y: -y } }];
  });
}

/** The picture of the sheet's right and up by least squares, and how it differs from a turn. */
function seenIn(scan: ScanResult, figures: readonly ScanFigure[]): Seen | null {
  const places = placesOf(scan, figures);
  if (places.length < LEAST_DISCS) return null;
  const fit = affineThrough(places);
  if (!fit) return null;
  const { map, squares, inverseNormal } = fit;
  const right = { x: map.xx, y: map.yx };
  const away = { x: map.xy, y: map.yy };
  // Squares of the sides, and their product: all that a turn leaves as it is.
  const [rr, aa, ra] = [dot(right, right), dot(away, away), dot(right, away)];
  const scatter = squares / (2 * places.length - 6);
  const variance = (scatter * (inverseNormal[4]! + inverseNormal[8]!)) / ((rr + aa) / 2);
  return {
    side: scan.isMirrored ? -1 : 1,
    stretch: (rr - aa) / (rr + aa),
    skewRad: (2 * ra) / (rr + aa),
    sd: Math.max(LEAST_SD, Math.sqrt(variance)),
    turnRad: Math.atan2(right.y - away.x, right.x + away.y),
  };
}

const dot = (a: Point, b: Point): number => a.x * b.x + a.y * b.y;

/**
 * Tells the print's own unequal scale and skew from the scanner's: the print turns with the sheet, the scanner stays. What
 * scanners usually do is taken for known beforehand, so that a single scan states what it leaves open and two that are a
 * quarter turn apart free it. A stretch turned by an angle is turned by twice that angle among stretch and skew.
 * Photographs tell neither: their perspective takes it up. Nor do loose pieces, each of which lies its own way.
 * @returns null without a scan of at least four printed discs.
 */
export function printShape(pictures: readonly ScanResult[], figures: readonly ScanFigure[]): PrintShape | null {
  const seen = pictures
    .filter(({ kind, turnDeg }) => kind === 'scan' && turnDeg !== null)
    .flatMap((scan) => seenIn(scan, figures) ?? []);
  if (seen.length === 0) return null;
  const rows: number[] = [];
  const values: number[] = [];
  const add = (row: readonly number[], value: number, sd: number): void => {
    rows.push(...row.map((entry) => entry / sd));
    values.push(value / sd);
  };
  // Print stretch, print skew, scanner stretch, scanner skew.
  for (const { side, stretch, skewRad, sd, turnRad } of seen) {
    const [cos, sin] = [Math.cos(2 * turnRad), Math.sin(2 * turnRad)];
    add([1, 0, cos, sin], stretch, sd);
    add([0, side, -sin, cos], skewRad, sd);
  }
  add([0, 0, 1, 0], 0, SCANNER_STRETCH_SD);
  add([0, 0, 0, 1], 0, SCANNER_SKEW_SD_RAD);
  const fit = leastSquares({ rows: values.length, columns: 4, data: Float64Array.from(rows) }, values);
  if (!fit.ok) return null;
  const { parameters, inverseNormal } = fit.value;
  const known = (i: number): Known => ({ value: parameters[i]!, sd: Math.sqrt(inverseNormal[i * 5]!) });
  return {
    ...{ stretch: known(0), skewRad: known(1), scannerStretch: known(2), scannerSkewRad: known(3) },
    covariance: inverseNormal[1]!,
  };
}

/** A length on the print between the middles of two figures, as a rule or caliper told it. */
export interface MeasuredLength {
  readonly from: Point;
  readonly to: Point;
  readonly lengthMm: number;
  readonly standardUncertaintyMm: number;
}

/** True length of what should be 1, both ways. */
export interface PrintScale {
  readonly across: Known;
  readonly along: Known;
}

export interface LengthTooFarOff {
  readonly kind: 'too-far-off';
  readonly nominalMm: number;
}

/** A length further off than this was measured between other places, or in another unit. */
const MOST_OFF = 0.05;

/**
 * The print's absolute scale from one length on it and its shape: the length tells the scale its own way, the shape what
 * that makes of the others. A length along the way w = (cos, sin) is longer by m + (stretch cos 2w + skew sin 2w) / 2, m
 * being the mean of both scales.
 */
export function printScale(
  { stretch, skewRad, covariance }: PrintShape,
  { from, to, lengthMm, standardUncertaintyMm }: MeasuredLength,
): Result<PrintScale, LengthTooFarOff> {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const nominalMm = Math.hypot(dx, dy);
  const off = lengthMm / nominalMm - 1;
  if (!(Math.abs(off) < MOST_OFF)) return fail({ kind: 'too-far-off', nominalMm });
  const angle = Math.atan2(dy, dx);
  const [cos, sin] = [Math.cos(2 * angle), Math.sin(2 * angle)];
  /** Scale one way: the mean, and half of the stretch with its sign. */
  const scale = (sign: 1 | -1): Known => {
    const byStretch = (sign - cos) / 2;
    const bySkew = -sin / 2;
    const variance =
      (standardUncertaintyMm / nominalMm) ** 2 +
      (byStretch * stretch.sd) ** 2 +
      (bySkew * skewRad.sd) ** 2 +
      2 * byStretch * bySkew * covariance;
    return { value: 1 + off + byStretch * stretch.value + bySkew * skewRad.value, sd: Math.sqrt(variance) };
  };
  return ok({ across: scale(1), along: scale(-1) });
}

/** Figures this far from being side by side, or one above the other, are no straight way for a rule, mm. */
const STRAIGHT_MM = 10;

/** The two figures farthest apart that lie side by side or one above the other; else the two farthest apart. */
export function farthestApart<F extends { readonly centre: Point }>(figures: readonly F[]): readonly [F, F] | null {
  let best: readonly [F, F] | null = null;
  let most = 0;
  figures.forEach((a, i) => {
    for (const b of figures.slice(i + 1)) {
      const [dx, dy] = [Math.abs(a.centre.x - b.centre.x), Math.abs(a.centre.y - b.centre.y)];
      // A straight way counts before every slanting one.
      const worth = Math.hypot(dx, dy) + (Math.min(dx, dy) < STRAIGHT_MM ? SLANTING_LESS_MM : 0);
      if (worth <= most) continue;
      most = worth;
      best = [a, b];
    }
  });
  return best;
}

const SLANTING_LESS_MM = 1e6;
