import { extent, scaleLinear, type ScaleLinear } from 'd3';
import type { BandPlace } from '@/core/drift/drift-band';

/** Width of a chart before its place on the screen is known, and its height, px. */
export const USUAL_WIDTH = 760;
export const CHART_HEIGHT = 240;
export const MARGIN = { left: 52, right: 12, top: 12, bottom: 34 };

export interface ChartScales {
  readonly x: ScaleLinear<number, number>;
  readonly y: ScaleLinear<number, number>;
}

export interface ChartReach {
  readonly fromMm: number;
  readonly toMm: number;
  readonly toleranceMm: number;
  /** px. */
  readonly width: number;
}

/** So that one stray reading does not flatten everything else, the tolerance is always in sight. */
export function scalesFor(values: readonly number[], { fromMm, toMm, toleranceMm, width }: ChartReach): ChartScales {
  const [low = 0, high = 0] = extent([...values, -1.15 * toleranceMm, 1.15 * toleranceMm]);
  return {
    x: scaleLinear([fromMm, Math.max(toMm, fromMm + 1)], [MARGIN.left, width - MARGIN.right]),
    y: scaleLinear([low, high], [CHART_HEIGHT - MARGIN.bottom, MARGIN.top]).nice(),
  };
}

/** A band as one closed outline: its upper edge out, its lower edge back. */
export function bandPath(band: readonly BandPlace[], { x, y }: ChartScales): string {
  if (band.length < 2) return '';
  const upper = band.map((p) => `${x(p.atMm).toFixed(1)},${y(p.highMm).toFixed(1)}`);
  const lower = [...band].reverse().map((p) => `${x(p.atMm).toFixed(1)},${y(p.lowMm).toFixed(1)}`);
  return `M${[...upper, ...lower].join('L')}Z`;
}

export const linePath = (band: readonly BandPlace[], { x, y }: ChartScales): string =>
  band.length < 2 ? '' : `M${band.map((p) => `${x(p.atMm).toFixed(1)},${y(p.meanMm).toFixed(1)}`).join('L')}`;

/** A station's mark by its side: a triangle that points to it, a dot in the middle. */
export function markPath(side: 'left' | 'centre' | 'right', cx: number, cy: number): string {
  const r = 3.6;
  const at = (dx: number, dy: number): string => `${(cx + dx).toFixed(1)},${(cy + dy).toFixed(1)}`;
  if (side === 'centre') return `M${at(-2.8, 0)}a2.8,2.8 0 1,0 5.6,0a2.8,2.8 0 1,0 -5.6,0Z`;
  const point = side === 'left' ? -r : r;
  return `M${at(point, 0)}L${at(-point, -r)}L${at(-point, r)}Z`;
}
