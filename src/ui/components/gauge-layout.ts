export interface GaugeLayout {
  readonly wedgePath: string;
  readonly bobPath: string;
  /** Where the string ends; absent when nothing is known. */
  readonly bob: { readonly x: number; readonly y: number } | null;
  readonly leanDeg: number;
  readonly words: string;
}

const LENGTH = 44;
/** Half angle of the wedge: worst error equal to the tolerance leans this far. */
const TOLERANCE_DEG = 22;
const LARGEST_DEG = 38;

/** Lean = worst over tolerance, in the wedge's half angle; stops short of the frame when far out. */
export function gaugeLayout(worstMm: number | null, toleranceMm: number): GaugeLayout {
  const side = LENGTH * 1.3;
  const half = (TOLERANCE_DEG * Math.PI) / 180;
  const x = side * Math.sin(half);
  const y = side * Math.cos(half);
  const leanDeg = worstMm === null ? 0 : Math.min(LARGEST_DEG, (worstMm / toleranceMm) * TOLERANCE_DEG);
  const lean = (leanDeg * Math.PI) / 180;
  const round = (value: number): number => Math.round(value * 100) / 100;
  return {
    wedgePath: `M0 0L${round(-x)} ${round(y)}L${round(x)} ${round(y)}Z`,
    bobPath: 'M-4.5 0H4.5L0 12Z',
    bob: worstMm === null ? null : { x: round(LENGTH * Math.sin(lean)), y: round(LENGTH * Math.cos(lean)) },
    leanDeg: round(leanDeg),
    words:
      worstMm === null
        ? 'nothing measured yet'
        : `out by ${worstMm.toFixed(2)} mm at the worst corner, ${toleranceMm.toFixed(2)} mm allowed`,
  };
}
