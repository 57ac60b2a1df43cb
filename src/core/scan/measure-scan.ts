import { fail, ok, type Result } from '../result';
import { seededRng } from '../math/random';
import type { Point } from '../geometry/affine';
import type { TurnDeg } from '../geometry/load';
import { measureDisc } from './disc-measure';
import { findDiscs, findingFactor } from './find-discs';
import { reducedBy, type GrayImage } from './gray';
import { cameraLens, seemingMiddle, tiltOf, viewAt, type Lens } from './lens';
import { fromView, meanPixelsPerMm, type LocalView } from './local-view';
import { measureLoose } from './measure-loose';
import { resultOf, withCommonRadii, type MeasuredFigure, type ScanFigure } from './measured-figure';
import { findCameraPage, findPage, LEAST_AGREEING, type DecodedDisc, type Page } from './page';
import {
  coarseness,
  type OtherSheet,
  type PictureKind,
  type ScanProblem,
  type ScanProgress,
  type ScanResult,
  type ScanWork,
} from './scan-result';

/** Raised whenever the same picture would be measured differently. */
export const DETECTOR_VERSION = 2;

/** Typical distance of printed discs from where a flat sheet has them, mm: printers stay well below it, cameras do not. */
const MOST_UNEVEN_MM = 0.2;
/** More of the sheet's own words than this out of place, and it is no flat scan. */
const MOST_OUT_OF_PLACE = 1;

/** Typical (root mean square) distance of the printed discs found from where the page puts them, mm. */
function unevennessOf(measured: readonly MeasuredFigure[]): number {
  const gaps = measured.flatMap(({ disc: { print } }) =>
    print ? [Math.hypot(print.x + print.fit.x, print.y + print.fit.y)] : [],
  );
  return gaps.length === 0 ? 0 : Math.sqrt(gaps.reduce((sum, gap) => sum + gap * gap, 0) / gaps.length);
}

function turnOf({ right }: LocalView): TurnDeg {
  const quarters = Math.round(Math.atan2(-right.y, right.x) / (Math.PI / 2));
  return ([0, 90, 180, 270] as const)[((quarters % 4) + 4) % 4]!;
}

/** Whether the same sheet stands in the picture twice: its words once more, and again agreeing on where it lies. */
function holdsAnother(discs: readonly DecodedDisc[], page: Page, work: ScanWork): boolean {
  const known = new Set(page.agreeing.map(({ code }) => code.codeNo));
  const again = discs.filter((disc) => !page.agreeing.includes(disc) && known.has(disc.code.codeNo));
  return again.length >= LEAST_AGREEING && findPage(again, work.figures, work.image) !== null;
}

/** How much further than the print's the cut's middle seems to lie from where it is. */
function biasOf(lens: Lens, { centre, radiusMm, cutRadiusMm }: ScanFigure): Point {
  const [outer, inner] = [radiusMm, cutRadiusMm].map((r) => seemingMiddle(lens, centre, r));
  return { x: inner!.x - outer!.x, y: inner!.y - outer!.y };
}

/** Every figure where a page puts it. */
function* measureAll(
  { image, figures }: ScanWork,
  lens: Lens,
  laid: Pick<MeasuredFigure, 'travel'> = {},
): Generator<ScanProgress, MeasuredFigure[]> {
  const rng = seededRng(1);
  const measured: MeasuredFigure[] = [];
  for (const figure of figures) {
    const view = viewAt(lens, figure.centre);
    measured.push({ ...laid, figure, view, bias: biasOf(lens, figure), disc: measureDisc(image, view, figure, rng) });
    yield { stage: 'measured', done: measured.length, of: figures.length, disc: resultOf(measured.at(-1)!) };
  }
  return measured;
}

/** Where the middles of the printed discs are seen: what a camera's view is fitted to in the end. */
const middlesSeen = (measured: readonly MeasuredFigure[], lens: Lens) =>
  measured.flatMap(({ figure, view, disc: { print, state } }) => {
    if (!print || !view || state === 'missing') return [];
    const seems = seemingMiddle(lens, figure.centre, figure.radiusMm);
    const middle = { x: print.x + print.fit.x - seems.x, y: print.y + print.fit.y - seems.y };
    return [{ at: figure.centre, seen: fromView(view, middle) }];
  });

/**
 * A photograph: discs measured where a first view puts them, the view fitted to the printed ones, and all measured again.
 */
