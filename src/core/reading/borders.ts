import { identity, type Point } from '../geometry/affine';
import { PARAMETER_COUNT } from '../fit/design';
import { fail, ok, type Result } from '../result';
import { verdictOf, worstCornerBounds, type Bounds, type Verdict } from '../verdict/bound';
import { rimDisplacement } from './observation';

/** A border judged to a quarter of a mm by rule, or by caliper to a twentieth. Common practice, no published source. */
export const BORDER_RULE_SD_MM = 0.25;
export const BORDER_CALIPER_SD_MM = 0.07;

export interface FourBorders {
  readonly leftMm: number;
  readonly rightMm: number;
  readonly topMm: number;
  readonly bottomMm: number;
}

/** outside: cut round a print, white left outside it. inside: a hole cut in a print, ink left round it. */
export const BORDER_SIDES = ['outside', 'inside'] as const;
export type BorderSide = (typeof BORDER_SIDES)[number];

export interface BorderReading {
  /** Cut less print. */
  readonly shift: Point;
  /** Of each component. */
  readonly standardUncertaintyMm: number;
  /** How much wider and longer the cut came out than twice the intended border says; null where none was stated. */
  readonly sizeMm: { readonly across: number; readonly along: number } | null;
  readonly bounds: Bounds;
  readonly verdict: Verdict;
}

export type BorderProblem = { readonly kind: 'no-border'; readonly side: keyof FourBorders };

const ORIGIN: Point = { x: 0, y: 0 };

/**
 * The four borders of one finished piece as a shift of the cut against the print: half the difference of opposite borders;
 * ink gain and kerf change both alike and fall out. All four are asked, so that inside and outside are not mixed up. A
 * piece tells a shift at its own place: no scale and no turn of the sheet. Common practice, no published source.
 * @param borders each zero or more, mm. @param nominalMm the border that was meant, where it is known.
 */
export function readBorders(
  borders: FourBorders,
  {
    side,
    nominalMm,
    borderSdMm,
    toleranceMm,
  }: { side: BorderSide; nominalMm: number | null; borderSdMm: number; toleranceMm: number },
): Result<BorderReading, BorderProblem> {
  for (const [name, value] of Object.entries(borders) as [keyof FourBorders, number][])
    if (!(value >= 0)) return fail({ kind: 'no-border', side: name });
  const sign = side === 'outside' ? 1 : -1;
  const shift = {
    x: sign * rimDisplacement(borders.leftMm, borders.rightMm),
    y: sign * rimDisplacement(borders.bottomMm, borders.topMm),
  };
  const standardUncertaintyMm = borderSdMm / Math.SQRT2;
  const covariance = new Float64Array(PARAMETER_COUNT * PARAMETER_COUNT);
  covariance[0] = standardUncertaintyMm ** 2;
  covariance[PARAMETER_COUNT + 1] = standardUncertaintyMm ** 2;
  const map = { ...identity(), tx: shift.x, ty: shift.y };
  const bounds = worstCornerBounds({ map, covariance, quantileDegrees: Infinity }, [ORIGIN]);
  return ok({
    shift,
    standardUncertaintyMm,
    sizeMm:
      nominalMm === null
        ? null
        : {
            across: sign * (borders.leftMm + borders.rightMm - 2 * nominalMm),
            along: sign * (borders.topMm + borders.bottomMm - 2 * nominalMm),
          },
    bounds,
    verdict: verdictOf(bounds, toleranceMm),
  });
}
