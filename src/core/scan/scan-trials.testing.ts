import { seededRng, standardNormal } from '../math/random';
import type { DiscFate, SimulatedDisc } from '../simulate/disc-shade';
import { renderScan, type ScanOptions } from '../simulate/scan-image';
import { blockNamed } from '../target/block';
import { defineSheet, type FigureStyle } from '../target/sheet-definition';
import type { Result } from '../result';
import type { GrayImage } from './gray';
import { scanFigures } from './scan-figures';
import { measureScan } from './measure-scan';
import type { ScanFigure } from './measured-figure';
import type { ScanProblem, ScanResult } from './scan-result';

/** Discs of a shipped sheet. */
export const sheetFigures = (checkKind: 'quick' | 'full', style: FigureStyle = 'wedge'): readonly ScanFigure[] =>
  scanFigures(defineSheet({ block: blockNamed('A4'), checkKind, style }));

export interface Trial {
  readonly image: GrayImage;
  readonly discs: readonly SimulatedDisc[];
}

/** A sheet cut 0.3 and -0.2 mm off, every disc by another 0.1 mm of its own, and what became of it. */
export function scanned(
  figures: readonly ScanFigure[],
  seed: number,
  options: Partial<ScanOptions> = {},
  fateOf: (i: number) => DiscFate = () => 'whole',
): Trial {
  const rng = seededRng(seed);
  const discs = figures.map((figure, i): SimulatedDisc => ({
    ...figure,
    cutOff: { x: 0.3 + 0.1 * standardNormal(rng), y: -0.2 + 0.1 * standardNormal(rng) },
    fate: fateOf(i),
  }));
  const image = renderScan(discs, { dotsPerInch: 200, widthMm: 210, lengthMm: 297, ...options }, rng);
  return { image, discs };
}

export function measured(image: GrayImage, figures: readonly ScanFigure[]): Result<ScanResult, ScanProblem> {
  const work = measureScan(image, figures);
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
  }
}

export function mustMeasure(image: GrayImage, figures: readonly ScanFigure[]): ScanResult {
  const result = measured(image, figures);
  if (!result.ok) throw new Error(result.error.kind);
  return result.value;
}

export interface Errors {
  /** Found less true displacement, mm, across and along in turn. */
  readonly errors: readonly number[];
  /** The same over the stated uncertainty. */
  readonly ratios: readonly number[];
}

export function errorsOf({ discs: found }: ScanResult, { discs }: Trial): Errors {
  const errors: number[] = [];
  const ratios: number[] = [];
  found.forEach(({ displacement: d }, i) => {
    const { cutOff: truth } = discs[i]!;
    if (!d) return;
    errors.push(d.acrossMm - truth.x, d.alongMm - truth.y);
    ratios.push(
      (d.acrossMm - truth.x) / Math.sqrt(d.acrossVariance),
      (d.alongMm - truth.y) / Math.sqrt(d.alongVariance),
    );
  });
  return { errors, ratios };
}

export const rmsOf = (values: readonly number[]): number =>
  Math.sqrt(values.reduce((total, v) => total + v * v, 0) / values.length);
