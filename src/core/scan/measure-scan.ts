import { fail, ok, type Result } from '../result';
import { seededRng } from '../math/random';
import type { Point } from '../geometry/affine';
import {
  measureDisc,
  refitted,
  type DiscSize,
  type DiscState,
  type MeasuredDisc,
  type SampledEdge,
} from './disc-measure';
import { findDiscs } from './find-discs';
import type { GrayImage, Pixel } from './gray';
import { findPage, viewAt, type DecodedDisc, type ExpectedFigure, type Page } from './page';
import { pixelsPerMm, type LocalView } from './rays';

/** A coded disc of a sheet. */
export interface ScanFigure extends ExpectedFigure, DiscSize {}

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
  readonly wasDecoded: boolean;
  readonly view: LocalView;
  readonly print: SeenCircle | null;
  readonly cut: SeenCircle | null;
  /** Only where the disc is good or partial. */
  readonly displacement: DiscDisplacement | null;
}

export interface ScanResult {
  readonly discs: readonly DiscResult[];
  readonly isMirrored: boolean;
  /** Quarter turn nearest to how the sheet lies in the picture, counter-clockwise. */
  readonly turnDeg: 0 | 90 | 180 | 270;
  /** Unit vector of the picture's way down (the carriage's travel) in the sheet frame. */
  readonly travel: Point;
  readonly pixelsPerMm: number;
  readonly decodedCount: number;
}

export type ScanProblem =
  | { readonly kind: 'too-coarse'; readonly dotsPerInch: number }
  /** Nothing dark and round at all, or none with a ring of dots. */
  | { readonly kind: 'no-discs'; readonly patchCount: number }
  /** Rings were read, but too few of this sheet's agree on where it lies. */
  | { readonly kind: 'no-page'; readonly decoded: readonly DecodedDisc[] }
  | { readonly kind: 'two-sheets' }
  /** The printed discs lie too far from any flat view of the sheet: curled, or photographed. */
  | { readonly kind: 'not-flat'; readonly typicalMm: number };

/** Stages as they are told to whoever waits; places in the picture are for showing what was found. */
export type ScanProgress =
  | { readonly stage: 'found'; readonly discs: readonly Pixel[] }
  | { readonly stage: 'measured'; readonly done: number; readonly of: number; readonly disc: DiscResult };

/** Raised whenever the same picture would be measured differently. */
export const DETECTOR_VERSION = 1;

const LEAST_DOTS_PER_INCH = 140;
/** Typical distance of printed discs from where a flat sheet has them, mm: printers stay well below it, cameras do not. */
const MOST_UNEVEN_MM = 0.25;
/** A radius is never trusted closer than this, mm, nor spread wider. */
const LEAST_RADIUS_SD_MM = 0.002;
const MM_PER_INCH = 25.4;

const seen = ({ x, y, fit, rays }: SampledEdge): SeenCircle => ({
  x: x + fit.x,
  y: y + fit.y,
  radiusMm: fit.radiusMm,
  inlierShare: fit.inlierCount / rays,
});

function displacementOf({ state, print, cut }: MeasuredDisc): DiscDisplacement | null {
  if (!print || !cut || (state !== 'good' && state !== 'partial')) return null;
  return {
    acrossMm: cut.x + cut.fit.x - print.x - print.fit.x,
    alongMm: cut.y + cut.fit.y - print.y - print.fit.y,
    acrossVariance: cut.fit.xx + print.fit.xx,
    alongVariance: cut.fit.yy + print.fit.yy,
    covariance: cut.fit.xy + print.fit.xy,
  };
}

/** Median and spread (from the median deviation) of the radii of good discs of one size. */
function commonRadius(radii: readonly number[]): { readonly radiusMm: number; readonly sdMm: number } | null {
  if (radii.length < 3) return null;
  const middle = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!;
  const radiusMm = middle(radii);
  const sdMm = Math.max(LEAST_RADIUS_SD_MM, 1.4826 * middle(radii.map((r) => Math.abs(r - radiusMm))));
  return { radiusMm, sdMm };
}

