import 'server-only';
import { apply, largestDisplacement, translation, type Affine, type Point } from '@/core/geometry/affine';
import { mapInMachine, mapOnSheet, sheetToMachine, type Load } from '@/core/geometry/load';
import { asKnife, KNIFE_FROM_PEN_SD_MM, KNIFE_SHIFT_UNTOLD } from '@/core/fit/pen';
import { fitReadings } from '@/core/fit/fit-readings';
import type { ErrorMapFit, FitError } from '@/core/fit/fit-error-map';
import { ASSUMED_MARK_SD_MM, loadCovariance } from '@/core/fit/load-noise';
import { seededRng, seedFrom } from '@/core/math/random';
import { cutCorrection } from '@/core/setting/correct-cut';
import { isOffset, type ActsOn, type MachineSetting } from '@/core/setting/machine-setting';
import { planSettings, type SettingsPlan } from '@/core/setting/plan-settings';
import { adviceFor, verdictOf, worstCornerBounds, type Advice, type Bounds, type Verdict } from '@/core/verdict/bound';
import { nextJob, type NextJob } from '@/core/verdict/next-job';
import { judgeParts, type PartJudgement } from '@/core/verdict/parts';
import { faultOf, type Fault } from '@/core/verdict/fault';
import type { MarkNoise } from '@/core/fit/mark-noise';
import { fineReadings } from './fine-readings';
import { loadViews, noiseOfLoads, type LoadView } from './loads';
import { currentSets, type CalibrationRecord } from './record';
import { errorNow, settingsAtCut, type SettingsAtCut } from './settings-at-cut';

export interface Analysis {
  readonly fit: ErrorMapFit;
  /** The load in whose sheet frame the map is told: the newest. */
  readonly load: Load;
  readonly bounds: Bounds;
  readonly verdict: Verdict;
  readonly advice: Advice;
  readonly next: NextJob;
  readonly parts: readonly PartJudgement[];
  readonly plan: SettingsPlan;
  /** Settings in force when the newest set was cut: the map is of these, and the plan starts from them. */
  readonly atCut: SettingsAtCut;
  /** Settings whose direction is not known: they cannot be planned. */
  readonly unknownDirection: readonly MachineSetting[];
  /** Worst corner left after the settings, and the same after the file moves the rest. */
  readonly afterSettingsMm: number;
  readonly fileCorrection: Affine<'machine', 'machine'>;
  readonly fileCorrectionAlone: Affine<'machine', 'machine'>;
  /** Worst corner of the machine as it stands now, if nothing is corrected. */
  readonly leftAloneMm: number;
  readonly markSdMm: number;
  /** Each load by itself, what they tell of the noise of reading the marks, and where the error comes from. */
  readonly loads: readonly LoadView[];
  readonly noise: MarkNoise;
  /** How many loads of earlier checks count in the noise. */
  readonly earlierLoads: number;
  /** Only once more than one load is known. */
  readonly fault: Fault | null;
}

const PART_OF: Readonly<Record<ActsOn, PartJudgement['part']>> = {
  offset_across: 'offsetAcrossMm',
  offset_along: 'offsetAlongMm',
  scale_across: 'scaleAcross',
  scale_along: 'scaleAlong',
  feed_length: 'scaleAlong',
  squareness: 'squareness',
  rotation: 'rotationRad',
};
const SWAPPED: Readonly<Partial<Record<PartJudgement['part'], PartJudgement['part']>>> = {
  offsetAcrossMm: 'offsetAlongMm',
  offsetAlongMm: 'offsetAcrossMm',
  scaleAcross: 'scaleAlong',
  scaleAlong: 'scaleAcross',
};

/**
 * Which settings are worth moving: those whose part of the error is to be corrected, told in the machine frame. Everything
 * that turns or scales about a mark moves the centre, so the offsets go with it. Of two that do the same one is enough.
 */
function settingsToMove(
  record: CalibrationRecord,
  parts: readonly PartJudgement[],
  load: Load,
): readonly MachineSetting[] {
  const isSwapped = load.turnDeg === 90 || load.turnDeg === 270;
  const partOf = (s: MachineSetting): PartJudgement['part'] => {
    const part = PART_OF[s.actsOn];
    return (isSwapped ? SWAPPED[part] : undefined) ?? part;
  };
  const isWanted = (s: MachineSetting): boolean => parts.some((p) => p.part === partOf(s) && p.isToBeCorrected);
  const hasLinear = record.settings.some((s) => !isOffset(s) && isWanted(s));
  const hasScaleAlong = record.settings.some((s) => s.actsOn === 'scale_along');
  return record.settings.filter((s) => {
    if (s.actsOn === 'feed_length' && hasScaleAlong) return false;
    return isWanted(s) || (hasLinear && isOffset(s));
  });
}

/** The best values for the settings worth moving, and the values at the cut for all others that were moved since. */
function planFrom(
  cut0: Affine<'machine', 'machine'>,
  wanted: readonly MachineSetting[],
  atCut: SettingsAtCut,
  corners: readonly Point<'machine'>[],
): SettingsPlan {
  const planned = wanted.filter((s) => s.sense !== null);
  const plan = planSettings(cut0, planned, corners, { atCut: atCut.values });
  const others = atCut.moved.filter((c) => !planned.some((s) => s.id === c.setting.id));
  return { ...plan, changes: [...plan.changes, ...others] };
}

