import type { DiscShift } from '../reading/disc-check';
import { fail, ok, type Result } from '../result';
import { seededRng } from '../math/random';
import { inkFromMm } from '../target/disc';
import { TEMPLATE_DISC_NOS, templateDisc, templateDiscOf } from '../target/template-discs';
import { measureDisc } from './disc-measure';
import { findDiscs, findingFactor } from './find-discs';
import { reducedBy, type GrayImage } from './gray';
import { seenPieces, type Piece } from './loose-view';
import { resultOf, type MeasuredFigure, type ScanFigure } from './measured-figure';
import { fromPieceKey, pieceKey } from './measure-pieces';
import { coarseness, type ScanProblem, type ScanProgress, type ScanResult } from './scan-result';

const ORIGIN = { x: 0, y: 0 };

/** The two small discs of a job's template, as a picture is searched for them. */
export const templateFigures: readonly ScanFigure[] = TEMPLATE_DISC_NOS.map((discNo) => {
  const disc = templateDisc(discNo, ORIGIN);
  return {
    ...{
      key: String(discNo),
      codeNo: disc.codeNo,
      centre: ORIGIN,
      radiusMm: disc.radiusMm,
      inkFromMm: inkFromMm(disc),
    },
    ...{ cutShape: disc.cut, cutRadiusMm: disc.holeRadiusMm },
  };
});

/**
 * Measures the small discs of a job's template in a scan or photograph of the cut sheet, or of a part of it: every one that is
 * seen, however often, each in the frame and at the scale that its own ring tells, so that a camera's tilt matters little.
 * Its own perspective (the middle of a circle is not seen at the middle of its image) stays: below 0.01 mm up to 12 degrees,
 * 300 mm away.
 * @param small the picture reduced by its finding factor, where that was done while it came in.
 * @returns discs known by `pieceKey`; other coded discs are passed over.
 */
export function* measureTemplateDiscs(
  image: GrayImage,
  figures: readonly ScanFigure[],
  small: GrayImage = reducedBy(image, findingFactor(image)),
): Generator<ScanProgress, Result<ScanResult, ScanProblem>> {
  const decoded = findDiscs(image, small);
  yield { stage: 'found', discs: decoded.map(({ ellipse }) => ellipse.centre) };
  const pieces = decoded.flatMap((disc): readonly Piece[] => {
    const figure = figures.find((f) => f.codeNo === disc.code.codeNo);
    return figure ? [{ figure, disc }] : [];
  });
  if (pieces.length === 0) return fail({ kind: decoded.length === 0 ? 'no-discs' : 'other-pieces' });
  const rng = seededRng(1);
  const measured: MeasuredFigure[] = [];
  let finest = 0;
  for (const piece of pieces) {
    const { views, pixelsPerMm } = seenPieces(image, [piece]);
    const view = views[0]!;
    finest = Math.max(finest, pixelsPerMm);
    const figure = { ...piece.figure, key: pieceKey(piece.figure.codeNo, measured.length + 1) };
    measured.push({ figure, view, bias: ORIGIN, disc: measureDisc(image, view, figure, rng) });
    yield { stage: 'measured', done: measured.length, of: pieces.length, disc: resultOf(measured.at(-1)!) };
  }
  const coarse = coarseness(finest);
  if (coarse) return fail(coarse);
  const behind = pieces.filter(({ disc }) => disc.code.isMirrored).length;
  return ok({
    kind: 'scan',
    discs: measured.map(resultOf),
    tiltRad: 0,
    isMirrored: behind === pieces.length,
    isMixed: behind > 0 && behind < pieces.length,
    turnDeg: null,
    cutShape: 'hole',
    pixelsPerMm: finest,
  });
}

/** What each measured disc of a picture says of the cut; those that cannot be measured are left out. */
export const discShifts = ({ discs }: Pick<ScanResult, 'discs'>): readonly DiscShift[] =>
  discs.flatMap(({ key, displacement }) => {
    const discNo = templateDiscOf(fromPieceKey(key).codeNo);
    if (discNo === null || !displacement) return [];
    const { acrossMm, alongMm, acrossVariance, alongVariance } = displacement;
    return [{ discNo, acrossMm, alongMm, standardUncertaintyMm: Math.sqrt(Math.max(acrossVariance, alongVariance)) }];
  });
