import 'server-only';
import { randomUUID } from 'node:crypto';
import { and, eq, sql } from 'drizzle-orm';
import type { TrialCutInput } from '@/contracts/inputs';
import { ASSUMED_MARK_SD_MM, loadCovariance } from '@/core/fit/load-noise';
import { fitReadings } from '@/core/fit/fit-readings';
import { inverseOf, then } from '@/core/geometry/affine';
import { mapInMachine } from '@/core/geometry/load';
import { fail, ok, type Result } from '@/core/result';
import { typedFor, type MachineSetting } from '@/core/setting/machine-setting';
import type { SettingChange } from '@/core/setting/plan-settings';
import { learnSetting, loadSdOf, partUncertainty, testable, trialValue, type Learned } from '@/core/setting/which-way';
import type { Database, Session } from '@/db/client';
import { ownersOf } from '@/db/queries/settings';
import { machineSetting, whichWayTest } from '@/db/schema/settings';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { endedBefore, onOpenCheck } from './check-guard';
import { fineReadings } from './fine-readings';
import { doneSets, type CalibrationRecord, type CutSet } from './record';
import { addSheet, endTest, recordCut } from './steps';
import { logChanged, storeValue, typedProblem } from './typed-settings';

/** Where a sheet carries one set, the second cut is a second sheet and a load of its own. */
export const isTwoSheetTest = (record: CalibrationRecord): boolean => record.definition.sets === 1;

/** What is to be set between the two cuts. */
export function trialChanges(record: CalibrationRecord): readonly SettingChange[] {
  return testable(record.settings).map((setting) => {
    const after = trialValue(setting, isTwoSheetTest(record) ? 2 : 1, record.lastTrials[setting.id]);
    return { setting, before: setting.value, after, toType: typedFor(setting, after), isAtLimit: false };
  });
}

/** The values were changed and the second cut was made, without unloading where the sheet has two sets: written down together. */
export async function recordTrial(
  database: Database,
  actor: Actor,
  input: TrialCutInput,
): Promise<Result<string, Refusal>> {
  const replay = (record: CalibrationRecord) => record.cutSets.find((c) => c.id === input.id)?.id;
  return onOpenCheck(database, actor, { ...input, replay }, async (session, record) => {
    const [first] = doneSets(record);
    if (!first) return fail(refusal('Cut set 1 first.'));
    const changes = trialChanges(record);
    const problem = typedProblem(changes, input.typed);
    if (problem) return fail(refusal(problem));
    for (const { setting, after: value } of changes)
      await storeValue(session, actor, { settingId: setting.id, value, source: 'typed', correctionId: null });
    await logChanged(session, actor, { owners: ownersOf(record.setupRow), at: now() }, changes);
    const isTwoSheets = isTwoSheetTest(record);
    if (isTwoSheets) await addSheet(session, actor, input);
    return recordCut(session, actor, {
      ...{ id: input.id, calibrationId: input.calibrationId, ...first.load },
      ...{ outcome: 'done', isFreshLoad: isTwoSheets },
    });
  });
}

export interface LearnedSetting {
  readonly setting: MachineSetting;
  readonly change: number;
  readonly learned: Learned;
  readonly uncertainty: number;
}

/** What the two cuts tell of every setting that was changed between them; null while one of them is not read. */
export function learnedFrom(record: CalibrationRecord): readonly LearnedSetting[] | null {
  const [first, second] = doneSets(record);
  if (!first || !second) return null;
  const fits = [first, second].map((set) =>
    fitReadings(fineReadings(record, [set]), set.load, { corners: record.corners }),
  );
  const [one, two] = fits;
  if (!one?.ok || !two?.ok) return null;
  const moved = then(inverseOf(mapInMachine(one.value.map, first.load)), mapInMachine(two.value.map, second.load));
  const noise = loadCovariance(record.marks, ASSUMED_MARK_SD_MM, record.loadModel);
  const readings = two.value.readings.filter((r) => r.used);
  const typical = Math.max(...readings.map((r) => r.observation.standardUncertaintyMm));
  return changedBetween(record.settings, first, second).map(({ setting, change }) => {
    const ofReading = partUncertainty(setting.actsOn, typical, readings.length / 2);
    const uncertainty = isTwoSheetTest(record) ? Math.hypot(ofReading, loadSdOf(setting.actsOn, noise)) : ofReading;
    return { setting, change, learned: learnSetting(setting, change, moved, uncertainty), uncertainty };
  });
}

function changedBetween(settings: readonly MachineSetting[], first: CutSet, second: CutSet) {
  return settings.flatMap((setting) => {
    const change = (second.settings[setting.id] ?? 0) - (first.settings[setting.id] ?? 0);
    return change === 0 ? [] : [{ setting, change }];
  });
}

/** A wizard's line must have told the same direction twice before a line is ever advised. */
const TESTS_NEEDED = { typed: 1, after_test_print: 1, wizard: 2 } as const;

async function keepOne(session: Session, actor: Actor, told: LearnedSetting): Promise<void> {
  const { setting, change, learned, uncertainty } = told;
  const isAcross = setting.actsOn.endsWith('across');
  await session.insert(whichWayTest).values({
    id: randomUUID(),
    machineSettingId: setting.id,
    change,
    measuredAcrossMm: isAcross ? learned.moved : 0,
    measuredAlongMm: isAcross ? 0 : learned.moved,
    standardUncertaintyMm: uncertainty,
    sense: learned.sense,
    gain: learned.gain,
    at: now(),
    by: actor.personId,
  });
  if (learned.sense === null) return;
  const agreeing = await session
    .select()
    .from(whichWayTest)
    .where(and(eq(whichWayTest.machineSettingId, setting.id), eq(whichWayTest.sense, learned.sense)));
  if (agreeing.length < TESTS_NEEDED[setting.kind]) return;
  await session
    .update(machineSetting)
    .set({
      sense: learned.sense,
      // A strength within a tenth of the stated one is the stated one, seen through reading noise.
      gain: learned.gain !== null && Math.abs(learned.gain - 1) > 0.1 ? learned.gain : 1,
      version: sql`${machineSetting.version} + 1`,
    })
    .where(eq(machineSetting.id, setting.id));
}

/** Keeps what was learned with the settings, and ends the test. */
export async function keepLearned(
  database: Database,
  actor: Actor,
  input: { readonly id: string; readonly calibrationId: string },
): Promise<Result<string, Refusal>> {
  return onOpenCheck(database, actor, { ...input, replay: endedBefore('which_way') }, async (session, record) => {
    const told = learnedFrom(record);
    if (!told) return fail(refusal('Read both cuts first.'));
    for (const one of told) await keepOne(session, actor, one);
    await endTest(session, input.calibrationId);
    return ok(input.calibrationId);
  });
}
