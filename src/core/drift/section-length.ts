import { choleskyFactor } from '../math/symmetric';
import { seededRng, standardNormal, type Rng } from '../math/random';
import type { SlipBelief, Belief } from './slip-belief';

/** How a section begins and ends: what the machine reads, and how well (mm). */
export type SectionRegistration =
  /** By its origin alone: one value of its own at each new start (a rewind, a hand-set origin). */
  | { readonly kind: 'origin'; readonly originSdMm: number }
  /** By two marks at its beginning, so far apart along the roll: they tell a turn as well. */
  | { readonly kind: 'start-marks'; readonly apartMm: number; readonly markSdMm: number }
  /** By marks at both ends, or every so much: what is steady in between is taken out. */
  | { readonly kind: 'both-ends'; readonly markSdMm: number };

export interface SectionQuestion {
  readonly registration: SectionRegistration;
  readonly toleranceMm: number;
  /** How likely a section must stay within the tolerance, 0 < p < 1. */
  readonly confidence: number;
  /** As far as is looked, mm. */
  readonly farthestMm: number;
  /** What each coefficient of the steady drift adds at a place. */
  readonly rowAt: (atMm: number) => readonly number[];
  /** The steady drift that was found is keyed in; otherwise all of it stays. */
  readonly isCorrected: boolean;
}

export interface SectionAnswer {
  /** The longest section that keeps the tolerance, mm; as far as was looked where none breaks it. */
  readonly longestMm: number;
  /** Whether the drift sets it, or only how far was looked. */
  readonly isLimited: boolean;
}

const DRAWS = 2000;
const STEPS = 200;
/**
 * A walk looked at in steps goes out unseen between them: the tolerance is taken for narrower by so many standard
 * deviations of a step. Source: Broadie, Glasserman and Kou, A continuity correction (1997), from memory.
 */
const BETWEEN_STEPS = 0.5826;

/** One roll as it may be, given what was read. */
interface Draw {
  readonly coefficients: Float64Array;
  /** Standard deviation of the slip over one mm. */
  readonly slipSd: number;
}

/** Sum of squares of so many standard normals: Marsaglia and Tsang's gamma, from memory. */
function chiSquareDraw(degrees: number, rng: Rng): number {
  const d = degrees / 2 - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const x = standardNormal(rng);
    const v = (1 + c * x) ** 3;
    if (v > 0 && Math.log(rng()) < 0.5 * x * x + d - d * v + d * Math.log(v)) return 2 * d * v;
  }
}

/** Draws from every belief in proportion to its weight. */
function drawsOf({ beliefs }: SlipBelief, rng: Rng): readonly Draw[] {
  const draws: Draw[] = [];
  let owed = 0;
  for (const { fit, weight } of beliefs) {
    owed += weight * DRAWS;
    if (owed < 1) continue;
    const triangle = choleskyFactor(fit.inverseNormal, fit.coefficients.length);
    for (; owed >= 1; owed--) draws.push(drawOf(fit, triangle, rng));
  }
  return draws;
}

function drawOf(fit: Belief['fit'], triangle: Float64Array, rng: Rng): Draw {
  const n = fit.coefficients.length;
  const noiseSd = Math.sqrt((fit.noiseVariance * fit.degrees) / chiSquareDraw(fit.degrees, rng));
  const coefficients = fit.coefficients.slice();
  for (let k = 0; k < n; k++) {
    const z = noiseSd * standardNormal(rng);
    for (let i = k; i < n; i++) coefficients[i]! += triangle[i * n + k]! * z;
  }
  return { coefficients, slipSd: noiseSd * Math.sqrt(fit.slipRatio) };
}

/** Mean of each coefficient over all beliefs: what is keyed in. */
export const steadyDrift = ({ beliefs }: SlipBelief): Float64Array =>
  Float64Array.from(beliefs[0]?.fit.coefficients ?? [], (_, k) =>
    beliefs.reduce((sum, { fit, weight }) => sum + weight * fit.coefficients[k]!, 0),
  );

