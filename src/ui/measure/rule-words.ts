import { toParameters, type ErrorParameters } from '@/core/geometry/error-parameters';
import type { RuleFit } from '@/core/registration/rule-fit';
import { formatFixed, formatLength, type UnitSystem } from '@/core/units/length';

interface Size {
  readonly widthMm: number;
  readonly lengthMm: number;
}

/** Standard errors of the parts, to first order: those of the parameters they rest on. */
function errorsOf({ covariance: c }: RuleFit): ErrorParameters {
  const at = (i: number, j: number): number => c[i * 6 + j] ?? 0;
  const sd = (v: number): number => Math.sqrt(Math.max(0, v));
  return {
    offsetAcrossMm: sd(at(0, 0)),
    offsetAlongMm: sd(at(1, 1)),
    scaleAcross: sd(at(2, 2)),
    scaleAlong: sd(at(5, 5)),
    rotationRad: sd(at(4, 4)),
    squareness: sd(at(3, 3) + at(4, 4) + 2 * at(3, 4)),
  };
}

export interface RulePart {
  readonly name: string;
  readonly words: string;
  /** Larger than reading it can make it. */
  readonly isClear: boolean;
}

type Row = readonly [keyof ErrorParameters, string, (value: number, doubt: number) => string];

/** Every part of a measured print in trade words, each with its doubt; parts that the lengths cannot tell are left out. */
export function ruleParts(fit: RuleFit, size: Size, system: UnitSystem): readonly RulePart[] {
  const told = toParameters(fit.map);
  if (!told.ok) return [];
  const sd = errorsOf(fit);
  const length = (mm: number): string => formatLength(mm, system).replace(' ', '\u00a0');
  const side = (mm: number, plus: string, minus: string): string => (mm >= 0 ? plus : minus);
  const share = (ratio: number): string => `${formatFixed(Math.abs(ratio) * 100, 2)}\u00a0%`;
  const rows: readonly Row[] = [
    [
      'offsetAcrossMm',
      'across',
      (v, u) => `${length(Math.abs(v))} to the ${side(v, 'right', 'left')} (\u00b1\u00a0${length(u)})`,
    ],
    ['offsetAlongMm', 'along', (v, u) => `${length(Math.abs(v))} ${side(v, 'high', 'low')} (\u00b1\u00a0${length(u)})`],
    [
      'rotationRad',
      'turned',
      (v, u) =>
        `${length(Math.abs(v) * size.lengthMm)} over its length, ${side(v, 'counter-clockwise', 'clockwise')} (\u00b1\u00a0${length(u * size.lengthMm)})`,
    ],
    ['scaleAcross', 'width', (v, u) => `${share(v)} too ${side(v, 'wide', 'narrow')} (\u00b1\u00a0${share(u)})`],
    ['scaleAlong', 'length', (v, u) => `${share(v)} too ${side(v, 'long', 'short')} (\u00b1\u00a0${share(u)})`],
    [
      'squareness',
      'out of square',
      (v, u) =>
        `its top lies ${length(Math.abs(v) * size.lengthMm)} to the ${side(v, 'right', 'left')} (\u00b1\u00a0${length(u * size.lengthMm)})`,
    ],
  ];
  return rows.flatMap(([part, name, words]): readonly RulePart[] => {
    const doubt = 1.96 * sd[part];
    if (doubt === 0) return [];
    return [{ name, words: words(told.value[part], doubt), isClear: Math.abs(told.value[part]) > doubt }];
  });
}

const RULE_PROBLEMS = {
  'nothing-measured': 'Type what you measured; a few lengths are enough.',
  'too-few':
    'Not enough yet: one margin each way tells the shift, a second one the turn, a width and a length the size.',
  'not-finite': 'One of the lengths is no number.',
  coincident: 'One of the lengths has no length.',
} as const;
export const ruleProblemWords = (kind: keyof typeof RULE_PROBLEMS): string => RULE_PROBLEMS[kind];