function* measurePhoto(
  work: ScanWork,
  decoded: readonly DecodedDisc[],
): Generator<ScanProgress, { readonly page: Page; readonly measured: readonly MeasuredFigure[] } | null> {
  const page = findCameraPage(decoded, work.figures, work.image);
  if (!page) return null;
  const first = yield* measureAll(work, page.lens);
  const lens = cameraLens(middlesSeen(first, page.lens), work.image);
  if (!lens) return null;
  return { page: { ...page, lens }, measured: yield* measureAll(work, lens, { travel: tiltOf(lens).away }) };
}

function finished(kind: PictureKind, page: Page, measured: readonly MeasuredFigure[]): Result<ScanResult, ScanProblem> {
  const view = viewAt(page.lens, { x: 0, y: 0 });
  const perMm = meanPixelsPerMm(view);
  const coarse = coarseness(perMm);
  if (coarse) return fail(coarse);
  const uneven = unevennessOf(measured);
  if (uneven > MOST_UNEVEN_MM) return fail({ kind: 'not-flat', typicalMm: uneven });
  return ok({
    kind,
    discs: withCommonRadii(measured).map(resultOf),
    tiltRad: kind === 'photo' ? tiltOf(page.lens).tiltRad : 0,
    isMirrored: page.isMirrored,
    isMixed: false,
    turnDeg: turnOf(view),
    cutShape: measured[0]?.figure.cutShape ?? 'hole',
    pixelsPerMm: perMm,
  });
}

/**
 * Measures a scanned or photographed sheet: finds its coded discs, tells from them how it lies, looks for every disc where
 * it must then be, and takes the cut against the print at each. A picture that no flat scan explains is tried as a
 * photograph. Stages are told as they are done.
 * @param image at any resolution from 140 dots an inch; no statement of it is needed.
 * @param small the same reduced by its finding factor, where that was done while it came in.
 * @param others sheets that it may be instead: named where it is one of them.
 * @returns what was found, or why not.
 */
export function* measureScan(
  image: GrayImage,
  figures: readonly ScanFigure[],
  small: GrayImage = reducedBy(image, findingFactor(image)),
  others: readonly OtherSheet[] = [],
): Generator<ScanProgress, Result<ScanResult, ScanProblem>> {
  const work = { image, figures };
  const decoded = findDiscs(image, small);
  yield { stage: 'found', discs: decoded.map(({ ellipse }) => ellipse.centre) };
  if (decoded.length === 0) return fail({ kind: 'no-discs' });
  if (figures.some(({ cutShape }) => cutShape === 'edge')) return yield* measureLoose(work, decoded);
  const measured = yield* measureSheet(work, decoded);
  if (measured) return measured;
  const other = others.find((o) => isSheetIn({ image, figures: o.figures }, decoded));
  return fail(other ? { kind: 'other-sheet', code: other.code } : { kind: 'no-page', decoded });
}

/** The sheet that is looked for, as a flat scan, else as a photograph; null where neither explains the picture. */
function* measureSheet(
  work: ScanWork,
  decoded: readonly DecodedDisc[],
): Generator<ScanProgress, Result<ScanResult, ScanProblem> | null> {
  const page = flatPage(work, decoded);
  if (page && holdsAnother(decoded, page, work)) return fail({ kind: 'two-sheets' });
  const asScan = page ? yield* measureFlat(work, page) : null;
  if (asScan && (asScan.ok || asScan.error.kind !== 'not-flat')) return asScan;
  const photo = yield* measurePhoto(work, decoded);
  return photo ? finished('photo', photo.page, photo.measured) : asScan;
}

/** Whether a sheet's own discs lie in a picture, scanned or photographed, as they lie on it. */
const isSheetIn = (work: ScanWork, decoded: readonly DecodedDisc[]): boolean =>
  (flatPage(work, decoded) ?? findCameraPage(decoded, work.figures, work.image)) !== null;

/**
 * The page of a flat scan; none when more than one of the sheet's words stands somewhere else than it says, or more rings
 * show words of other sheets than agree: some of another check's words are always this one's too.
 */
function flatPage({ image, figures }: ScanWork, decoded: readonly DecodedDisc[]): Page | null {
  const page = findPage(decoded, figures, image);
  if (!page) return null;
  const agreeing = new Set(page.agreeing.map(({ code }) => code.codeNo));
  const own = new Set(figures.map((f) => f.codeNo));
  const astray = decoded.filter(
    ({ code }) => own.has(code.codeNo) && !agreeing.has(code.codeNo) && code.isMirrored === page.isMirrored,
  );
  const foreign = decoded.filter(({ code }) => !own.has(code.codeNo));
  return astray.length > MOST_OUT_OF_PLACE || foreign.length > agreeing.size ? null : page;
}

function* measureFlat(work: ScanWork, page: Page): Generator<ScanProgress, Result<ScanResult, ScanProblem>> {
  return finished('scan', page, yield* measureAll(work, page.lens));
}
