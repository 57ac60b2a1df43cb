import type { KeptPrintSize } from '@/contracts/print-size';
import { CALIPER_SD_MM } from '@/core/registration/rule-fit';
import type { ScanFigure } from '@/core/scan/measured-figure';
import type { ScanResult } from '@/core/scan/scan-result';
import { farthestApart, printScale, printShape, type PrintShape } from '@/core/scan/print-size';
import type { ScanView } from './scan-view';

/** The length asked for: between which spots, how long, and how well measured. */
export interface AskedLength {
  readonly from: number;
  readonly to: number;
  readonly lengthMm: number | null;
  readonly sdMm: number;
}

export interface LengthEnd {
  readonly spotNo: number;
  readonly centre: ScanFigure['centre'];
}

/** Discs of the cut that a length can be measured between. */
export const lengthEnds = ({ discs, figures }: Pick<ScanView, 'discs' | 'figures'>): readonly LengthEnd[] =>
  discs.flatMap(({ key, spotNo }) => {
    const figure = figures.find((f) => f.key === key);
    return figure ? [{ spotNo, centre: figure.centre }] : [];
  });

/** Where it is best measured. */
export function firstAsked(ends: readonly LengthEnd[]): AskedLength {
  const [first, last] = farthestApart(ends) ?? [];
  return { from: first?.spotNo ?? 0, to: last?.spotNo ?? 0, lengthMm: null, sdMm: CALIPER_SD_MM };
}

/** Both places; null while they are one. */
export function placesAsked(ends: readonly LengthEnd[], { from, to }: Pick<AskedLength, 'from' | 'to'>) {
  const [a, b] = [from, to].map((no) => ends.find(({ spotNo }) => spotNo === no));
  return a && b && a !== b ? { from: a.centre, to: b.centre } : null;
}

export type SizeAsked = ReturnType<typeof printScale> | null;

/** What the length makes of the print's shape; null while there is none. */
export function sizeAsked(shape: PrintShape, ends: readonly LengthEnd[], asked: AskedLength): SizeAsked {
  const places = placesAsked(ends, asked);
  if (!places || asked.lengthMm === null) return null;
  return printScale(shape, { ...places, lengthMm: asked.lengthMm, standardUncertaintyMm: asked.sdMm });
}

/** What is kept of it, from all scans there are by then. */
export function keptPrintSize(view: ScanView, scans: readonly ScanResult[], asked: AskedLength): KeptPrintSize | null {
  const shape = printShape(scans, view.figures);
  const size = shape && sizeAsked(shape, lengthEnds(view), asked);
  if (!size?.ok || asked.lengthMm === null) return null;
  const { across, along } = size.value;
  return {
    ...{ fromSpotNo: asked.from, toSpotNo: asked.to, lengthMm: asked.lengthMm, lengthSdMm: asked.sdMm },
    ...{ acrossScale: across.value, acrossSd: across.sd, alongScale: along.value, alongSd: along.sd },
  };
}
