import 'server-only';
import { materialMarkAdvice } from '@/core/shop/material-marks';
import { markProblems } from '@/core/shop/marks';
import { preflight, type Preflight, type PreflightFacts } from '@/core/shop/preflight';
import { now } from '../clock';
import type { CalibrationRecord } from './record';
import { schemeOf, unprintableOf } from './setup-marks';

const HOUR_MS = 3_600_000;

/** Hours until the newest print of this calibration is dry, by its material. */
function dryInHours(record: CalibrationRecord): number {
  const printedAt = record.printChecks.at(-1)?.at;
  if (!printedAt) return 0;
  return record.material.dryingHours - (now().getTime() - printedAt.getTime()) / HOUR_MS;
}

function factsOf(record: CalibrationRecord): PreflightFacts {
  const { setupRow: row, block, calibration } = record;
  const scheme = schemeOf(row);
  return {
    family: row.setup.family,
    route: calibration.route,
    page: { name: block.name, widthMm: block.page.widthMm },
    block,
    mode: [row.printMode.name, row.printMode.tray, row.printMode.quality].filter(Boolean).join(', '),
    isBorderless: row.printMode.isBorderless,
    marks: scheme,
    leadingMark: row.programScheme?.leadingMark ?? row.cutterScheme?.leadingMark ?? '',
    markProblems: markProblems(scheme, unprintableOf(row), row.programScheme ? row.cutterScheme : null).map(
      (p) => p.words,
    ),
    material: materialMarkAdvice(record.material),
    program: row.program,
    spareFrontMm: row.cutter.spareFrontMm,
    spareRearMm: row.cutter.spareRearMm,
    dryInHours: dryInHours(record),
  };
}

/** What to look over before printing or cutting the sheet of a calibration. */
export const preflightFor = (record: CalibrationRecord, moment: 'print' | 'cut'): Preflight =>
  preflight(factsOf(record), moment);