const NOTHING: readonly number[] = [0, 0, 0, 0, 0, 0];
const NO_DOUBT = new Float64Array(36);

/** What is known of the noise, else what is assumed; two loads that differ say that it is no less than so much. */
function markSdOf(noise: MarkNoise): number {
  if (noise.kind === 'estimated') return noise.sdMm;
  return noise.kind === 'unsteady' ? Math.max(noise.atLeastMm, ASSUMED_MARK_SD_MM) : ASSUMED_MARK_SD_MM;
}

/** Where the noise of loads was itself estimated, intervals widen by Student's t with its degrees. */
function withDoubtOf(noise: MarkNoise, fit: ErrorMapFit): ErrorMapFit {
  if (noise.kind !== 'estimated') return fit;
  return { ...fit, quantileDegrees: Math.min(fit.quantileDegrees, noise.degrees) };
}

/** Drawn with a pen, and where the knife cuts against it was never measured. */
export const isPenAlone = ({ fit }: { readonly fit: ErrorMapFit }): boolean => fit.untold.includes(KNIFE_SHIFT_UNTOLD);

/** What a pen has drawn, told of the knife. */
function knifeFit(record: CalibrationRecord, fit: ErrorMapFit, load: Load): ErrorMapFit {
  if (record.calibration.cutLine !== 'pen') return fit;
  const { knifeFromPenAcrossMm: x, knifeFromPenAlongMm: y } = record.setupRow.cutter;
  if (x === null || y === null) return asKnife(fit, null);
  const onSheet = mapOnSheet(translation<'machine'>(x, y), load);
  return asKnife(fit, {
    acrossMm: onSheet.tx,
    alongMm: onSheet.ty,
    standardUncertaintyMm: KNIFE_FROM_PEN_SD_MM,
  });
}

/**
 * Without the knife's shift nothing is passed. A failure stands: the work area's corners lie opposite each other, so
 * whatever the shift is, it puts one of them out by no less than what is left of the map does.
 */
function penVerdict(bounds: Bounds, toleranceMm: number): Verdict {
  return verdictOf(bounds, toleranceMm) === 'fail' ? 'fail' : 'cannot_tell';
}

/** Map, verdict and plan from the readings of the sets cut since the latest correction. */
export function analyse(
  record: CalibrationRecord,
  keepAll = false,
): { ok: true; value: Analysis } | { ok: false; error: FitError } {
  const sets = currentSets(record);
  const readings = fineReadings(record, sets);
  const load: Load = sets.at(-1)?.load ?? { turnDeg: 0, face: 'ink-up' };
  const loads = loadViews(record, sets);
  const noise = noiseOfLoads(record, loads);
  const markSdMm = markSdOf(noise);
  const loadNoise = loadCovariance(record.marks, markSdMm, record.loadModel);
  const fitted = fitReadings(readings, load, { loadCovariance: loadNoise, corners: record.corners, keepAll });
  if (!fitted.ok) return fitted;
  const fit = knifeFit(record, withDoubtOf(noise, fitted.value), load);
  const tolerance = record.calibration.toleranceMm;
  const bounds = worstCornerBounds(fit, record.corners);
  const parts = judgeParts(fit, record.area, tolerance);
  const cut0 = mapInMachine(fit.map, load);
  const corners = record.corners.map((p) => apply(sheetToMachine(load), p));
  const wanted = settingsToMove(record, parts, load);
  const atCut = settingsAtCut(record, sets);
  const plan = planFrom(cut0, wanted, atCut, corners);
  const now = errorNow(record.settings, cut0, atCut);
  const draws = (words: string) => seededRng(seedFrom(record.calibration.id, words));
  const next = { loadCovariance: loadNoise, corners: record.corners, toleranceMm: tolerance };
  const loadAlone = nextJob({ beta: NOTHING, covariance: NO_DOUBT, ...next }, draws('loads alone'));
  return {
    ok: true,
    value: {
      fit,
      load,
      bounds,
      verdict: isPenAlone({ fit }) ? penVerdict(bounds, tolerance) : verdictOf(bounds, tolerance),
      advice: adviceFor(fit.readingCovariance, fit.covariance, record.corners),
      next: nextJob({ beta: fit.beta, covariance: fit.covariance, ...next }, draws('next job')),
      parts,
      plan,
      atCut,
      unknownDirection: wanted.filter((s) => s.sense === null),
      afterSettingsMm: plan.worstAfterMm,
      fileCorrection: cutCorrection(plan.after),
      fileCorrectionAlone: cutCorrection(now),
      leftAloneMm: largestDisplacement(now, corners),
      markSdMm,
      loads,
      noise,
      earlierLoads: record.earlierLoads.reduce((sum, group) => sum + group.length, 0),
      fault:
        noise.kind === 'one-load'
          ? null
          : faultOf({ constantLowerMm: bounds.lowerMm, loadQ95Mm: loadAlone.q95Mm, toleranceMm: tolerance }),
    },
  };
}