interface Measured {
  readonly figure: ScanFigure;
  readonly view: LocalView;
  readonly disc: MeasuredDisc;
}

/** Radii are common to the sheet: every disc fitted again with what the good ones of its size agree on. */
function withCommonRadii(measured: readonly Measured[]): readonly Measured[] {
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

function resultOf({ figure, view, disc }: Measured, decoded: ReadonlySet<number>): DiscResult {
  return {
    key: figure.key,
    state: disc.state,
    wasDecoded: decoded.has(figure.codeNo),
    view,
    print: disc.print && seen(disc.print),
    cut: disc.cut && seen(disc.cut),
    displacement: displacementOf(disc),
  };
}

/** Median distance of the printed discs found from where the page puts them, mm; those it could not find say nothing. */
function unevennessOf(measured: readonly Measured[]): number {
  const gaps = measured.flatMap(({ disc: { print } }) =>
    print ? [Math.hypot(print.x + print.fit.x, print.y + print.fit.y)] : [],
  );
  return [...gaps].sort((a, b) => a - b)[gaps.length >> 1] ?? 0;
}

function turnOf({ map }: Page): 0 | 90 | 180 | 270 {
  const quarters = Math.round(Math.atan2(-map.yx, map.xx) / (Math.PI / 2));
  return ([0, 90, 180, 270] as const)[((quarters % 4) + 4) % 4]!;
}

/** The picture's way down in the sheet frame, of length one. */
function travelOf({ map }: Page): Point {
  const determinant = map.xx * map.yy - map.xy * map.yx;
  const [x, y] = [-map.xy / determinant, map.xx / determinant];
  const length = Math.hypot(x, y);
  return { x: x / length, y: y / length };
}

/** Whether a second page of the same sheet stands in the picture, made of discs that the first left over. */
const holdsAnother = (discs: readonly DecodedDisc[], page: Page, figures: readonly ScanFigure[]): boolean =>
  findPage(
    discs.filter((disc) => !page.agreeing.includes(disc)),
    figures,
  ) !== null;

/**
 * Measures a scanned sheet: finds its coded discs, tells from them how it lies, looks for every disc where it must then be,
 * and takes the cut against the print at each. Stages are told as they are done.
 * @param image at any resolution from 140 dots an inch; no statement of it is needed. @returns what was found, or why not.
 */
export function* measureScan(
  image: GrayImage,
  figures: readonly ScanFigure[],
): Generator<ScanProgress, Result<ScanResult, ScanProblem>> {
  const { decoded, roundCount } = findDiscs(image);
  yield { stage: 'found', discs: decoded.map(({ ellipse }) => ellipse.centre) };
  if (decoded.length === 0) return fail({ kind: 'no-discs', patchCount: roundCount });
  const page = findPage(decoded, figures);
  if (!page) return fail({ kind: 'no-page', decoded });
  if (holdsAnother(decoded, page, figures)) return fail({ kind: 'two-sheets' });
  const perMm = pixelsPerMm(viewAt(page, { x: 0, y: 0 }));
  if (perMm * MM_PER_INCH < LEAST_DOTS_PER_INCH) return fail({ kind: 'too-coarse', dotsPerInch: perMm * MM_PER_INCH });

  const known = new Set(page.agreeing.map(({ code }) => code.codeNo));
  const rng = seededRng(1);
  const measured: Measured[] = [];
  for (const figure of figures) {
    const view = viewAt(page, figure.centre);
    measured.push({ figure, view, disc: measureDisc(image, view, figure, rng) });
    yield { stage: 'measured', done: measured.length, of: figures.length, disc: resultOf(measured.at(-1)!, known) };
  }
  const uneven = unevennessOf(measured);
  if (uneven > MOST_UNEVEN_MM) return fail({ kind: 'not-flat', typicalMm: uneven });
  return ok({
    discs: withCommonRadii(measured).map((m) => resultOf(m, known)),
    isMirrored: page.isMirrored,
    turnDeg: turnOf(page),
    travel: travelOf(page),
    pixelsPerMm: perMm,
    decodedCount: page.agreeing.length,
  });
}
