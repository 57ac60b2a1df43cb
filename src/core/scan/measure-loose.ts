import { fail, ok, type Result } from '../result';
import { medianOf } from '../math/median';
import { seededRng } from '../math/random';
import { measureDisc, type MeasuredDisc } from './disc-measure';
import { alikeInSize, seenPieces, sizeOf, type Piece } from './loose-view';
import { commonRadius, resultOf, withCommonRadii, type MeasuredFigure, type ScanFigure } from './measured-figure';
import type { DecodedDisc } from './page';
import { coarseness, type ScanProblem, type ScanProgress, type ScanResult, type ScanWork } from './scan-result';

/** Pieces of one scan are seen alike; of a photograph they are not. */
const MOST_SIZE_SPREAD = 0.004;

/** The sheet's own pieces; none of them where another sheet's lie there too, or one of them lies there twice. */
function piecesOf(
  decoded: readonly DecodedDisc[],
  figures: readonly ScanFigure[],
): Result<readonly Piece[], ScanProblem> {
  const byCode = new Map(figures.map((figure) => [figure.codeNo, figure]));
  const known = decoded.filter(({ code }) => byCode.has(code.codeNo));
  if (known.length === 0) return fail({ kind: 'other-pieces' });
  const size = medianOf(known.map(sizeOf));
  const ofItsSize = alikeInSize(decoded, size);
  const pieces = ofItsSize.flatMap((disc) => {
    const figure = byCode.get(disc.code.codeNo);
    return figure ? [{ figure, disc }] : [];
  });
  if (pieces.length < ofItsSize.length) return fail({ kind: 'other-pieces' });
  if (new Set(pieces.map(({ figure }) => figure.key)).size < pieces.length) return fail({ kind: 'two-sheets' });
  return ok(pieces);
}

const NOT_SEEN: MeasuredDisc = { state: 'missing', print: null, cut: null };
const NOWHERE = { x: 0, y: 0 };

/** Spread of the printed radii as a share; pieces alike in size are seen from straight above. */
function sizeSpread(measured: readonly MeasuredFigure[]): number {
  const common = commonRadius(measured.flatMap(({ disc: { print } }) => (print ? [print.fit.radiusMm] : [])));
  return common ? common.sdMm / common.radiusMm : 0;
}

/** What a scan of loose pieces comes to; pieces seen in different sizes were photographed, and that is told instead. */
export function piecesResult(
  pieces: readonly Piece[],
  measured: readonly MeasuredFigure[],
  pixelsPerMm: number,
): Result<ScanResult, ScanProblem> {
  if (sizeSpread(measured) > MOST_SIZE_SPREAD) return fail({ kind: 'pieces-aslant' });
  const behind = pieces.filter(({ disc }) => disc.code.isMirrored).length;
  return ok({
    kind: 'scan',
    discs: withCommonRadii(measured).map(resultOf),
    tiltRad: 0,
    isMirrored: behind === pieces.length,
    isMixed: behind > 0 && behind < pieces.length,
    turnDeg: null,
    cutShape: pieces[0]?.figure.cutShape ?? 'edge',
    pixelsPerMm,
  });
}

/**
 * Measures pieces that were lifted out and lie loose on dark card, each in the frame that its own ring tells.
 * @param decoded what was found in the picture.
 */
export function* measureLoose(
  { image, figures }: ScanWork,
  decoded: readonly DecodedDisc[],
): Generator<ScanProgress, Result<ScanResult, ScanProblem>> {
  const own = piecesOf(decoded, figures);
  if (!own.ok) return own;
  const pieces = own.value;
  const rng = seededRng(1);
  const { views, pixelsPerMm } = seenPieces(image, pieces);
  const coarse = coarseness(pixelsPerMm);
  if (coarse) return fail(coarse);
  const seen = new Map(pieces.map(({ figure }, i) => [figure.key, views[i]!]));
  const measured: MeasuredFigure[] = [];
  for (const figure of figures) {
    const view = seen.get(figure.key);
    measured.push(
      view
        ? { figure, view, bias: NOWHERE, disc: measureDisc(image, view, figure, rng) }
        : { figure, view: null, bias: NOWHERE, disc: NOT_SEEN },
    );
    yield { stage: 'measured', done: measured.length, of: figures.length, disc: resultOf(measured.at(-1)!) };
  }
  return piecesResult(pieces, measured, pixelsPerMm);
}
