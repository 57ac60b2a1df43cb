import { loadCovariance } from '../fit/load-noise';
import type { LayoutPage } from '../layout/page-area';
import { loadModelOf, markPlaces } from '../shop/marks';
import type { MarkUse } from '../shop/words';
import type { Placement } from '../layout/fill-page';
import type { EdgePiece, JobError } from './edge-forecast';

/** The error that a setup's record predicts, before a job's own marks and material are counted in. */
export interface SetupError {
  readonly beta: readonly number[];
  readonly constantCovariance: readonly number[];
  readonly markSdMm: number;
  readonly markUse: MarkUse;
}

/** SD of a rectangular spread of a given half-width. Source: JCGM 100:2008 (GUM), 4.3.7. */
export const rectangularSd = (halfWidth: number): number => halfWidth / Math.sqrt(3);

/** A job's error: the setup's, with this page's marks and this material's growth; about the page's middle. */
export function jobErrorOn(
  error: SetupError,
  page: LayoutPage,
  growth: { readonly thermalPerK: number | null; readonly warmingK: number },
): JobError {
  const places = markPlaces(page.marks, page);
  return {
    beta: error.beta,
    constantCovariance: error.constantCovariance,
    loadCovariance: loadCovariance(places, error.markSdMm, loadModelOf(error.markUse, places.length)),
    growthSd: rectangularSd((growth.thermalPerK ?? 0) * growth.warmingK),
  };
}

/** Copies as pieces whose edge is looked at, about the page's middle. @param isRound by the item's id. */
export const piecesOn = (
  placements: readonly Placement[],
  page: Pick<LayoutPage, 'widthMm' | 'lengthMm'>,
  isRound: (itemId: string) => boolean,
): readonly EdgePiece[] =>
  placements.map(({ itemId, box }) => ({
    box: { ...box, left: box.left - page.widthMm / 2, bottom: box.bottom - page.lengthMm / 2 },
    isRound: isRound(itemId),
  }));
