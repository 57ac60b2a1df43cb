import type { ComputeRollInput } from '@/contracts/compute';
import { rollDrift, type DirectionDrift, type RollProblem } from '@/core/drift/roll-drift';
import { errorAtMm, sectionOfRoll } from '@/core/drift/roll-section';
import { sectionsWithin, type CopyProblem } from '@/core/drift/section-rows';
import { ok, type Result } from '@/core/result';

function directionOf({ shiftMm, perMetreMm, bow, perWidth, slip, noiseMm }: DirectionDrift) {
  const { slipMm, slipUpperMm } = slip;
  return { shiftMm, perMetreMm, bowMmPerMetreSquared: bow, perWidth, slipMm, slipUpperMm, noiseMm };
}

/** Drift of a roll from its stations, the longest section that keeps the tolerance, and a run of copies in such sections. */
export function computeRoll(input: ComputeRollInput): Result<object, RollProblem | CopyProblem> {
  const { stations, toleranceMm, confidence, registration, isCorrected, run } = input;
  const told = rollDrift(stations);
  if (!told.ok) return told;
  const drift = told.value;
  const halfWidthMm = Math.max(...stations.map(({ asideMm }) => Math.abs(asideMm)));
  const farthestMm = input.farthestMm ?? 2 * drift.lengthMm;
  const question = { registration, toleranceMm, confidence, farthestMm, halfWidthMm, isCorrected };
  const section = sectionOfRoll(drift, question);
  const rows = run ? sectionsWithin(run, section.longestMm) : null;
  if (rows && !rows.ok) return rows;
  return ok({
    across: directionOf(drift.across),
    along: directionOf(drift.along),
    walkMmPerMetre: drift.walkMm,
    stripMm: drift.lengthMm,
    section,
    unsplit: { atMm: farthestMm, errorMm: errorAtMm(drift, farthestMm, halfWidthMm) },
    rows: rows?.value ?? null,
  });
}
