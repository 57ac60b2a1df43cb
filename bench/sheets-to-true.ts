/** Prints sheets to true: what is left after correction, by map and by hand, for one load and more. */
import { seededRng } from '../src/core/math/random';
import { BORDER_CALIPER_SD_MM, BORDER_RULE_SD_MM } from '../src/core/reading/borders';
import { looksUncertainty } from '../src/core/reading/repeats';
import { CALIPER_SD_MM } from '../src/core/registration/rule-fit';
import { COMB_STEP_MM } from '../src/core/target/comb';
import {
  EYE_SD_MM,
  PLOTTER_ROUNDING_MM,
  readingUncertainty,
  RIM_EYE_SD_MM,
  ROUND_CALIPER_SD_MM,
  SCAN_SD_MM,
  type ReadingConditions,
} from '../src/core/reading/uncertainty';
import { SHADOW_SD_MM } from '../src/core/scan/combine-scans';
import { READING_STEP_MM } from '../src/core/target/wedge';
import {
  byBorders,
  byLadder,
  byLengths,
  byMap,
  byNudge,
  FIVE_SPOTS,
  FOUR_MARKS,
  knowing,
  manySetups,
  quantileOf,
  REFERENCE_SPOTS,
  THREE_MARKS,
  WORK_CORNERS,
  type Outcome,
  type Trial,
} from '../src/core/simulate/sheets-to-true';
import { blockCorners, bothAt, oneCornerOut, passShare, shippedPlaces } from '../src/core/simulate/pass-share';
import { CHECK_KINDS } from '../src/core/target/cells';

const SETUPS = 1000;
const READING_SD_MM = 0.05;

function print(line: string): void {
  process.stdout.write(`${line}\n`);
}

/** One line of the table; the last column is the next job against one who knows the constant part. */
function row(name: string, sheets: string, outcomes: readonly Outcome[], knownMm: number): string {
  const remaining = outcomes.map((o) => o.remainingMm);
  const next = outcomes.map((o) => o.nextJobMm);
  const cells = [
    quantileOf(remaining, 0.5),
    quantileOf(remaining, 0.95),
    quantileOf(next, 0.5),
    quantileOf(next, 0.95),
  ];
  const ratio = knownMm > 0 ? (quantileOf(next, 0.95) / knownMm).toFixed(2) : '-';
  return `${name.padEnd(26)}${sheets.padEnd(15)}${cells.map((c) => c.toFixed(3).padStart(9)).join('')}${ratio.padStart(9)}`;
}

const cases: readonly { readonly title: string; readonly markSdMm: number; readonly marks: Trial['marks'] }[] = [
  { title: 'four marks, mark noise 0', markSdMm: 0, marks: FOUR_MARKS },
  { title: 'four marks, mark noise 0.03', markSdMm: 0.03, marks: FOUR_MARKS },
  { title: 'four marks, mark noise 0.05', markSdMm: 0.05, marks: FOUR_MARKS },
  { title: 'four marks, mark noise 0.10', markSdMm: 0.1, marks: FOUR_MARKS },
  { title: 'three marks, mark noise 0.05', markSdMm: 0.05, marks: THREE_MARKS },
];

print(`${SETUPS} simulated setups, reading SD ${READING_SD_MM} mm; errors in mm at the worst corner of 180 x 260`);
let isKept = true;
for (const { title, markSdMm, marks } of cases) {
  print(
    `\n${title}\n${'way'.padEnd(26)}${'sheets, loads'.padEnd(15)}${['left q50', 'left q95', 'next q50', 'next q95', 'ratio'].map((h) => h.padStart(9)).join('')}`,
  );
  const trial = (loads: number): Trial => ({ loads, markSdMm, marks, readingSdMm: READING_SD_MM });
  const known = manySetups(4 * SETUPS, trial(1), seededRng(2), (_, t, rng) => knowing(t, rng));
  const knownMm = quantileOf(
    known.map((o) => o.nextJobMm),
    0.95,
  );
  for (const loads of [1, 2, 4]) {
    const outcomes = manySetups(SETUPS, trial(loads), seededRng(1), byMap);
    print(row('map of nine spots', `${Math.ceil(loads / 2)}, ${loads}`, outcomes, knownMm));
    if (markSdMm === 0 && loads === 1) {
      const share = outcomes.filter((o) => o.remainingMm <= 0.15).length / SETUPS;
      isKept = share >= 0.94;
      print(
        `  remaining error at most 0.15 mm in ${(100 * share).toFixed(1)} % of setups (at least 94 %: ${isKept ? 'kept' : 'NOT KEPT'})`,
      );
    }
  }
  print(row('knowing the constant part', '0, 0', known, knownMm));
  print(row('by hand: ladder', '1, 1', manySetups(SETUPS, trial(1), seededRng(1), byLadder), knownMm));
  for (const loads of [1, 4]) {
    const nudged = manySetups(SETUPS, trial(loads), seededRng(1), byNudge);
    print(row('by hand: look and nudge', `${loads}, ${loads}`, nudged, knownMm));
  }
}

