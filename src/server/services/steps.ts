import 'server-only';
import { and, eq, sql } from 'drizzle-orm';
import type { StepName } from '@/contracts/steps';
import type { CheckPrintInput, MarkTryInput, RecordCutInput } from '@/contracts/inputs';
import { fail, ok, type Result } from '@/core/result';
import { printFactor } from '@/core/target/print-factor';
import type { Load } from '@/core/geometry/load';
import type { Light } from '@/core/shop/light';
import type { Database, Session } from '@/db/client';
import { findLastLight } from '@/db/queries/floor';
import { calibration, calibrationSheet, cutSet, printCheck } from '@/db/schema/calibration';
import { markAttempt } from '@/db/schema/correction';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { CHECK_GONE, onOpenCheck, type OfCheck } from './check-guard';
import { figuresSpent, shiftUnder } from './cut-moves';
import { keepMarkReadings, type MarkLook } from './mark-readings';
import { affineToArray, doneSets, loadNoOf, planCut, type CalibrationRecord, type CutPlan } from './record';
import { roughOf } from './rough';
import { newSheetMarks } from './sheet-marks';

export type Step = StepName;

/** Moves a calibration to a step. With a version, only if nobody moved it meanwhile. */
export async function goToStep(
  session: Session,
  calibrationId: string,
  step: Step,
  version?: number,
): Promise<boolean> {
  const own =
    version === undefined
      ? eq(calibration.id, calibrationId)
      : and(eq(calibration.id, calibrationId), eq(calibration.version, version));
  const moved = await session
    .update(calibration)
    .set({ step, version: sql`${calibration.version} + 1` })
    .where(and(own, eq(calibration.state, 'open')))
    .returning({ id: calibration.id });
  return moved.length === 1;
}

/** Closes a check: from here on it takes no more work. */
export async function endCheck(session: Session, calibrationId: string, state: 'saved' | 'abandoned'): Promise<void> {
  await session
    .update(calibration)
    .set({ state, endedAt: now(), version: sql`${calibration.version} + 1` })
    .where(eq(calibration.id, calibrationId));
}

/** Ends a test that tells something of a machine and corrects nothing: its readings stay. */
export async function endTest(session: Session, calibrationId: string): Promise<void> {
  await goToStep(session, calibrationId, 'save');
  await endCheck(session, calibrationId, 'saved');
}

export async function checkPrint(
  database: Database,
  actor: Actor,
  input: CheckPrintInput,
): Promise<Result<'right' | 'scaled', Refusal>> {
  const replay = (record: CalibrationRecord) => record.printChecks.find((c) => c.id === input.id)?.verdict;
  return onOpenCheck(database, actor, { ...input, replay }, async (session, record) => {
    const sheet = record.sheets.at(-1);
    if (!sheet) return fail(CHECK_GONE);
    const nominal = record.block.checkLineMm;
    const verdict = printFactor(nominal, input.lineMm).isRight ? 'right' : 'scaled';
    const known = record.printChecks.filter((c) => c.calibrationSheetId === sheet.id);
    await session.insert(printCheck).values({
      id: input.id,
      calibrationSheetId: sheet.id,
      seq: known.length + 1,
      lineNominalMm: nominal,
      lineMm: input.lineMm,
      verdict,
      at: now(),
      by: actor.personId,
    });
    if (verdict === 'right') await goToStep(session, input.calibrationId, 'cut');
    return ok(verdict);
  });
}

/** The plan with what only the load decides: a rough shift turned with the sheet, figures a spent set ran through. */
export function planCutFor(record: CalibrationRecord, load: Load, isFreshLoad: boolean): CutPlan {
  const plan = planCut(record, isFreshLoad);
  const rough = roughOf(record);
  if (!rough) return plan;
  return {
    ...plan,
    fileShift: shiftUnder(plan.fileShift, rough.load, load),
    leftOut: plan.setNo === 2 ? figuresSpent(record, plan.sheetNo, rough) : [],
  };
}

/** A which-way test is read when both its cuts are made; a confirming cut at once. */
function stepAfter(record: CalibrationRecord, purpose: CutPlan['purpose']): Step {
  if (purpose === 'confirm' || purpose === 'settings_check') return 'confirm';
  return record.calibration.kind === 'which_way' && purpose === 'before' ? 'cut' : 'read';
}

