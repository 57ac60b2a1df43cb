import 'server-only';
import { apply, inverseOf, type Affine } from '@/core/geometry/affine';
import { mapInMachine, sheetToMachine, type Load } from '@/core/geometry/load';
import { fitReadings } from '@/core/fit/fit-readings';
import type { ErrorMapFit, FitError } from '@/core/fit/fit-error-map';
import { ASSUMED_MARK_SD_MM, loadCovariance } from '@/core/fit/load-noise';
import { seededRng, seedFrom } from '@/core/math/random';
import type { WedgeReading } from '@/core/reading/observation';
import type { MachineSetting } from '@/core/setting/machine-setting';
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

/** Current wedge readings of some sets, as the fit takes them. */
export function wedgeReadings(record: CalibrationRecord, sets: readonly CutSet[]): readonly WedgeReading[] {
  return record.readings.flatMap((r): WedgeReading[] => {
    const set = sets.find((s) => s.id === r.cutSetId);
    if (!set || r.method !== 'wedge' || r.readingMm === null || r.standardUncertaintyMm === null) return [];
    const place = wedgeOf(record.definition, set.setNo, r.spotNo, r.axis);
    if (!place) return [];
    return [
      {
        id: r.id,
        place,
        readingMm: r.readingMm,
        standardUncertaintyMm: r.standardUncertaintyMm,
        loadKey: `load ${set.loadNo}`,
        load: set.load,
        fileShift: set.fileShift,
      },
    ];
  });
}

/** Which settings are worth moving: an offset or scale whose part of the error is to be corrected in the machine frame. */
function settingsToMove(
  record: CalibrationRecord,
  parts: readonly PartJudgement[],
  load: Load,
): readonly MachineSetting[] {
  const isSwapped = load.turnDeg === 90 || load.turnDeg === 270;
  const partOf = {
    offset_across: 'offsetAcrossMm',
    offset_along: 'offsetAlongMm',
    scale_across: 'scaleAcross',
    scale_along: 'scaleAlong',
  } as const;
  const swapped = {
    offset_across: 'offsetAlongMm',
    offset_along: 'offsetAcrossMm',
    scale_across: 'scaleAlong',
    scale_along: 'scaleAcross',
  } as const;
  return record.settings.filter((s) => {
    const part = (isSwapped ? swapped : partOf)[s.actsOn];
    // A scale that turns about a mark moves the centre: its offset goes with it.
    const scales = record.settings.some(
      (o) =>
        o.actsOn.startsWith('scale') &&
        parts.some((p) => p.part === (isSwapped ? swapped : partOf)[o.actsOn] && p.isToBeCorrected),
    );
    return parts.some((p) => p.part === part && p.isToBeCorrected) || (scales && s.actsOn.startsWith('offset'));
  });
}

/** Map, verdict and plan from the readings of the sets cut since the latest correction. */
export function analyse(
  record: CalibrationRecord,
  keepAll = false,
): { ok: true; value: Analysis } | { ok: false; error: FitError } {
  const sets = currentSets(record);
  const readings = wedgeReadings(record, sets);
  const load: Load = sets.at(-1)?.load ?? { turnDeg: 0, face: 'ink-up' };
  const loadNoise = loadCovariance(record.marks, ASSUMED_MARK_SD_MM);
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
