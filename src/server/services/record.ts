import 'server-only';
import { StoredSettings, StoredSheet } from '@/contracts/stored';
import { loadNumber, nextCut, type DoneCut, type NextCut } from '@/core/cutting/next-cut';
import { cornersOf, type Affine, type Point } from '@/core/geometry/affine';
import type { Load } from '@/core/geometry/load';
import type { MachineSetting } from '@/core/setting/machine-setting';
import type { LoadModel } from '@/core/fit/load-noise';
import type { LoadMap } from '@/core/fit/mark-noise';
import { earlierLoads } from './earlier-loads';
import { insetMoves, slantedMoves } from '@/core/shop/mark-use';
import type { Block } from '@/core/target/block';
import { marksFor } from './setup-marks';
import type { SetNo, SheetDefinition } from '@/core/target/sheet-definition';
import { withWordsMoved, wordShiftOf } from '@/core/target/sheet-words';
import type { Session } from '@/db/client';
import {
  findCalibration,
  findConfirmations,
  findCorrections,
  findCorrectionSettings,
  findCurrentReadings,
  findCutSets,
  findLoadMaps,
  findMarkAttempts,
  findPrintChecks,
  findSheets,
} from '@/db/queries/calibration';
import { findLastTrials, findSettings, ownersOf } from '@/db/queries/settings';
import { findSetup, type SetupRow } from '@/db/queries/shop';

type Row<T extends (...args: never[]) => PromiseLike<readonly unknown[]>> = Awaited<ReturnType<T>>[number];

export interface CutSet extends DoneCut {
  readonly id: string;
  readonly sheetId: string;
  readonly attemptNo: number;
  readonly load: Load;
  readonly correctionId: string | null;
  readonly fileShift: Point;
  readonly fileCorrection: Affine<'machine', 'machine'> | null;
  readonly leftOut: readonly string[];
  readonly settings: Readonly<Record<string, number>>;
  readonly outcome: 'done' | 'marks_not_read' | 'wrong_place' | 'stopped';
  readonly cutAt: Date;
}

/** One printed sheet of a calibration. */
export interface PrintedSheet extends Row<typeof findSheets> {
  /** What is printed on it, its discs with their own words. */
  readonly definition: SheetDefinition;
}

/** Everything about one calibration that its steps need. */
export interface CalibrationRecord {
  readonly calibration: NonNullable<Awaited<ReturnType<typeof findCalibration>>>['calibration'];
  readonly material: NonNullable<Awaited<ReturnType<typeof findCalibration>>>['material'];
  readonly startedByName: string;
  readonly setupRow: SetupRow;
  /** The sheet in hand (the latest, unless another was asked for): what is on it, and its code. */
  readonly definition: SheetDefinition;
  readonly code: string;
  readonly block: Block;
  readonly marks: readonly Point[];
  readonly loadModel: LoadModel;
  /** How far each mark is printed from its place, in a test of what the machine uses its marks for; else null. */
  readonly markMoves: readonly Point[] | null;
  readonly corners: readonly Point[];
  readonly area: { readonly widthMm: number; readonly lengthMm: number };
  readonly settings: readonly MachineSetting[];
  /** Of a which-way test: the change that the test before made to each setting, by its id. */
  readonly lastTrials: Readonly<Record<string, number>>;
  readonly sheets: readonly PrintedSheet[];
  readonly printChecks: readonly Row<typeof findPrintChecks>[];
  readonly cutSets: readonly CutSet[];
  /** First looks at each figure. */
  readonly readings: readonly Row<typeof findCurrentReadings>[];
  /** Further looks, blind to the first. */
  readonly repeats: readonly Row<typeof findCurrentReadings>[];
  readonly corrections: readonly Row<typeof findCorrections>[];
  readonly correctionSettings: readonly Row<typeof findCorrectionSettings>[];
  readonly confirmations: readonly Row<typeof findConfirmations>[];
  readonly markAttempts: readonly Row<typeof findMarkAttempts>[];
  /** Loads of earlier states of this setup whose marks were read in the same way. */
  readonly earlierLoads: readonly (readonly LoadMap[])[];
}