/** Writes down how a cut went. Done leads on to reading it; anything else stays at the cut. */
export async function recordCut(
  database: Database,
  actor: Actor,
  input: RecordCutInput,
): Promise<Result<string, Refusal>> {
  const replay = (record: CalibrationRecord) => record.cutSets.find((c) => c.id === input.id)?.id;
  return onOpenCheck(database, actor, { ...input, replay }, (session, record) =>
    keepCut(session, actor, record, input),
  );
}

async function keepCut(
  session: Session,
  actor: Actor,
  record: CalibrationRecord,
  input: RecordCutInput,
): Promise<Result<string, Refusal>> {
  const load: Load = { turnDeg: input.turnDeg, face: input.face };
  const isFreshLoad = input.isFreshLoad || doneSets(record).length === 0;
  const plan = planCutFor(record, load, isFreshLoad);
  const sheet = record.sheets.find((s) => s.sheetNo === plan.sheetNo);
  if (!sheet) return fail(refusal('Both cut sets of this sheet are used. Print another sheet first.'));
  const attempts = record.cutSets.filter((c) => c.sheetId === sheet.id && c.setNo === plan.setNo).length;
  await session.insert(cutSet).values({
    id: input.id,
    calibrationSheetId: sheet.id,
    setNo: plan.setNo,
    attemptNo: attempts + 1,
    loadNo: loadNoOf(record, isFreshLoad),
    turnDeg: load.turnDeg,
    face: load.face,
    purpose: plan.purpose,
    correctionId: record.corrections.at(-1)?.id ?? null,
    fileShiftXMm: plan.fileShift.x,
    fileShiftYMm: plan.fileShift.y,
    fileCorrection: plan.fileCorrection && affineToArray(plan.fileCorrection),
    leftOut: [...plan.leftOut],
    settingsSnapshot: Object.fromEntries(record.settings.map((s) => [s.id, s.value])),
    outcome: input.outcome,
    cutAt: now(),
    cutBy: actor.personId,
  });
  if (input.outcome === 'done') await goToStep(session, input.calibrationId, stepAfter(record, plan.purpose));
  if (input.outcome === 'done' || input.outcome === 'marks_not_read')
    await keepMarkReadings(session, actor, lookOf(record, input.light ?? 'not_told', input.outcome === 'done'));
  return ok(input.id);
}

/** One look of the eye at a calibration's sheet. */
const lookOf = (record: CalibrationRecord, light: Light, wasRead: boolean): MarkLook => ({
  row: record.setupRow,
  material: record.material,
  of: { calibrationId: record.calibration.id },
  light,
  outcomes: [wasRead],
});

/** What was tried to get marks read, and whether it helped. */
export async function logMarkTry(
  database: Database,
  actor: Actor,
  input: MarkTryInput,
): Promise<Result<string, Refusal>> {
  const replay = (record: CalibrationRecord) => record.markAttempts.find((a) => a.id === input.id)?.id;
  return onOpenCheck(database, actor, { ...input, replay }, async (session, record) => {
    const { id, calibrationId, tried, outcome } = input;
    await session.insert(markAttempt).values({ id, calibrationId, tried, outcome, at: now(), by: actor.personId });
    const light = await findLastLight(session, record.setupRow.setup.id);
    await keepMarkReadings(session, actor, lookOf(record, light, outcome === 'read'));
    return ok(id);
  });
}

/** One more printed sheet of the same definition, for another load. A sheet that nothing was cut on yet is used first. */
export async function addSheet(
  database: Database,
  actor: Actor,
  { calibrationId }: OfCheck,
): Promise<Result<number, Refusal>> {
  return onOpenCheck(database, actor, { calibrationId }, async (session, record) => {
    const last = record.sheets.length;
    const isUntouched = !doneSets(record).some((c) => c.sheetNo === last);
    const sheetNo = isUntouched ? last : last + 1;
    const { sheetDefinitionId } = record.calibration;
    await session
      .insert(calibrationSheet)
      .values({ ...(await newSheetMarks(session)), calibrationId, sheetDefinitionId, sheetNo })
      .onConflictDoNothing();
    await goToStep(session, calibrationId, 'print');
    return ok(sheetNo);
  });
}
