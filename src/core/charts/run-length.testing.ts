import { standardNormal, type Rng } from '../math/random';
import { next, signalOf, START, type School } from './control-chart';
import { nextSums, type CusumDesign } from './cusum';
import { ewmaHalfWidth, nextAverage, type EwmaDesign } from './ewma';

type Draw = () => number;

/** Mean and standard error of the number of points until a chart signals, over so many charts. */
export function averageRunLength(rng: Rng, runs: number, run: (draw: Draw) => number) {
  let sum = 0;
  let squares = 0;
  for (let i = 0; i < runs; i++) {
    const length = run(() => standardNormal(rng));
    sum += length;
    squares += length * length;
  }
  const mean = sum / runs;
  return { mean, standardError: Math.sqrt((squares / runs - mean * mean) / runs) };
}

/** Points until the average passes its limit. */
export const ewmaRun = (design: EwmaDesign) => (draw: Draw) => {
  const limit = ewmaHalfWidth(1, design);
  let average = 0;
  for (let n = 1; ; n++) {
    average = nextAverage(average, draw(), design.lambda);
    if (Math.abs(average) > limit) return n;
  }
};

/** Points until one of both sums passes its limit. */
export const cusumRun =
  ({ slack, limit }: CusumDesign, shift = 0) =>
  (draw: Draw) => {
    let sums = { high: 0, low: 0 };
    for (let n = 1; ; n++) {
      sums = nextSums(sums, draw() + shift, slack);
      if (Math.max(sums.high, sums.low) > limit) return n;
    }
  };

/** Points until a chart as the application keeps it signals, its usual mean and spread known. */
export const chartRun =
  (school: School, shift = 0) =>
  (draw: Draw) => {
    let now = START;
    for (let n = 1; ; n++) {
      const z = draw() + shift;
      now = next(now, z);
      if (signalOf(school, z, now)) return n;
    }
  };
