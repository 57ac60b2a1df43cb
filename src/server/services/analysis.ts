import 'server-only';
import { apply, inverseOf, type Affine } from '@/core/geometry/affine';
import { mapInMachine, sheetToMachine, type Load } from '@/core/geometry/load';
import { fitReadings } from '@/core/fit/fit-readings';
import type { ErrorMapFit, FitError } from '@/core/fit/fit-error-map';
import { ASSUMED_MARK_SD_MM, loadCovariance } from '@/core/fit/load-noise';
import { seededRng, seedFrom } from '@/core/math/random';
import type { FigureReading } from '@/core/reading/observation';
import { isOffset, type ActsOn, type MachineSetting } from '@/core/setting/machine-setting';
import { planSettings, type SettingsPlan } from '@/core/setting/plan-settings';
import { wedgeOf } from '@/core/target/sheet-definition';
import { adviceFor, verdictOf, worstCornerBounds, type Advice, type Bounds, type Verdict } from '@/core/verdict/bound';
import { nextJob, type NextJob } from '@/core/verdict/next-job';
import { judgeParts, type PartJudgement } from '@/core/verdict/parts';
import { currentSets, type CalibrationRecord, type CutSet } from './record';

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
  /** Settings whose direction is not known: they cannot be planned. */
  readonly unknownDirection: readonly MachineSetting[];
  /** Worst corner left after the settings, and the same after the file moves the rest. */
  readonly afterSettingsMm: number;
  readonly fileCorrection: Affine<'machine', 'machine'>;
  readonly fileCorrectionAlone: Affine<'machine', 'machine'>;
  readonly markSdMm: number;
}

/** Current fine readings of some sets, as the fit takes them. */
export function fineReadings(record: CalibrationRecord, sets: readonly CutSet[]): readonly FigureReading[] {
  return record.readings.flatMap((r): FigureReading[] => {
    const set = sets.find((s) => s.id === r.cutSetId);
    if (!set || r.readingMm === null || r.standardUncertaintyMm === null) return [];
    const common = {
      id: r.id,
      readingMm: r.readingMm,
      standardUncertaintyMm: r.standardUncertaintyMm,
      loadKey: `load ${set.loadNo}`,
      load: set.load,
      fileShift: set.fileShift,
    };
    if (r.method === 'wedge') {
      const place = wedgeOf(record.definition, set.setNo, r.spotNo, r.axis);
      return place ? [{ kind: 'wedge', place, ...common }] : [];
    }
    const disc = record.definition.liftOffs.find((f) => f.spotNo === r.spotNo);
    return r.method === 'rim' && disc ? [{ kind: 'rim', axis: r.axis, centre: disc.centre, ...common }] : [];
  });
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

/** Map, verdict and plan from the readings of the sets cut since the latest correction. */
export function analyse(
  record: CalibrationRecord,
  keepAll = false,
): { ok: true; value: Analysis } | { ok: false; error: FitError } {
  const sets = currentSets(record);
  const readings = fineReadings(record, sets);
  const load: Load = sets.at(-1)?.load ?? { turnDeg: 0, face: 'ink-up' };
  const loadNoise = loadCovariance(record.marks, ASSUMED_MARK_SD_MM, record.loadModel);
  const fitted = fitReadings(readings, load, { loadCovariance: loadNoise, corners: record.corners, keepAll });
  if (!fitted.ok) return fitted;
  const fit = fitted.value;
  const tolerance = record.calibration.toleranceMm;
  const bounds = worstCornerBounds(fit, record.corners);
  const parts = judgeParts(fit, record.area, tolerance);
  const cut0 = mapInMachine(fit.map, load);
  const corners = record.corners.map((p) => apply(sheetToMachine(load), p));
  const wanted = settingsToMove(record, parts, load);
  const plan = planSettings(
    cut0,
    wanted.filter((s) => s.sense !== null),
    corners,
  );
  return {
    ok: true,
    value: {
      fit,
      load,
      bounds,
      verdict: verdictOf(bounds, tolerance),
      advice: adviceFor(fit.readingCovariance, fit.covariance, record.corners),
      next: nextJob(
        {
          beta: fit.beta,
          covariance: fit.covariance,
          loadCovariance: loadNoise,
          corners: record.corners,
          toleranceMm: tolerance,
        },
        seededRng(seedFrom(record.calibration.id, 'next job')),
      ),
      parts,
      plan,
      unknownDirection: wanted.filter((s) => s.sense === null),
      afterSettingsMm: plan.worstAfterMm,
      fileCorrection: inverseOf(plan.after),
      fileCorrectionAlone: inverseOf(cut0),
      markSdMm: ASSUMED_MARK_SD_MM,
    },
  };
}