/** What the registration itself leaves at a place of a section, mm. */
function registrationError(registration: SectionRegistration, rng: Rng): (atMm: number) => number {
  if (registration.kind === 'origin') {
    const shift = registration.originSdMm * standardNormal(rng);
    return () => shift;
  }
  if (registration.kind === 'both-ends') return () => 0;
  const { apartMm, markSdMm } = registration;
  const [first, second] = [markSdMm * standardNormal(rng), markSdMm * standardNormal(rng)];
  return (atMm) => first + ((second - first) * atMm) / apartMm;
}

interface Steady {
  /** Rows of the design at every step from the first on. */
  readonly rows: readonly (readonly number[])[];
  readonly known: Float64Array;
}

function steadyAt({ rows, known }: Steady, { coefficients }: Draw, step: number): number {
  const row = rows[step]!;
  let sum = 0;
  for (let k = 0; k < row.length; k++) sum += row[k]! * (coefficients[k]! - known[k]!);
  return sum;
}

/** Where a section of one roll first leaves the tolerance, mm; infinite where it does not. */
function firstOutMm(question: SectionQuestion, steady: Steady, draw: Draw, rng: Rng): number {
  const stepMm = question.farthestMm / STEPS;
  const stepSd = draw.slipSd * Math.sqrt(stepMm);
  const mostMm = question.toleranceMm - BETWEEN_STEPS * stepSd;
  const registered = registrationError(question.registration, rng);
  let slip = 0;
  for (let step = 0; step <= STEPS; step++) {
    if (step > 0) slip += stepSd * standardNormal(rng);
    if (Math.abs(registered(step * stepMm) + steadyAt(steady, draw, step) + slip) > mostMm) return step * stepMm;
  }
  return Infinity;
}

/** Where each roll first leaves the tolerance, the soonest first, mm. */
function firstOuts(
  question: SectionQuestion,
  draws: readonly Draw[],
  known: Float64Array,
  rng: Rng,
): readonly number[] {
  const rows = Array.from({ length: STEPS + 1 }, (_, i) => question.rowAt((i * question.farthestMm) / STEPS));
  return draws.map((draw) => firstOutMm(question, { rows, known }, draw, rng)).sort((a, b) => a - b);
}

/** Length that is not left by as many draws as are wanted. */
function byFirstOut(question: SectionQuestion, out: readonly number[]): SectionAnswer {
  const firstBad = out[Math.floor((1 - question.confidence) * out.length)] ?? Infinity;
  if (!Number.isFinite(firstBad)) return { longestMm: question.farthestMm, isLimited: false };
  return { longestMm: Math.max(0, firstBad - question.farthestMm / STEPS), isLimited: true };
}

const BRIDGE_STEPS = 64;

/** Walks of one standard deviation over their whole length that begin and end at 0, and errors of both marks. */
interface Bridge {
  readonly walk: Float64Array;
  readonly first: number;
  readonly last: number;
}

function bridgeOf(rng: Rng): Bridge {
  const walk = new Float64Array(BRIDGE_STEPS + 1);
  for (let i = 1; i <= BRIDGE_STEPS; i++) walk[i] = walk[i - 1]! + standardNormal(rng) / Math.sqrt(BRIDGE_STEPS);
  const end = walk[BRIDGE_STEPS]!;
  return {
    walk: walk.map((w, i) => w - (end * i) / BRIDGE_STEPS),
    first: standardNormal(rng),
    last: standardNormal(rng),
  };
}

/** What each coefficient adds at every look between marks a length apart, less the chord from one mark to the other. */
function bowRows({ rowAt }: SectionQuestion, lengthMm: number): readonly Float64Array[] {
  const [begin, end] = [rowAt(0), rowAt(lengthMm)];
  return Array.from({ length: BRIDGE_STEPS + 1 }, (_, i) => {
    const u = i / BRIDGE_STEPS;
    return Float64Array.from(rowAt(u * lengthMm), (x, k) => x - begin[k]! - u * (end[k]! - begin[k]!));
  });
}

