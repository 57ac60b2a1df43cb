import { cornersOf, type Point } from '../geometry/affine';
import type { LoadModel } from '../fit/load-noise';
import type { MarkSpace } from '../target/block';
import type { SheetSize } from '../units/sheet-size';
import type { MarkKind, MarkUse } from './words';

export interface MarkScheme extends MarkSpace {
  readonly kind: MarkKind;
  readonly keepOutMm: number;
  readonly edgeMinMm: number;
}

/**
 * Centres of a scheme's marks on a page, sheet frame, in the order lower left, lower right, upper right, upper left, then
 * intermediates. Three corner figures leave the lower right free; a hand-driven tool is led to two targets on the left.
 */
export function markPlaces(scheme: Pick<MarkScheme, 'kind' | 'insetMm' | 'sizeMm'>, page: SheetSize): readonly Point[] {
  const taken = 2 * scheme.insetMm + scheme.sizeMm;
  const corners = cornersOf(page.widthMm - taken, page.lengthMm - taken);
  switch (scheme.kind) {
    case 'none':
      return [];
    case 'by_hand':
      return corners.filter((p) => p.x < 0);
    case 'corner_figures':
      return corners.filter((p) => !(p.x > 0 && p.y < 0));
    case 'four_corners':
    case 'frame':
      return corners;
    case 'with_intermediates':
      return [...corners, ...corners.slice(1, 3).map((p) => ({ x: p.y > 0 ? -p.x : p.x, y: 0 }))];
  }
}

/** Room a scheme takes from the page: nothing but the unprintable edge where there are no marks. */
export function markSpaceOf(scheme: Pick<MarkScheme, 'kind' | 'insetMm' | 'sizeMm'>): MarkSpace {
  if (scheme.kind === 'none') return { insetMm: Math.max(scheme.insetMm, 5), sizeMm: 0 };
  return { insetMm: scheme.insetMm, sizeMm: scheme.sizeMm };
}

/** What one load's mark reading leaves to chance: the model that a machine fits to so many marks. */
export function loadModelOf(use: MarkUse, marks: number): LoadModel {
  if (marks < 2) return 'shift';
  const most: LoadModel = marks === 2 ? 'rigid' : 'affine';
  switch (use) {
    case 'shift':
      return 'shift';
    case 'shift_rotation':
      return 'rigid';
    case 'similarity':
      return 'similarity';
    case 'two_scales':
      return marks === 2 ? 'rigid' : 'two_scales';
    case 'unknown':
    case 'affine':
    case 'piecewise':
      return most;
  }
}

export interface MarkPowers {
  readonly putsRight: readonly string[];
  readonly remains: readonly string[];
}

const ALL_PARTS = ['shift', 'rotation', 'scale across', 'scale along', 'out of square'] as const;

const POWERS: Readonly<Record<MarkUse, readonly (typeof ALL_PARTS)[number][]>> = {
  unknown: [],
  shift: ['shift'],
  shift_rotation: ['shift', 'rotation'],
  similarity: ['shift', 'rotation', 'scale across', 'scale along'],
  two_scales: ['shift', 'rotation', 'scale across', 'scale along'],
  affine: ALL_PARTS,
  piecewise: ALL_PARTS,
};

/** What a machine that uses its marks so takes out of each print, and what it leaves for a calibration to find. */
export function markPowers(use: MarkUse): MarkPowers {
  const putsRight = POWERS[use];
  return { putsRight, remains: ALL_PARTS.filter((part) => !putsRight.includes(part)) };
}

export interface MarkProblem {
  readonly kind: 'too-near-edge' | 'clipped' | 'kinds-differ' | 'inset-differs';
  readonly words: string;
}

/** Marks too near the edge for the eye, cut off by the printer, or told differently to the program and the machine. */
export function markProblems(
  scheme: MarkScheme,
  unprintableMm: number,
  machine: Pick<MarkScheme, 'kind' | 'insetMm'> | null,
): readonly MarkProblem[] {
  const problems: MarkProblem[] = [];
  if (scheme.kind === 'none') return problems;
  if (scheme.insetMm < unprintableMm) {
    problems.push({
      kind: 'clipped',
      words: `Marks begin ${scheme.insetMm} mm from the edge, and this printer leaves ${unprintableMm} mm white: they would be cut off.`,
    });
  }
  if (scheme.insetMm < scheme.edgeMinMm) {
    problems.push({
      kind: 'too-near-edge',
      words: `Marks stand ${scheme.insetMm} mm from the edge. Nearer than ${scheme.edgeMinMm} mm an eye may take the edge for a mark.`,
    });
  }
  if (machine && machine.kind !== scheme.kind) {
    problems.push({
      kind: 'kinds-differ',
      words: 'The program prints one kind of mark and the machine is told to read another: set both the same.',
    });
  } else if (machine && Math.abs(machine.insetMm - scheme.insetMm) > 0.05) {
    problems.push({
      kind: 'inset-differs',
      words: `The program stands its marks ${scheme.insetMm} mm from the edge, the machine expects ${machine.insetMm} mm.`,
    });
  }
  return problems;
}
