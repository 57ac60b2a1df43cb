import 'server-only';
import { EYE_SD_MM, RIM_EYE_SD_MM } from '@/core/reading/uncertainty';
import { READING_STEP_MM } from '@/core/target/wedge';
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
} from '@/core/verdict/explain';
import type { Analysis } from './analysis';
import { PART_NAMES } from './map-words';
import type { CalibrationRecord } from './record';

/** How each figure of a map page was worked out, with this sheet's own numbers. */
export function explanationsOf(record: CalibrationRecord, a: Analysis): readonly Explanation[] {
  const { toleranceMm } = record.calibration;
  const { printer, cutter } = record.setupRow;
  const isRim = record.definition.liftOffs.length > 0;
  return [
    explainReading({
      stepMm: READING_STEP_MM,
      operatorSdMm: isRim ? RIM_EYE_SD_MM : EYE_SD_MM,
      printerDotMm: printer.dotPitchMm,
      isPlotterFile: record.calibration.route === 'D' && cutter.fileFormat === 'hpgl',
    }),
    explainMap(a.fit),
    explainOdd(a.fit),
    ...a.parts
      .filter((p) => p.standardError > 0)
      .map((p) => explainPart(p, PART_NAMES[p.part], record.area, toleranceMm)),
    explainWorst(a.fit, a.bounds),
    explainBound(a.fit, record.corners, a.bounds),
    explainVerdict(a.bounds, a.verdict, toleranceMm),
    explainNextJob(a.next, a.markSdMm, a.noise.kind !== 'estimated', toleranceMm),
  ];
}
