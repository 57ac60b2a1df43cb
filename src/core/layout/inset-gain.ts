import { normalProbability } from '../math/quantile';
import type { Placement } from './fill-page';
import { pageArea, usableMm2, type LayoutPage } from './page-area';

/** How much a print wanders on its sheet from one to the next, SD of each edge. Assumed; common practice, no published source. */
export const ASSUMED_WANDER_SD_MM = 0.7;

export interface InsetChoice {
  readonly insetMm: number;
  readonly copies: number;
  readonly usableMm2: number;
  /** Of prints: a mark is cut off by the printer's white edge, or stands nearer to the sheet's edge than the eye allows. */
  readonly lostShare: number;
  /** Copies a sheet that come through, on the average. */
  readonly goodCopies: number;
}

/**
 * Share of prints whose marks fail at one inset. What lies in the printer's white edge is cut off on every print. What the
 * eye needs is distance from the sheet's edge: the print wanders across and along by independent normal amounts, and
 * brings the marks of one side nearer to the edge whichever way it goes: P(|wander| > inset - least distance), twice.
 */
export function lostShare({ margins, marks }: LayoutPage, wanderSdMm: number): number {
  if (marks.kind === 'none' || marks.kind === 'by_hand') return 0;
  const whiteMm = Math.max(margins.leftMm, margins.rightMm, margins.topMm, margins.bottomMm);
  if (marks.insetMm < whiteMm) return 1;
  const roomMm = marks.insetMm - marks.edgeMinMm;
  if (wanderSdMm === 0) return roomMm >= 0 ? 0 : 1;
  const oneWay = Math.max(0, 2 * normalProbability(roomMm / wanderSdMm) - 1);
  return 1 - oneWay * oneWay;
}

/**
 * What smaller and larger insets would give, nearest to the edge first: copies that fit, and the share of prints lost.
 * @param fill the layout for a page, so that copies are counted by the same rule as they are laid.
 */
export function insetChoices(
  page: LayoutPage,
  insetsMm: readonly number[],
  fill: (page: LayoutPage) => readonly Placement[],
  wanderSdMm = ASSUMED_WANDER_SD_MM,
): readonly InsetChoice[] {
  return insetsMm.map((insetMm) => {
    const at = { ...page, marks: { ...page.marks, insetMm } };
    const copies = fill(at).length;
    const lost = lostShare(at, wanderSdMm);
    return { insetMm, copies, usableMm2: usableMm2(pageArea(at)), lostShare: lost, goodCopies: copies * (1 - lost) };
  });
}

/** The inset that brings most copies through; of equals the one farthest from the edge. */
export function bestInset(choices: readonly InsetChoice[]): InsetChoice | null {
  return choices.reduce<InsetChoice | null>(
    (best, c) =>
      !best ||
      c.goodCopies > best.goodCopies + 1e-9 ||
      (Math.abs(c.goodCopies - best.goodCopies) <= 1e-9 && c.insetMm > best.insetMm)
        ? c
        : best,
    null,
  );
}
