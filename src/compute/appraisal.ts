import type { ComputeBorderInput, ComputeFitInput } from '@/contracts/compute';
import { appraise, type Appraisal, type AppraisalError } from '@/core/verdict/appraise';
import { ok, type Result } from '@/core/result';

function appraisalOf(input: ComputeFitInput, yieldShare?: number): Result<Appraisal, AppraisalError> {
  const observations = input.readings.map((r, i) => ({
    id: `reading ${i}`,
    axis: r.axis,
    at: { x: r.xMm, y: r.yMm },
    valueMm: r.displacementMm,
    standardUncertaintyMm: r.standardUncertaintyMm,
    loadKey: `load ${r.load}`,
    ...(r.approach !== undefined && { approach: r.approach }),
  }));
  return appraise(observations, {
    workWidthMm: input.workWidthMm,
    workLengthMm: input.workLengthMm,
    toleranceMm: input.toleranceMm,
    marks: input.marks.map((m) => ({ x: m.xMm, y: m.yMm })),
    markModel: input.markModel,
    ...(input.markSdMm !== undefined && { markSdMm: input.markSdMm }),
    ...(yieldShare !== undefined && { yieldShare }),
  });
}

const judged = ({ bounds, verdict, advice, next }: Appraisal) => ({
  worstMm: bounds.worstMm,
  lowerMm: bounds.lowerMm,
  upperMm: bounds.upperMm,
  verdict,
  advice,
  nextJob: next,
});

/** Readings to error map, intervals, verdict and border. */
export function computeFit(input: ComputeFitInput): Result<object, AppraisalError> {
  const done = appraisalOf(input);
  if (!done.ok) return done;
  const { fit, parts, borderMm } = done.value;
  return ok({
    model: fit.model,
    untold: fit.untold,
    leftOut: fit.misfitIds,
    loads: fit.loads,
    reducedChiSquare: fit.reducedChiSquare,
    backlash: fit.backlash,
    parts: Object.fromEntries(parts.map(({ part, ...rest }) => [part, rest])),
    ...judged(done.value),
    borderMm,
  });
}

/** The two lines of a verdict: the constant error with its bound, and the next job. */
export function computeVerdict(input: ComputeFitInput): Result<object, AppraisalError> {
  const done = appraisalOf(input);
  return done.ok ? ok(judged(done.value)) : done;
}

/** The border or bleed that hides the error of the wanted share of jobs with nothing changed. */
export function computeBorder(input: ComputeBorderInput): Result<object, AppraisalError> {
  const done = appraisalOf(input, input.yieldShare);
  return done.ok ? ok({ yieldShare: input.yieldShare, borderMm: done.value.borderMm }) : done;
}
