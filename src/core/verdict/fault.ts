/** Where an error comes from, as far as several loads of one state of the machine can tell. */
export type Fault =
  /** The same with every load: calibration takes it out. */
  | 'calibration'
  /** Another with every load: no calibration removes it; look at the reading of the marks. */
  | 'reading'
  | 'both'
  | 'none';

export interface FaultInput {
  /** Lower bound of the constant error at the worst corner: what is surely the same each time. */
  readonly constantLowerMm: number;
  /** What a perfectly calibrated machine would still be out by in 5 of 100 jobs, from the noise of its loads alone. */
  readonly loadQ95Mm: number;
  readonly toleranceMm: number;
}

/** Calibration fault, reading fault, both or none: each side is judged by what it alone would do to a job. */
export function faultOf({ constantLowerMm, loadQ95Mm, toleranceMm }: FaultInput): Fault {
  const isConstant = constantLowerMm > toleranceMm;
  const isChanging = loadQ95Mm > toleranceMm;
  if (isConstant && isChanging) return 'both';
  if (isConstant) return 'calibration';
  return isChanging ? 'reading' : 'none';
}
