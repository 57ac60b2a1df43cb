import 'server-only';
import { randomUUID } from 'node:crypto';
import type { AcceptCorrectionInput, UseRoughInput } from '@/contracts/inputs';
import { fileShiftFor } from '@/core/cutting/rough';
import { apply, then, translation, type Affine } from '@/core/geometry/affine';
import { mapInMachine, sheetToMachine } from '@/core/geometry/load';
import { fail, ok, type Result } from '@/core/result';
import { isOffset } from '@/core/setting/machine-setting';
import { planSettings, type SettingChange, type SettingsPlan } from '@/core/setting/plan-settings';
import type { Database, Session } from '@/db/client';
import { ownersOf } from '@/db/queries/settings';
import { fit, fitReading } from '@/db/schema/calibration';
import { correction } from '@/db/schema/correction';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { analyse, type Analysis } from './analysis';
import { onOpenCheck } from './check-guard';
import { affineFromArray, affineToArray, canMoveFile, latestCorrection, type CalibrationRecord } from './record';
import { roughOf, type Rough } from './rough';
import { goToStep } from './steps';
import { CORE_VERSION, storeFit } from './store-fit';
import { storeTyped, typedProblem } from './typed-settings';

export const changedOnly = (plan: SettingsPlan): readonly SettingChange[] =>
  plan.changes.filter((c) => c.after !== c.before);

/** What a correction belongs to. */
function ownerOf({ calibration: { id, setupId, materialId } }: CalibrationRecord) {
  return { calibrationId: id, setupId, materialId };
}

interface Choice {
  readonly objective: 'fine' | 'file' | 'none';
  readonly changes: readonly SettingChange[];
  readonly fileCorrection: number[] | null;
  readonly leftoverMm: number;
}

/** What a file does already in this calibration: a further move of the lines comes before it, and settings leave it alone. */
function moveInForce(record: CalibrationRecord): Affine<'machine', 'machine'> | null {
  const last = latestCorrection(record);
  return last?.fileCorrection && last.objective !== 'rough' ? affineFromArray(last.fileCorrection) : null;
}

function choiceOf(way: AcceptCorrectionInput['way'], analysis: Analysis, record: CalibrationRecord): Choice {
  const changes = changedOnly(analysis.plan);
  const inForce = moveInForce(record);
  const kept = inForce && affineToArray(inForce);
  const moved = (more: Affine<'machine', 'machine'>): number[] => affineToArray(inForce ? then(more, inForce) : more);
  switch (way) {
    case 'settings':
      return { objective: 'fine', changes, fileCorrection: kept, leftoverMm: analysis.afterSettingsMm };
    case 'settings-and-file':
      return { objective: 'fine', changes, fileCorrection: moved(analysis.fileCorrection), leftoverMm: 0 };
    case 'file':
      return {
        ...{ objective: 'file', changes: analysis.atCut.mustSetBack, leftoverMm: 0 },
        fileCorrection: moved(analysis.fileCorrectionAlone),
      };
    case 'none':
      return {
        ...{ objective: 'none', changes: analysis.atCut.mustSetBack, leftoverMm: analysis.leftAloneMm },
        fileCorrection: kept,
      };
  }
}

/** Keeps what was decided on the map: settings keyed in (typed back), cut lines moved in the file, or nothing. */
export async function acceptCorrection(
  database: Database,
  actor: Actor,
  input: AcceptCorrectionInput,
): Promise<Result<string, Refusal>> {
  const replay = correctionOf(input.id);
  return onOpenCheck(database, actor, { ...input, replay }, (session, record) =>
    keepCorrection(session, actor, record, input),
  );
}

/** The correction itself where it was kept before. */
const correctionOf =
  (id: string) =>
  (record: CalibrationRecord): string | undefined =>
    record.corrections.find((c) => c.id === id)?.id;