/** Our own marks are moved by a pattern; a program's by the inset that was typed. */
function markMovesOf(row: CalibrationRecord['calibration'], marks: readonly Point[]): readonly Point[] | null {
  if (row.kind !== 'mark_use') return null;
  if (row.marksInAcrossMm === null || row.marksInAlongMm === null) return slantedMoves(marks);
  return insetMoves(marks, row.marksInAcrossMm, row.marksInAlongMm);
}

export function affineFromArray(values: readonly number[]): Affine<'machine', 'machine'> {
  const [xx = 1, xy = 0, yx = 0, yy = 1, tx = 0, ty = 0] = values;
  return { xx, xy, yx, yy, tx, ty };
}

export const affineToArray = (map: Affine<'machine', 'machine'>): number[] => [
  map.xx,
  map.xy,
  map.yx,
  map.yy,
  map.tx,
  map.ty,
];

function cutSetOf(row: Row<typeof findCutSets>, sheets: readonly PrintedSheet[]): CutSet {
  return {
    id: row.id,
    sheetId: row.calibrationSheetId,
    sheetNo: sheets.find((s) => s.id === row.calibrationSheetId)?.sheetNo ?? 0,
    setNo: row.setNo as SetNo,
    attemptNo: row.attemptNo,
    loadNo: row.loadNo,
    purpose: row.purpose,
    load: { turnDeg: row.turnDeg as Load['turnDeg'], face: row.face },
    correctionId: row.correctionId,
    fileShift: { x: row.fileShiftXMm, y: row.fileShiftYMm },
    fileCorrection: row.fileCorrection ? affineFromArray(row.fileCorrection) : null,
    leftOut: row.leftOut,
    settings: StoredSettings.parse(row.settingsSnapshot),
    outcome: row.outcome,
    cutAt: row.cutAt,
  };
}

export async function loadRecord(session: Session, calibrationId: string): Promise<CalibrationRecord | null> {
  const found = await findCalibration(session, calibrationId);
  if (!found) return null;
  const { calibration } = found;
  const setupRow = await findSetup(session, calibration.setupId);
  if (!setupRow) return null;
  const drawn = StoredSheet.parse(found.definition.content);
  const { block } = drawn;
  const marks = marksFor(setupRow, block);
  const area = {
    widthMm: setupRow.setup.workWidthMm ?? block.widthMm,
    lengthMm: setupRow.setup.workLengthMm ?? block.lengthMm,
  };
  const settings = await findSettings(session, ownersOf(setupRow), marks.places[0] ?? { x: 0, y: 0 });
  const sheets = (await findSheets(session, calibrationId)).map((row): PrintedSheet => {
    const definition = withWordsMoved(drawn, row.wordShift ?? wordShiftOf(calibrationId));
    return { ...row, definition };
  });
  const latest = sheets.at(-1);
  if (!latest) throw new Error(`calibration ${calibrationId} has no sheet`);
  const rows = await findCutSets(
    session,
    sheets.map((s) => s.id),
  );
  const current = await findCurrentReadings(
    session,
    rows.map((r) => r.id),
  );
  const corrections = await findCorrections(session, calibrationId);
  const correctionIds = corrections.map((c) => c.id);
  return {
    calibration,
    material: found.material,
    startedByName: found.startedByName,
    setupRow,
    definition: latest.definition,
    code: latest.code,
    block,
    marks: marks.places,
    loadModel: marks.model,
    markMoves: markMovesOf(calibration, marks.places),
    corners: cornersOf(area.widthMm, area.lengthMm),
    area,
    settings,
    lastTrials:
      calibration.kind === 'which_way'
        ? await findLastTrials(
            session,
            settings.map((s) => s.id),
          )
        : {},
    sheets,
    printChecks: await findPrintChecks(
      session,
      sheets.map((s) => s.id),
    ),
    cutSets: rows.map((row) => cutSetOf(row, sheets)),
    readings: current.filter((r) => r.repeatNo === 1),
    repeats: current.filter((r) => r.repeatNo > 1),
    corrections,
    correctionSettings: await findCorrectionSettings(session, correctionIds),
    confirmations: await findConfirmations(session, correctionIds),
    markAttempts: await findMarkAttempts(session, calibrationId),
    earlierLoads: earlierLoads(await findLoadMaps(session, calibration), {
      marks: marks.places,
      loadModel: marks.model,
      calibrationId,
      correctionId: corrections.at(-1)?.id ?? null,
    }),
  };
}

