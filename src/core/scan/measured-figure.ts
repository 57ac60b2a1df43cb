import type { Point } from '../geometry/affine';
import { MAD_TO_SD, medianOf } from '../math/median';
import { seededRng } from '../math/random';
import { isMeasured, type DiscState, type FigureShape, type MeasuredDisc } from './disc-measure';
import { inlierShare, refitted, type SampledEdge } from './edge-about';
import { downOf, type LocalView } from './local-view';
import type { ExpectedFigure } from './page';

/** A coded figure of a sheet. */
export interface ScanFigure extends ExpectedFigure, FigureShape {}

/** A circle in the picture and in the sheet's mm. */
export interface SeenCircle {
  /** Against the figure's expected place, sheet mm. */
  readonly x: number;
  readonly y: number;
  readonly radiusMm: number;
  readonly inlierShare: number;
}

/** The cut against the print at one disc, sheet frame, print mm. */
export interface DiscDisplacement {
  readonly acrossMm: number;
  readonly alongMm: number;
  readonly acrossVariance: number;
  readonly alongVariance: number;
  readonly covariance: number;
}

export interface DiscResult {
  readonly key: string;
  readonly state: DiscState;
  /** Where it is seen; null of a loose piece that is not. */
  readonly view: LocalView | null;
  /**
   * The way in the sheet frame along which the disc may be shifted as all others of the picture are: the carriage's travel
   * (the picture's way down) of a scan, the way that leads away from a camera.
   */
  readonly travel: Point;
  readonly print: SeenCircle | null;
  readonly cut: SeenCircle | null;
  /** Only where the disc is good or partial. */
  readonly displacement: DiscDisplacement | null;
}

/** A figure as it was measured, before it is told. */
export interface MeasuredFigure {
  readonly figure: ScanFigure;
  readonly view: LocalView | null;
  /** How far perspective makes the cut's middle seem to lie from the print's. */
  readonly bias: Point;
  /** Where it is not the picture's way down. */
  readonly travel?: Point;
  readonly disc: MeasuredDisc;
}

/** A radius is never trusted closer than this, mm, nor spread wider. */
const LEAST_RADIUS_SD_MM = 0.002;

const seen = (edge: SampledEdge): SeenCircle => ({
  x: edge.x + edge.fit.x,
  y: edge.y + edge.fit.y,
  radiusMm: edge.fit.radiusMm,
  inlierShare: inlierShare(edge),
});

function displacementOf({ disc: { state, print, cut }, bias }: MeasuredFigure): DiscDisplacement | null {
  if (!print || !cut || !isMeasured(state)) return null;
  return {
    acrossMm: cut.x + cut.fit.x - print.x - print.fit.x - bias.x,
    alongMm: cut.y + cut.fit.y - print.y - print.fit.y - bias.y,
    acrossVariance: cut.fit.xx + print.fit.xx,
    alongVariance: cut.fit.yy + print.fit.yy,
    covariance: cut.fit.xy + print.fit.xy,
  };
}

export function resultOf(measured: MeasuredFigure): DiscResult {
  const { figure, view, disc, travel } = measured;
  return {
    key: figure.key,
    state: disc.state,
    view,
    travel: travel ?? (view ? downOf(view) : { x: 0, y: 0 }),
    print: disc.print && seen(disc.print),
    cut: disc.cut && seen(disc.cut),
    displacement: displacementOf(measured),
  };
}

/** Median and spread (from the median deviation) of the radii of good discs of one size. */
export function commonRadius(radii: readonly number[]): { readonly radiusMm: number; readonly sdMm: number } | null {
  if (radii.length < 3) return null;
  const radiusMm = medianOf(radii);
  const sdMm = Math.max(LEAST_RADIUS_SD_MM, MAD_TO_SD * medianOf(radii.map((r) => Math.abs(r - radiusMm))));
  return { radiusMm, sdMm };
}

/** Radii are common to the sheet: every disc fitted again with what the good ones of its size agree on. */
export function withCommonRadii(measured: readonly MeasuredFigure[]): readonly MeasuredFigure[] {
  const rng = seededRng(2);
  const sizes = [...new Set(measured.map(({ figure }) => figure.radiusMm))];
  return sizes.flatMap((radiusMm) => {
    const own = measured.filter(({ figure }) => figure.radiusMm === radiusMm);
    const good = own.filter(({ disc }) => disc.state === 'good');
    const print = commonRadius(good.flatMap(({ disc }) => (disc.print ? [disc.print.fit.radiusMm] : [])));
    const cut = commonRadius(good.flatMap(({ disc }) => (disc.cut ? [disc.cut.fit.radiusMm] : [])));
    if (!print || !cut) return own;
    return own.map((m) => ({
      ...m,
      disc: {
        ...m.disc,
        print: m.disc.print && refitted(m.disc.print, print.radiusMm, print.sdMm, rng),
        cut: m.disc.cut && refitted(m.disc.cut, cut.radiusMm, cut.sdMm, rng),
      },
    }));
  });
}
