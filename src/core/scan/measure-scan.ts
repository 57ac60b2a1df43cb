import { fail, ok, type Result } from '../result';
import { MAD_TO_SD, medianOf } from '../math/median';
import { seededRng } from '../math/random';
import type { Point } from '../geometry/affine';
import {
  isMeasured,
  measureDisc,
  refitted,
  type DiscSize,
  type DiscState,
  type MeasuredDisc,
  type SampledEdge,
} from './disc-measure';
import { findDiscs, findingFactor } from './find-discs';
import { reducedBy, type GrayImage, type Pixel } from './gray';
import { cameraLens, seemingMiddle, tiltOf, viewAt, type Lens } from './lens';
import { downOf, fromView, meanPixelsPerMm, type LocalView } from './local-view';
import { findCameraPage, findPage, LEAST_AGREEING, type DecodedDisc, type ExpectedFigure, type Page } from './page';

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
  readonly view: LocalView;
  readonly print: SeenCircle | null;
  readonly cut: SeenCircle | null;
  /** Only where the disc is good or partial. */
  readonly displacement: DiscDisplacement | null;
}

/** A scan, or a photograph of the flat sheet, whose tilt and lens were taken out. */
export const PICTURE_KINDS = ['scan', 'photo'] as const;
export type PictureKind = (typeof PICTURE_KINDS)[number];

export interface ScanResult {
  readonly kind: PictureKind;
  readonly discs: readonly DiscResult[];
  /** How far a camera looked from straight above; 0 of a scan. */
  readonly tiltRad: number;
  readonly isMirrored: boolean;
  /** Quarter turn nearest to how the sheet lies in the picture, counter-clockwise. */
  readonly turnDeg: 0 | 90 | 180 | 270;
  /**
   * The way in the sheet frame along which all discs may be shifted alike: the carriage's travel (the picture's way down)
   * of a scan, the way that leads away from a camera.
   */
  readonly travel: Point;
  readonly pixelsPerMm: number;
}

export type ScanProblem =
  | { readonly kind: 'too-coarse'; readonly dotsPerInch: number }
  /** Nothing dark and round at all, or none with a ring of dots. */
  | { readonly kind: 'no-discs' }
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
const MOST_UNEVEN_MM = 0.2;
/** More of the sheet's own words than this out of place, and it is no flat scan. */
const MOST_OUT_OF_PLACE = 1;
/** A radius is never trusted closer than this, mm, nor spread wider. */
const LEAST_RADIUS_SD_MM = 0.002;
const MM_PER_INCH = 25.4;

const seen = ({ x, y, fit, rays }: SampledEdge): SeenCircle => ({
  x: x + fit.x,
  y: y + fit.y,
  radiusMm: fit.radiusMm,
  inlierShare: fit.inlierCount / rays,
});

function displacementOf({ disc: { state, print, cut }, figure, lens }: Measured): DiscDisplacement | null {
  if (!print || !cut || !isMeasured(state)) return null;
  const [outer, inner] = [figure.radiusMm, figure.holeRadiusMm].map((r) => seemingMiddle(lens, figure.centre, r));
  const bias = { x: inner!.x - outer!.x, y: inner!.y - outer!.y };
  return {
    acrossMm: cut.x + cut.fit.x - print.x - print.fit.x - bias.x,
    alongMm: cut.y + cut.fit.y - print.y - print.fit.y - bias.y,
    acrossVariance: cut.fit.xx + print.fit.xx,
    alongVariance: cut.fit.yy + print.fit.yy,
    covariance: cut.fit.xy + print.fit.xy,
  };
}

/** Median and spread (from the median deviation) of the radii of good discs of one size. */
function commonRadius(radii: readonly number[]): { readonly radiusMm: number; readonly sdMm: number } | null {
  if (radii.length < 3) return null;
  const radiusMm = medianOf(radii);
  const sdMm = Math.max(LEAST_RADIUS_SD_MM, MAD_TO_SD * medianOf(radii.map((r) => Math.abs(r - radiusMm))));
  return { radiusMm, sdMm };
}

