import 'server-only';
import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { StartCalibrationInput } from '@/contracts/inputs';
import { ASSUMED_MARK_SD_MM, loadCovariance } from '@/core/fit/load-noise';
import { fitReadings } from '@/core/fit/fit-readings';
import type { ErrorMapFit } from '@/core/fit/fit-error-map';
import type { Load } from '@/core/geometry/load';
import { fail, ok, type Result } from '@/core/result';
import { tellMarkUse, keptUse, type MarkUseFinding } from '@/core/shop/mark-use';
import type { Database, Session } from '@/db/client';
import { findEarlierCalibrations, hasReadCheck } from '@/db/queries/calibration';
import type { SetupRow } from '@/db/queries/shop';
import { cutter } from '@/db/schema/machines';
import { markUseTest } from '@/db/schema/settings';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { endedBefore, onOpenCheck } from './check-guard';
import { fineReadings } from './fine-readings';
import { doneSets, loadRecord, type CalibrationRecord, type CutSet } from './record';
import { schemeOf } from './setup-marks';
import { endTest } from './steps';

/** Readings of each axis that an ordinary sheet must show before it can be compared with. */
const FEWEST_READINGS = 8;

export interface Reference {
  readonly record: CalibrationRecord;
  readonly set: CutSet;
}

const isSameSettings = (set: CutSet, record: CalibrationRecord): boolean =>
  record.settings.every((s) => (set.settings[s.id] ?? s.value) === s.value);

/** The latest ordinary sheet of a setup that was cut with today's settings, its lines as drawn, and read. */
export async function findReference(session: Session, setupId: string): Promise<Reference | null> {
  for (const { id } of await findEarlierCalibrations(session, setupId)) {
    const record = await loadRecord(session, id);
    const set = record
      ? [...doneSets(record)]
          .reverse()
          .find(
            (s) =>
              s.fileCorrection === null &&
              isSameSettings(s, record) &&
              fineReadings(record, [s]).length >= FEWEST_READINGS,
          )
      : undefined;
    if (record && set) return { record, set };
  }
  return null;
}

/** Marks on the print that can stand elsewhere without the figures: not those of a mat, nor targets found by hand. */
function hasMovableMarks(row: SetupRow): boolean {
  const { route, family } = row.setup;
  if (route === 'D') return family !== 'F8';
  return (route === 'A' || route === 'C') && !['none', 'by_hand'].includes(schemeOf(row).kind);
}

type MarksIn = Pick<StartCalibrationInput, 'marksIn'>;

const NO_REFERENCE =
  'Make a quick check first, with the settings as they are: the sheet with moved marks is compared with it.';

function plainProblem(row: SetupRow, input: MarksIn): string | null {
  if (!hasMovableMarks(row)) return 'This work has no marks that could be moved alone.';
  if (row.setup.route !== 'D' && (input.marksIn?.acrossMm ?? 0) + (input.marksIn?.alongMm ?? 0) < 0.3)
    return 'How far in the marks are set: at least 0.3 mm, across and along together, else nothing can be seen.';
  return null;
}

/** Why a setup's marks cannot be tested, in words; null when they can. */
export async function markTestProblem(session: Session, row: SetupRow, input: MarksIn): Promise<string | null> {
  return plainProblem(row, input) ?? ((await findReference(session, row.setup.id)) ? null : NO_REFERENCE);
}

/** The same before anything is asked for, as far as it is known without reading old sheets: every look at a setup asks it. */
export async function markTestHint(session: Session, row: SetupRow): Promise<string | null> {
  const problem = plainProblem(row, { marksIn: { acrossMm: 1, alongMm: 1 } });
  return problem ?? ((await hasReadCheck(session, row.setup.id)) ? null : NO_REFERENCE);
}

function fitUnder(record: CalibrationRecord, set: CutSet, frame: Load): ErrorMapFit | null {
  const fit = fitReadings(fineReadings(record, [set]), frame, {
    corners: record.corners,
    loadCovariance: loadCovariance(record.marks, ASSUMED_MARK_SD_MM, record.loadModel),
  });
  return fit.ok && fit.value.model === 'affine' ? fit.value : null;
}

export interface ToldUse {
  readonly finding: MarkUseFinding;
  readonly reference: Reference;
}

/** What the sheet with moved marks tells, against the ordinary one; null while it is not read enough. */
export async function toldUse(session: Session, record: CalibrationRecord): Promise<ToldUse | null> {
  const set = doneSets(record).at(-1);
  const reference = await findReference(session, record.calibration.setupId);
  if (!set || !reference || !record.markMoves) return null;
  const moved = fitUnder(record, set, set.load);
  const ordinary = fitUnder(reference.record, reference.set, set.load);
  if (!moved || !ordinary) return null;
  const finding = tellMarkUse({
    marks: record.marks,
    moves: record.markMoves,
    difference: moved.beta.map((b, i) => b - (ordinary.beta[i] ?? 0)),
    covariance: moved.covariance.map((c, i) => c + (ordinary.covariance[i] ?? 0)),
  });
  return { finding, reference };
}

/** Keeps what was learned with the cutter, and ends the test. The machine is as it was: only more is known of it. */
export async function keepMarkUse(
  database: Database,
  actor: Actor,
  input: { readonly id: string; readonly calibrationId: string },
): Promise<Result<string, Refusal>> {
  return onOpenCheck(database, actor, { ...input, replay: endedBefore('mark_use') }, async (session, record) => {
    const told = await toldUse(session, record);
    const use = told?.finding.kind === 'told' ? keptUse(told.finding.uses) : undefined;
    if (!use) return fail(refusal('This sheet cannot tell yet. Read more spots, or print another.'));
    const cutterId = record.setupRow.cutter.id;
    await session.insert(markUseTest).values({
      id: randomUUID(),
      cutterId,
      calibrationId: input.calibrationId,
      markUse: use,
      at: now(),
      by: actor.personId,
    });
    await session.update(cutter).set({ markUse: use }).where(eq(cutter.id, cutterId));
    await endTest(session, input.calibrationId);
    return ok(input.calibrationId);
  });
}