/** Each way of reading with the standard uncertainty that the product states for it, printed at 600 to the inch. */
const eye = (operatorSdMm: number): ReadingConditions => ({
  ...{ stepMm: READING_STEP_MM, operatorSdMm, printerDotMm: 25.4 / 600, isPlotterFile: false },
});
const wedgeSd = readingUncertainty(eye(EYE_SD_MM));
const caliperSd = readingUncertainty(eye(ROUND_CALIPER_SD_MM));
const combSd = readingUncertainty({ ...eye(EYE_SD_MM), stepMm: COMB_STEP_MM });
const scanSd = Math.hypot(SCAN_SD_MM, PLOTTER_ROUNDING_MM);
const twice = { count: 2, disputeMm: 0 };
const kinds: readonly {
  readonly name: string;
  readonly sdMm: number;
  readonly way: typeof byMap;
  readonly spots?: Trial['spots'];
  readonly backlashMm?: number;
  readonly sharedSdMm?: number;
}[] = [
  { name: 'wedges, nine spots', sdMm: wedgeSd, way: byMap },
  { name: 'wedges, looked at twice', sdMm: looksUncertainty(eye(EYE_SD_MM), null, twice), way: byMap },
  { name: 'wedges, five spots', sdMm: wedgeSd, way: byMap, spots: FIVE_SPOTS },
  { name: 'combs, nine spots', sdMm: combSd, way: byMap, backlashMm: 0.1 },
  { name: 'combs, five spots', sdMm: combSd, way: byMap, spots: FIVE_SPOTS, backlashMm: 0.1 },
  { name: 'walls by caliper, nine', sdMm: caliperSd, way: byMap },
  { name: 'wedges and walls, nine', sdMm: 1 / Math.hypot(1 / wedgeSd, 1 / caliperSd), way: byMap },
  { name: 'discs, nine spots', sdMm: readingUncertainty(eye(RIM_EYE_SD_MM)), way: byMap },
  { name: 'discs, five spots', sdMm: readingUncertainty(eye(RIM_EYE_SD_MM)), way: byMap, spots: FIVE_SPOTS },
  { name: 'one scan, nine discs', sdMm: scanSd, way: byMap, sharedSdMm: SHADOW_SD_MM },
  { name: 'two scans, nine discs', sdMm: scanSd, way: byMap },
  { name: 'two scans, five discs', sdMm: scanSd, way: byMap, spots: FIVE_SPOTS },
  { name: 'four borders, caliper', sdMm: BORDER_CALIPER_SD_MM / Math.SQRT2, way: byBorders },
  { name: 'four borders, rule', sdMm: BORDER_RULE_SD_MM / Math.SQRT2, way: byBorders },
  { name: 'borders and lengths', sdMm: CALIPER_SD_MM, way: byLengths },
];
print('\nWays of reading, each with its own uncertainty; mark noise 0.05');
print(
  `${'way'.padEnd(26)}${'marks, loads'.padEnd(15)}${['left q50', 'left q95', 'next q50', 'next q95'].map((h) => h.padStart(9)).join('')}`,
);
for (const { name, sdMm, way, spots, backlashMm, sharedSdMm } of kinds) {
  for (const marks of [FOUR_MARKS, THREE_MARKS]) {
    for (const loads of [1, 4]) {
      if (way !== byMap && loads > 1) continue;
      const trial: Trial = {
        ...{ loads, markSdMm: 0.05, marks, readingSdMm: sdMm },
        ...(spots && { spots }),
        ...(backlashMm !== undefined && { backlashMm }),
        ...(sharedSdMm !== undefined && { sharedSdMm }),
      };
      print(row(name, `${marks.length}, ${loads}`, manySetups(SETUPS, trial, seededRng(4), way), 0));
    }
  }
}

print('\nBy the scanner with four marks whose noise is 0.025: one load read by two scans, corrected once');
const steady: Trial = { loads: 1, markSdMm: 0.025, marks: FOUR_MARKS, readingSdMm: scanSd };
const scanned = manySetups(4 * SETUPS, steady, seededRng(5), byMap);
print(row('two scans, nine discs', '4, 1', scanned, 0));
const nextWithin = scanned.filter((o) => o.nextJobMm <= 0.1).length / scanned.length;
const isScanKept = nextWithin >= 0.95;
print(
  `  next job within 0.1 mm in ${(100 * nextWithin).toFixed(1)} % (at least 95 %: ${isScanKept ? 'kept' : 'NOT KEPT'})`,
);

print('\nShare that passes a settings check, one corner out by half of 0.3 mm allowed, reading SD 0.05 mm');
const reference = { name: 'reference nine spots', places: bothAt(REFERENCE_SPOTS), corners: WORK_CORNERS };
const shipped = (['A4', 'Letter'] as const).flatMap((block) =>
  CHECK_KINDS.map((kind) => ({
    name: `${block}, ${kind} check`,
    places: shippedPlaces(block, kind),
    corners: blockCorners(block),
  })),
);
for (const { name, places, corners } of [reference, ...shipped]) {
  const truth = oneCornerOut(0.15, corners[2] ?? { x: 1, y: 1 });
  const share = passShare(
    { places, corners, truth, readingSdMm: READING_SD_MM, toleranceMm: 0.3, trials: 4000 },
    seededRng(3),
  );
  print(`${name.padEnd(26)}${(100 * share).toFixed(1).padStart(6)} %`);
}
process.exitCode = isKept && isScanKept ? 0 : 1;
