import type { ComputeRollInput } from '@/contracts/compute';
import {
  halfWidthOf,
  rollDrift,
  valuesOf,
  type DirectionDrift,
  type RollDrift,
  type RollProblem,
} from '@/core/drift/roll-drift';
import { errorAtMm, sectionOfRoll, type RollSection, type RollSectionQuestion } from '@/core/drift/roll-section';
import { sectionsWithin, type CopyProblem, type SectionRows } from '@/core/drift/section-rows';
import { ok, type Result } from '@/core/result';
import { planSections, type SectionsPlanned } from './roll-plan';

function directionOf({ shiftMm, perMetreMm, bow, perWidth, slip, noiseMm }: DirectionDrift) {
  const { slipMm, slipUpperMm } = slip;
  return { shiftMm, perMetreMm, bowMmPerMetreSquared: bow, perWidth, slipMm, slipUpperMm, noiseMm };
}

type DriftAnswer = ReturnType<typeof directionOf>;

/** Sections under one supposition. */
export interface SupposedSections {
  readonly section: RollSection;
  readonly rows: SectionRows | null;
}

/** Plain data, as a thread or the network tells it. */
export interface RollAnswer {
  readonly across: DriftAnswer;
  readonly along: DriftAnswer;
  readonly walkMmPerMetre: RollDrift['walkMm'];
  readonly stripMm: number;
  readonly section: RollSection;
  readonly unsplit: { readonly atMm: number; readonly errorMm: { readonly across: number; readonly along: number } };
  readonly rows: SectionRows | null;
  readonly plan: SectionsPlanned | null;
  readonly whatIf: { readonly halfTolerance: SupposedSections; readonly halfDrift: SupposedSections } | null;
}

interface Asked {
  readonly input: ComputeRollInput;
  readonly question: RollSectionQuestion;
}

function sectionsFor(drift: RollDrift, { input, question }: Asked): Result<SupposedSections, CopyProblem> {
  const section = sectionOfRoll(drift, question);
  if (!input.run) return ok({ section, rows: null });
  const rows = sectionsWithin(input.run, section.longestMm);
  return rows.ok ? ok({ section, rows: rows.value }) : rows;
}

/** Sections where none can be made: the supposition is answered all the same. */
function supposed(drift: RollDrift, asked: Asked): SupposedSections {
  const found = sectionsFor(drift, asked);
  return found.ok ? found.value : { section: sectionOfRoll(drift, asked.question), rows: null };
}

/** A drift half as large: everything that was read, halved. */
function halved(input: ComputeRollInput): Result<RollDrift, RollProblem> {
  return rollDrift(valuesOf(input.stations).map((v) => ({ ...v, valueMm: v.valueMm / 2 })));
}

function whatIf(drift: RollDrift, asked: Asked): Result<RollAnswer['whatIf'], RollProblem> {
  if (!asked.input.isWhatIf) return ok(null);
  const half = halved(asked.input);
  if (!half.ok) return half;
  const question = { ...asked.question, toleranceMm: asked.question.toleranceMm / 2 };
  return ok({ halfTolerance: supposed(drift, { ...asked, question }), halfDrift: supposed(half.value, asked) });
}

/** Drift of a roll from its stations, the longest section that keeps the tolerance, and a run of copies in such sections. */
export function computeRoll(input: ComputeRollInput): Result<RollAnswer, RollProblem | CopyProblem> {
  const { stations, toleranceMm, confidence, registration, isCorrected, run } = input;
  const told = rollDrift(valuesOf(stations));
  if (!told.ok) return told;
  const drift = told.value;
  const halfWidthMm = halfWidthOf(stations);
  const farthestMm = input.farthestMm ?? 2 * drift.lengthMm;
  const asked = { input, question: { registration, toleranceMm, confidence, farthestMm, halfWidthMm, isCorrected } };
  const found = sectionsFor(drift, asked);
  if (!found.ok) return found;
  const supposition = whatIf(drift, asked);
  if (!supposition.ok) return supposition;
  const { section, rows } = found.value;
  return ok({
    across: directionOf(drift.across),
    along: directionOf(drift.along),
    walkMmPerMetre: drift.walkMm,
    stripMm: drift.lengthMm,
    section,
    unsplit: { atMm: farthestMm, errorMm: errorAtMm(drift, farthestMm, halfWidthMm) },
    rows,
    plan: run?.prices && rows ? planSections(drift, asked.question, { run, prices: run.prices, rows }) : null,
    whatIf: supposition.value,
  });
}