interface Measured {
  readonly figure: ScanFigure;
  readonly lens: Lens;
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

function resultOf(measured: Measured): DiscResult {
  const { figure, view, disc } = measured;
  return {
    key: figure.key,
    state: disc.state,
    view,
    print: disc.print && seen(disc.print),
    cut: disc.cut && seen(disc.cut),
    displacement: displacementOf(measured),
  };
}

/** Typical (root mean square) distance of the printed discs found from where the page puts them, mm. */
function unevennessOf(measured: readonly Measured[]): number {
  const gaps = measured.flatMap(({ disc: { print } }) =>
    print ? [Math.hypot(print.x + print.fit.x, print.y + print.fit.y)] : [],
  );
  return gaps.length === 0 ? 0 : Math.sqrt(gaps.reduce((sum, gap) => sum + gap * gap, 0) / gaps.length);
}

function turnOf({ right }: LocalView): 0 | 90 | 180 | 270 {
  const quarters = Math.round(Math.atan2(-right.y, right.x) / (Math.PI / 2));
  return ([0, 90, 180, 270] as const)[((quarters % 4) + 4) % 4]!;
}

/** Whether the same sheet stands in the picture twice: its words once more, and again agreeing on where it lies. */
function holdsAnother(discs: readonly DecodedDisc[], page: Page, work: Work): boolean {
  const known = new Set(page.agreeing.map(({ code }) => code.codeNo));
  const again = discs.filter((disc) => !page.agreeing.includes(disc) && known.has(disc.code.codeNo));
  return again.length >= LEAST_AGREEING && findPage(again, work.figures, work.image) !== null;
}

interface Work {
  readonly image: GrayImage;
  readonly figures: readonly ScanFigure[];
}

/** Every figure where a page puts it. */
function* measureAll({ image, figures }: Work, lens: Lens): Generator<ScanProgress, Measured[]> {
  const rng = seededRng(1);
  const measured: Measured[] = [];
  for (const figure of figures) {
    const view = viewAt(lens, figure.centre);
    measured.push({ figure, view, lens, disc: measureDisc(image, view, figure, rng) });
    yield { stage: 'measured', done: measured.length, of: figures.length, disc: resultOf(measured.at(-1)!) };
  }
  return measured;
}

/** Where the middles of the printed discs are seen: what a camera's view is fitted to in the end. */
const middlesSeen = (measured: readonly Measured[]) =>
  measured.flatMap(({ figure, view, lens, disc: { print, state } }) => {
    if (!print || state === 'missing') return [];
    const seems = seemingMiddle(lens, figure.centre, figure.radiusMm);
    const middle = { x: print.x + print.fit.x - seems.x, y: print.y + print.fit.y - seems.y };
    return [{ at: figure.centre, seen: fromView(view, middle) }];
  });

/**
 * A photograph: discs measured where a first view puts them, the view fitted to the printed ones, and all measured again.
 */
function* measurePhoto(
  work: Work,
  decoded: readonly DecodedDisc[],
): Generator<ScanProgress, { readonly page: Page; readonly measured: readonly Measured[] } | null> {
  const page = findCameraPage(decoded, work.figures, work.image);
  if (!page) return null;
  const first = yield* measureAll(work, page.lens);
  const lens = cameraLens(middlesSeen(first), work.image);
  if (!lens) return null;
  return { page: { ...page, lens }, measured: yield* measureAll(work, lens) };
}

function finished(kind: PictureKind, page: Page, measured: readonly Measured[]): Result<ScanResult, ScanProblem> {
  const view = viewAt(page.lens, { x: 0, y: 0 });
  const perMm = meanPixelsPerMm(view);
  if (perMm * MM_PER_INCH < LEAST_DOTS_PER_INCH) return fail({ kind: 'too-coarse', dotsPerInch: perMm * MM_PER_INCH });
  const uneven = unevennessOf(measured);
  if (uneven > MOST_UNEVEN_MM) return fail({ kind: 'not-flat', typicalMm: uneven });
  const tilt = tiltOf(page.lens);
  return ok({
    kind,
    discs: withCommonRadii(measured).map(resultOf),
    tiltRad: kind === 'photo' ? tilt.tiltRad : 0,
    isMirrored: page.isMirrored,
    turnDeg: turnOf(view),
    travel: kind === 'photo' ? tilt.away : downOf(view),
    pixelsPerMm: perMm,
  });
}

/**
 * Measures a scanned or photographed sheet: finds its coded discs, tells from them how it lies, looks for every disc where
 * it must then be, and takes the cut against the print at each. A picture that no flat scan explains is tried as a
 * photograph. Stages are told as they are done.
 * @param image at any resolution from 140 dots an inch; no statement of it is needed.
 * @param small the same reduced by its finding factor, where that was done while it came in.
 * @returns what was found, or why not.
 */
export function* measureScan(
  image: GrayImage,
  figures: readonly ScanFigure[],
  small: GrayImage = reducedBy(image, findingFactor(image)),
): Generator<ScanProgress, Result<ScanResult, ScanProblem>> {
  const work = { image, figures };
  const decoded = findDiscs(image, small);
  yield { stage: 'found', discs: decoded.map(({ ellipse }) => ellipse.centre) };
  if (decoded.length === 0) return fail({ kind: 'no-discs' });
  const page = flatPage(work, decoded);
  if (page && holdsAnother(decoded, page, work)) return fail({ kind: 'two-sheets' });
  const asScan = page ? yield* measureFlat(work, page) : null;
  if (asScan && (asScan.ok || asScan.error.kind !== 'not-flat')) return asScan;
  const photo = yield* measurePhoto(work, decoded);
  if (photo) return finished('photo', photo.page, photo.measured);
  return asScan ?? fail({ kind: 'no-page', decoded });
}

/** The page of a flat scan; none when more than one of the sheet's words stands somewhere else than it says. */
function flatPage({ image, figures }: Work, decoded: readonly DecodedDisc[]): Page | null {
  const page = findPage(decoded, figures, image);
  if (!page) return null;
  const agreeing = new Set(page.agreeing.map(({ code }) => code.codeNo));
  const own = new Set(figures.map((f) => f.codeNo));
  const astray = decoded.filter(
    ({ code }) => own.has(code.codeNo) && !agreeing.has(code.codeNo) && code.isMirrored === page.isMirrored,
  );
  return astray.length > MOST_OUT_OF_PLACE ? null : page;
}

function* measureFlat(work: Work, page: Page): Generator<ScanProgress, Result<ScanResult, ScanProblem>> {
  return finished('scan', page, yield* measureAll(work, page.lens));
}
