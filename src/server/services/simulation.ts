import 'server-only';
import { StoredTruth } from '@/contracts/stored';
import { seededRng, seedFrom } from '@/core/math/random';
import { fail, ok, type Result } from '@/core/result';
import { loadModelOf } from '@/core/shop/marks';
import { ownMarkExtent } from '@/core/target/block';
import type { Database } from '@/db/client';
import { writeSvg } from '@/formats/svg/write-svg';
import { CUT_COLOURS, pictureOnly } from '../documents/sheet-drawing';
import { countBefore } from '@/db/queries/calibration';
import { findTruth } from '@/db/queries/shop';
import { backInk, printAndCut, type SheetFiles, type SheetPicture } from '../standins/print-and-cut';
import { refusal, type Refusal } from './actor';
import { makeFile, queueDrawing, type CutOrder, type FileKind } from './files';
import { doneSets, onSheet, planCut, type CalibrationRecord, type CutPlan, type CutSet } from './record';

/** The plan that a set was cut by, from what was written down. */
function orderOf(set: CutSet): CutOrder {
  const plan: CutPlan = {
    sheetNo: set.sheetNo,
    setNo: set.setNo,
    needsNewSheet: false,
    purpose: set.purpose,
    fileShift: set.fileShift,
    fileCorrection: set.fileCorrection,
    leftOut: set.leftOut,
  };
  return { plan, load: set.load };
}

async function textOf(record: CalibrationRecord, kind: FileKind, order: CutOrder): Promise<string> {
  const made = await makeFile(record, kind, order);
  if (!made.ok) throw new Error(made.error.message);
  return made.value.body.toString();
}

async function filesOf(whole: CalibrationRecord, set: CutSet): Promise<SheetFiles> {
  const record = onSheet(whole, set.sheetNo);
  const order = orderOf(set);
  const cutColour = CUT_COLOURS[set.setNo];
  const printSvg = (): string => writeSvg(pictureOnly(record.definition, record.code), { unitsPerInch: 'mm' });
  switch (record.calibration.route) {
    case 'A':
      return { route: 'A', drawingSvg: await textOf(record, 'drawing', order), cutColour };
    case 'B':
    case 'E': {
      const made = await makeFile(record, 'picture', order);
      if (!made.ok) throw new Error(made.error.message);
      return { route: record.calibration.route, printSvg: printSvg(), picture: Buffer.from(made.value.body) };
    }
    case 'C':
      return { route: 'C', queueSvg: writeSvg(queueDrawing(record, order), { unitsPerInch: 'mm' }), cutColour };
    case 'D': {
      const format = record.setupRow.cutter.fileFormat === 'hpgl' ? 'hpgl' : 'svg';
      const text = await textOf(record, format === 'svg' ? 'cut-svg' : 'cut-hpgl', order);
      return { route: 'D', printSvg: await textOf(record, 'print-svg', order), cut: { format, text } };
    }
  }
}

/** What a load's noise is drawn from: a setup's second check differs from its first, and the same one is always the same. */
interface Noise {
  readonly seed: number;
  readonly calibrationNo: number;
}

async function pictureOfSet(
  record: CalibrationRecord,
  truth: StoredTruth,
  noise: Noise,
  set: CutSet,
): Promise<SheetPicture> {
  const { cutter } = record.setupRow;
  const made = await printAndCut(
    {
      files: await filesOf(record, set),
      truth,
      load: set.load,
      axes: { across: cutter.fileAcross, along: cutter.fileAlong },
      marks: record.marks,
      loadModel: truth.markUse ? loadModelOf(truth.markUse, record.marks.length) : record.loadModel,
      markMoves: record.markMoves,
      isPen: record.calibration.cutLine === 'pen',
      extent: ownMarkExtent(record.block),
      settings: record.settings.map((s) => ({ ...s, value: truth.baseValues[s.id] ?? s.value })),
      valuesNow: record.settings.map((s) => set.settings[s.id] ?? s.value),
    },
    seededRng(seedFrom(noise.seed, noise.calibrationNo, 'load', set.loadNo)),
  );
  if (!made.ok) throw new Error(made.error.reason);
  return made.value;
}

async function backOf(record: CalibrationRecord, truth: StoredTruth): Promise<SheetPicture['ink']> {
  const plan = planCut(record, true);
  const svg = await textOf(record, 'back-svg', { plan, load: { turnDeg: 0, face: 'ink-up' } });
  const ink = backInk(svg, truth);
  if (!ink.ok) throw new Error(ink.error.reason);
  return ink.value;
}

/** Picture of a sheet of a simulated setup as it lies on the table now: print and every set cut so far on it. */
export async function pictureOf(
  database: Database,
  record: CalibrationRecord,
  sheetNo: number,
  face: 'front' | 'back' = 'front',
): Promise<Result<SheetPicture, Refusal>> {
  const stored = await findTruth(database, record.calibration.setupId);
  if (!stored) return fail(refusal('This setup has a real machine: look at the sheet itself.'));
  const truth = StoredTruth.parse(stored.truth);
  const sets = doneSets(record).filter((s) => s.sheetNo === sheetNo);
  const noise = { seed: stored.seed, calibrationNo: await countBefore(database, record.calibration) };
  const pictures = await Promise.all(sets.map((set) => pictureOfSet(record, truth, noise, set)));
  const [first] = pictures;
  if (!first) return fail(refusal('Nothing has been cut on this sheet yet.'));
  const ink = face === 'back' ? await backOf(record, truth) : first.ink;
  return ok({ ink, cuts: pictures.flatMap((p) => p.cuts) });
}

/** Cuts of one set alone, for reading it. */
export async function cutsOfSet(
  database: Database,
  record: CalibrationRecord,
  set: CutSet,
): Promise<SheetPicture | null> {
  const stored = await findTruth(database, record.calibration.setupId);
  if (!stored) return null;
  const noise = { seed: stored.seed, calibrationNo: await countBefore(database, record.calibration) };
  return pictureOfSet(record, StoredTruth.parse(stored.truth), noise, set);
}

/** What the stand-in's printed check line measures. */
export async function printedScale(database: Database, setupId: string): Promise<number> {
  const stored = await findTruth(database, setupId);
  return stored ? StoredTruth.parse(stored.truth).printScale : 1;
}
