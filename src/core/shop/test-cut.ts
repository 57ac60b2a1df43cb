/** How a test cut came out: a small figure in a larger one, weeded. */
export const TEST_CUT_OUTCOMES = ['clean', 'not_through', 'liner_cut', 'torn'] as const;
export type TestCutOutcome = (typeof TEST_CUT_OUTCOMES)[number];

export const TEST_CUT_WORDS: Readonly<Record<TestCutOutcome, string>> = {
  clean: 'lifts clean, at most a faint line in the liner',
  not_through: 'hangs on somewhere: not cut through',
  liner_cut: 'the liner or carrier is cut into',
  torn: 'edges are torn or dragged',
};

export const FORCE_UNITS = ['gf', 'step'] as const;
export type ForceUnit = (typeof FORCE_UNITS)[number];
/** Least change of force worth a test: common practice, no published source. */
const FORCE_STEP: Readonly<Record<ForceUnit, number>> = { gf: 5, step: 1 };
export const FORCE_UNIT_WORDS: Readonly<Record<ForceUnit, string>> = { gf: 'gf', step: 'steps of the machine' };

export interface ForceTried {
  readonly force: number;
  readonly outcome: TestCutOutcome;
}

export type NextForce =
  /** Nothing was tried: begin low, as the machine's manual says for this material. */
  | { readonly kind: 'begin' }
  | { readonly kind: 'keep'; readonly force: number }
  | { readonly kind: 'try'; readonly force: number; readonly why: 'stronger' | 'weaker' | 'between' }
  /** No force lies between too little and too much: the depth of the blade, or the blade, is to be looked at. */
  | { readonly kind: 'depth' }
  /** More force did less: worn or loose blade, or another material than was told. */
  | { readonly kind: 'contradiction' }
  /** Force does not mend torn edges: a new blade, a slower cut, or the depth does. */
  | { readonly kind: 'slower' };

/** How much stronger or weaker the next try is where only one side is known. Common practice, no published source. */
const RAISE = 1.25;

/**
 * What to try next in the spare, from what was tried since the blade was put in: between the strongest that did not cut through
 * and the weakest that cut into the liner, a quarter up or down where only one is known.
 * @param tried oldest first, of one material and stack, in one unit.
 */
export function nextForce(tried: readonly ForceTried[], unit: ForceUnit): NextForce {
  const step = FORCE_STEP[unit];
  const last = tried.at(-1);
  if (!last) return { kind: 'begin' };
  if (last.outcome === 'clean') return { kind: 'keep', force: last.force };
  if (last.outcome === 'torn') return { kind: 'slower' };
  const of = (outcome: TestCutOutcome): readonly number[] =>
    tried.filter((t) => t.outcome === outcome).map((t) => t.force);
  const low = Math.max(-Infinity, ...of('not_through'));
  const high = Math.min(Infinity, ...of('liner_cut'));
  if (low >= high) return { kind: 'contradiction' };
  if (high === Infinity) {
    const raised = Math.ceil((low * RAISE) / step) * step;
    return { kind: 'try', force: Math.max(raised, low + step), why: 'stronger' };
  }
  if (low === -Infinity) {
    const lowered = Math.floor(high / RAISE / step) * step;
    return lowered > 0 ? { kind: 'try', force: Math.min(lowered, high - step), why: 'weaker' } : { kind: 'depth' };
  }
  if (high - low <= step) return { kind: 'depth' };
  return { kind: 'try', force: Math.round((low + high) / 2 / step) * step, why: 'between' };
}

export interface TestCutMade {
  readonly atMs: number;
  readonly outcome: TestCutOutcome;
}

/** Why a test cut is wanted before a job is cut. */
export type TestCutNeed = 'never' | 'new-blade' | 'not-clean';

/**
 * Whether the material, as it lies under the blade, was cut clean since the blade was put in.
 * @param made test cuts of this cutter, material and stack, oldest first. @param bladeAtMs when the blade was put in; null: not told.
 */
export function testCutNeed(made: readonly TestCutMade[], bladeAtMs: number | null): TestCutNeed | null {
  const last = made.at(-1);
  if (!last) return 'never';
  if (bladeAtMs !== null && last.atMs < bladeAtMs) return 'new-blade';
  return last.outcome === 'clean' ? null : 'not-clean';
}