/** The record with another of its sheets in hand; the latest for one that is not printed yet. */
export function onSheet(record: CalibrationRecord, sheetNo: number): CalibrationRecord {
  const sheet = record.sheets.find((s) => s.sheetNo === sheetNo);
  return sheet ? { ...record, definition: sheet.definition, code: sheet.code } : record;
}

/** Programs that trace a picture take no lines of ours: for them the cut cannot be moved in the file. */
export const canMoveFile = ({ calibration: { route } }: Pick<CalibrationRecord, 'calibration'>): boolean =>
  route !== 'B' && route !== 'E';

export const doneSets = (record: CalibrationRecord): readonly CutSet[] =>
  record.cutSets.filter((c) => c.outcome === 'done');

export const latestCorrection = (record: CalibrationRecord) => record.corrections.at(-1);

/**
 * Sets cut since the latest correction: what the map, or the confirmation, stands on. Once there is a fresh load, a cut of
 * the old one no longer counts: its noise is in the correction already and would flatter it.
 */
export function currentSets(record: CalibrationRecord): readonly CutSet[] {
  const id = latestCorrection(record)?.id ?? null;
  const since = doneSets(record).filter((c) => c.correctionId === id);
  const hasFreshLoad = since.some((c) => c.purpose === 'confirm');
  return hasFreshLoad ? since.filter((c) => c.purpose === 'confirm') : since;
}

export interface CutPlan extends NextCut {
  readonly purpose: CutSet['purpose'];
  readonly fileShift: Point;
  readonly fileCorrection: Affine<'machine', 'machine'> | null;
  readonly leftOut: readonly string[];
}

/** What the next cut is: which set, for what, and how its file is changed. */
export function planCut(record: CalibrationRecord, isFreshLoad: boolean): CutPlan {
  const next = nextCut(doneSets(record), record.sheets.length, record.definition.sets);
  const correction = latestCorrection(record);
  const isAfterFine = correction !== undefined && correction.objective !== 'rough';
  const movesLines = correction?.fileCorrection ?? null;
  const rough = correction?.objective === 'rough' ? movesLines : null;
  return {
    ...next,
    purpose: isTrialCut(record, next) ? 'which_way' : purposeOf(isAfterFine, isFreshLoad),
    fileShift: rough ? { x: rough[4] ?? 0, y: rough[5] ?? 0 } : { x: 0, y: 0 },
    fileCorrection: movesLines && !rough ? affineFromArray(movesLines) : null,
    leftOut: [],
  };
}

/** The second cut of a which-way test, the value changed: set 2 in the same load, or a second sheet where one set is all there is. */
const isTrialCut = (record: CalibrationRecord, next: NextCut): boolean =>
  record.calibration.kind === 'which_way' && (next.setNo === 2 || next.sheetNo > 1);

function purposeOf(isAfterFine: boolean, isFreshLoad: boolean): CutSet['purpose'] {
  if (!isAfterFine) return 'before';
  return isFreshLoad ? 'confirm' : 'settings_check';
}

export const loadNoOf = (record: CalibrationRecord, isFreshLoad: boolean): number =>
  loadNumber(doneSets(record), isFreshLoad);