/** A roll that may be, and how its section between two marks goes. */
interface Between {
  /** What is left of each coefficient. */
  readonly left: Float64Array;
  readonly slipSd: number;
  readonly bridge: Bridge;
}

/** Whether a section between marks keeps its tolerance: the steady drift less its own chord, the marks' errors, the slip. */
function isKeptBetweenMarks(
  { registration, toleranceMm }: SectionQuestion,
  rows: readonly Float64Array[],
  { left, slipSd, bridge }: Between,
  lengthMm: number,
): boolean {
  const markSd = registration.kind === 'both-ends' ? registration.markSdMm : 0;
  const slipMm = slipSd * Math.sqrt(lengthMm);
  const mostMm = toleranceMm - (BETWEEN_STEPS * slipMm) / Math.sqrt(BRIDGE_STEPS);
  for (let i = 0; i <= BRIDGE_STEPS; i++) {
    const u = i / BRIDGE_STEPS;
    const row = rows[i]!;
    let error = markSd * ((1 - u) * bridge.first + u * bridge.last) + slipMm * bridge.walk[i]!;
    for (let k = 0; k < left.length; k++) error += row[k]! * left[k]!;
    if (Math.abs(error) > mostMm) return false;
  }
  return true;
}

const HALVINGS = 24;

/** Share of rolls that keep a section between marks; the same draws at every length, so that what is longer is never better by chance. */
function keptShares(question: SectionQuestion, draws: readonly Draw[], known: Float64Array, rng: Rng) {
  const rolls = draws.map(({ coefficients, slipSd }): Between => ({
    left: coefficients.map((c, k) => c - known[k]!),
    slipSd,
    bridge: bridgeOf(rng),
  }));
  return (lengthMm: number): number => {
    const rows = bowRows(question, lengthMm);
    return rolls.filter((roll) => isKeptBetweenMarks(question, rows, roll, lengthMm)).length / rolls.length;
  };
}

function betweenMarks(question: SectionQuestion, draws: readonly Draw[], known: Float64Array, rng: Rng): SectionAnswer {
  const keptShare = keptShares(question, draws, known, rng);
  const isKept = (lengthMm: number): boolean => keptShare(lengthMm) >= question.confidence;
  if (isKept(question.farthestMm)) return { longestMm: question.farthestMm, isLimited: false };
  let [low, high] = [0, question.farthestMm];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (isKept(middle)) low = middle;
    else high = middle;
  }
  return { longestMm: low, isLimited: true };
}

/**
 * The longest section that keeps a tolerance with a confidence, by how the machine registers it: rolls are drawn as the
 * readings leave them possible (noise, slip and steady drift together), and a section is run on each.
 * @param seed the same question with the same seed has the same answer.
 */
export function longestSection(belief: SlipBelief, question: SectionQuestion, seed = 1): SectionAnswer {
  const rng = seededRng(seed);
  const draws = drawsOf(belief, rng);
  const known = keyedIn(belief, question);
  if (question.registration.kind === 'both-ends') return betweenMarks(question, draws, known, rng);
  return byFirstOut(question, firstOuts(question, draws, known, rng));
}

const keyedIn = (belief: SlipBelief, { isCorrected }: SectionQuestion): Float64Array => {
  const found = steadyDrift(belief);
  return isCorrected ? found : found.map(() => 0);
};

/**
 * How likely sections of several lengths are to leave the tolerance somewhere, from the same draws of rolls.
 * @returns one probability a length.
 */
export function outShares(
  belief: SlipBelief,
  question: SectionQuestion,
  lengthsMm: readonly number[],
  seed = 1,
): readonly number[] {
  const rng = seededRng(seed);
  const draws = drawsOf(belief, rng);
  const known = keyedIn(belief, question);
  if (question.registration.kind === 'both-ends') {
    const keptShare = keptShares(question, draws, known, rng);
    return lengthsMm.map((lengthMm) => 1 - keptShare(lengthMm));
  }
  const out = firstOuts(question, draws, known, rng);
  return lengthsMm.map((lengthMm) => out.filter((at) => at <= lengthMm).length / out.length);
}