async function keepCorrection(
  session: Session,
  actor: Actor,
  record: CalibrationRecord,
  input: AcceptCorrectionInput,
): Promise<Result<string, Refusal>> {
  if (!canMoveFile(record) && (input.way === 'file' || input.way === 'settings-and-file'))
    return fail(
      refusal('This program traces its own lines: they cannot be moved in a file. Use settings, or a border.'),
    );
  const analysed = analyse(record, input.keepAll);
  if (!analysed.ok) return fail(refusal('There are not enough readings for a correction. Read the sheet first.'));
  const analysis = analysed.value;
  const choice = choiceOf(input.way, analysis, record);
  const problem = typedProblem(choice.changes, input.typed);
  if (problem) return fail(refusal(problem));
  const at = now();
  const fitId = await storeFit(session, record, analysis);
  await session.insert(correction).values({
    id: input.id,
    ...ownerOf(record),
    fitId,
    objective: choice.objective,
    fileCorrection: choice.fileCorrection,
    predictedLeftoverMm: choice.leftoverMm,
    at,
    by: actor.personId,
  });
  await storeTyped(session, actor, input.id, {
    changes: choice.changes,
    typed: input.typed,
    owners: ownersOf(record.setupRow),
    feeds: record.setupRow.cutter.feeds,
    source: 'correction',
    at,
  });
  await goToStep(session, record.calibration.id, 'confirm');
  return ok(input.id);
}

/** Offsets that take a rough shift back, machine frame; only those whose direction is known. */
export function roughPlan(record: CalibrationRecord, rough: Rough): SettingsPlan {
  const cut0 = mapInMachine(translation(rough.shift.x, rough.shift.y), rough.load);
  const offsets = record.settings.filter((s) => isOffset(s) && s.sense !== null);
  const corners = record.corners.map((p) => apply(sheetToMachine(rough.load), p));
  const set = record.cutSets.find((s) => s.id === rough.cutSetId);
  return planSettings(cut0, offsets, corners, { atCut: set?.settings ?? {} });
}

/** The rough position is kept as a fit of a shift alone, and brings the fine figures into reach by settings or in the file. */
export async function applyRough(
  database: Database,
  actor: Actor,
  input: UseRoughInput,
): Promise<Result<string, Refusal>> {
  const replay = correctionOf(input.id);
  return onOpenCheck(database, actor, { ...input, replay }, (session, record) =>
    keepRough(session, actor, record, input),
  );
}

async function keepRough(
  session: Session,
  actor: Actor,
  record: CalibrationRecord,
  input: UseRoughInput,
): Promise<Result<string, Refusal>> {
  const rough = roughOf(record);
  if (!rough) return fail(refusal('Read the rough position at one grid or more first.'));
  const plan = roughPlan(record, rough);
  const changes = input.way === 'settings' ? changedOnly(plan) : [];
  const problem = typedProblem(changes, input.typed);
  if (problem) return fail(refusal(problem));
  const shift = fileShiftFor(rough.shift);
  const at = now();
  const fitId = await storeRoughFit(session, record, rough);
  await session.insert(correction).values({
    id: input.id,
    ...ownerOf(record),
    fitId,
    objective: 'rough',
    fileCorrection: input.way === 'file' ? [1, 0, 0, 1, shift.x, shift.y] : null,
    predictedLeftoverMm: input.way === 'settings' ? plan.worstAfterMm : 0,
    at,
    by: actor.personId,
  });
  await storeTyped(session, actor, input.id, {
    changes,
    typed: input.typed,
    owners: ownersOf(record.setupRow),
    feeds: record.setupRow.cutter.feeds,
    source: 'correction',
    at,
  });
  await goToStep(session, record.calibration.id, 'cut');
  return ok(input.id);
}

async function storeRoughFit(session: Session, record: CalibrationRecord, rough: Rough): Promise<string> {
  const id = randomUUID();
  const variance = 0.17 ** 2 / rough.spotNos.length;
  const covariance = Array.from({ length: 36 }, (_, i) => (i === 0 || i === 7 ? variance : 0));
  const length = Math.hypot(rough.shift.x, rough.shift.y);
  await session.insert(fit).values({
    id,
    calibrationId: record.calibration.id,
    model: 'shift',
    parameters: [rough.shift.x, rough.shift.y, 0, 0, 0, 0],
    covariance,
    degreesOfFreedom: Math.max(0, rough.readingIds.length - 2),
    reducedChiSquare: null,
    worstMm: length,
    worstBoundMm: length + 2 * Math.sqrt(variance),
    coreVersion: CORE_VERSION,
    at: now(),
  });
  await session
    .insert(fitReading)
    .values(rough.readingIds.map((readingId) => ({ fitId: id, readingId, used: true, residualMm: 0 })));
  return id;
}
