import { cornersOf } from '../geometry/affine';
import { fromParameters } from '../geometry/error-parameters';
import { fitErrorMap } from '../fit/fit-error-map';
import { seededRng } from '../math/random';
import { NINE_SPOTS, observe } from '../simulate/trials.testing';
import { verdictOf, worstCornerBounds } from './bound';
import {
  explainBound,
  explainMap,
  explainNextJob,
  explainOdd,
  explainPart,
  explainReading,
  explainVerdict,
  explainWorst,
  type Explanation,
} from './explain';
import { judgeParts } from './parts';

const corners = cornersOf(180, 260);
const area = { widthMm: 180, lengthMm: 260 };
const truth = fromParameters({
  offsetAcrossMm: 0.2,
  offsetAlongMm: -0.1,
  rotationRad: 0.002,
  scaleAcross: 0.001,
  scaleAlong: 0,
  squareness: 0,
});
const fitted = fitErrorMap(observe(truth, NINE_SPOTS, 0.05, seededRng(8)), { corners });
if (!fitted.ok) throw new Error(fitted.error.kind);
const fit = fitted.value;
const bounds = worstCornerBounds(fit, corners);
const parts = judgeParts(fit, area, 0.3);

/** Every "a op b ... = c" of an explanation, worked out again from the figures it shows: products before sums. */
function sums({
  lines,
}: Explanation): readonly { readonly told: number; readonly again: number; readonly line: string }[] {
  const number = (words: string): number => Number(words.replaceAll('\u2212', '-').replace('+', ''));
  return lines.flatMap((line) => {
    const found =
      /^(?:[a-z ]+:? )?([\d.+\u2212\u00d7\s/\u221a]+?)(?: [a-z ]+)?((?: \u00d7 [\d.\u2212]+)*) = ([+\u2212]?[\d.]+)/.exec(
        line,
      );
    if (!found) return [];
    const again = `${found[1] ?? ''}${found[2] ?? ''}`
      .split(' + ')
      .map((term) => {
        const [upper = '', root] = term.split(' / \u221a');
        const product = upper.split(' \u00d7 ').reduce((all, f) => all * number(f), 1);
        return root === undefined ? product : product / Math.sqrt(number(root));
      })
      .reduce((a, b) => a + b, 0);
    return [{ told: number(found[3] ?? ''), again, line }];
  });
}

describe('how a figure was worked out', () => {
  it.each([
    [
      'a reading',
      explainReading({ stepMm: 0.05, operatorSdMm: 0.04, printerDotMm: 25.4 / 600, isPlotterFile: true }),
      3,
    ],
    ...parts.map((p) => [p.part, explainPart(p, p.part, area, 0.3), 2] as const),
    ['the worst corner', explainWorst(fit, bounds), 2],
    ['the bound', explainBound(fit, corners, bounds), 4],
  ] as const)('%s: its own arithmetic holds to the figures shown', (_name, explanation, count) => {
    const own = sums(explanation);
    expect(own.length).toBeGreaterThanOrEqual(count);
    for (const { told, again } of own) expect(Math.abs(told - again)).toBeLessThan(0.0016);
  });
  it('ends at the figures that are shown elsewhere', () => {
    expect(explainWorst(fit, bounds).lines.at(-1)).toContain(bounds.worstMm.toFixed(3));
    expect(explainBound(fit, corners, bounds).lines.at(-1)).toContain(bounds.upperMm.toFixed(3));
    const reading = explainReading({ stepMm: 0.05, operatorSdMm: 0.04, printerDotMm: 0, isPlotterFile: false });
    expect(reading.lines.at(-1)).toContain(Math.hypot(0.05 / Math.sqrt(12), 0.04).toFixed(3));
  });
  it('says of each part why it is corrected or left, as it was judged', () => {
    for (const p of parts) {
      const last = explainPart(p, p.part, area, 0.3).lines.at(-1) ?? '';
      expect(last.includes('it is corrected')).toBe(p.isToBeCorrected);
    }
  });
  it('tells the map, the odd readings, the verdict and the next job in their own figures', () => {
    expect(explainMap(fit).lines.join()).toContain('18 readings counted, 0 left out, 1 load');
    expect(explainOdd(fit).lines.join()).toContain('left out: 0');
    expect(explainVerdict(bounds, verdictOf(bounds, 0.3), 0.3).lines[1]).toMatch(/pass|fail|cannot be told/);
    const next = { medianMm: 0.2, q95Mm: 0.41, outShare: 0.125 };
    expect(explainNextJob(next, 0.05, true, 0.3).lines.join()).toMatch(/assumed.*95 in 100 below 0\.410.*12\.5 in 100/);
  });
});
