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
import {
  learnSetting,
  loadSdOf,
  partUncertainty,
  testable,
  trialValue,
  type Learned,
  type TrialLoading,
} from '@/core/setting/which-way';
import type { Database, Session } from '@/db/client';
import { ownersOf } from '@/db/queries/settings';
import { machineSetting, whichWayTest } from '@/db/schema/settings';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { endedBefore, onOpenCheck } from './check-guard';
import { fineReadings } from './fine-readings';
import { currentSets, doneSets, planCut, type CalibrationRecord, type CutSet } from './record';
import { addSheet, endTest, goToStep, recordCut } from './steps';
import { logChanged, storeValue, typedProblem } from './typed-settings';

const isTest = ({ calibration }: CalibrationRecord): boolean => calibration.kind === 'which_way';

/**
 * How the sheet comes to the cut with a changed value. A test cuts both sets before they are read, so the sheet stays loaded.
 * In a check the first set was read already: its sheet is loaded again, or another one where no set is left on it.
 */
export function trialLoading(record: CalibrationRecord): TrialLoading {
  if (record.definition.sets === 1) return 'another-sheet';
  if (isTest(record)) return 'same-load';
  return planCut(record, true).setNo === 2 ? 'reload' : 'another-sheet';
}

const asTyped = (setting: MachineSetting, after: number): SettingChange => ({
  ...{ setting, before: setting.value, after, toType: typedFor(setting, after), isAtLimit: false },
});

/** What is to be set before the cut that tells which way + goes. */
export function trialChanges(record: CalibrationRecord): readonly SettingChange[] {
  const times = record.definition.sets === 1 ? 2 : 1;
  const pair = isTest(record) ? null : trialsOf(record);
  return testable(record.settings).map((setting) => {
    if (!pair) return asTyped(setting, trialValue(setting, times, record.lastTrials[setting.id]));
    // In a check the value goes to one side of where the first set was cut, then to the other.
    const value = pair.first.settings[setting.id] ?? setting.value;
    return asTyped(setting, trialValue({ ...setting, value }, times, pair.trials.length));
  });
}

interface Trials {
  /** The set that was cut before any value was changed. */
  readonly first: CutSet;
  /** Sets cut since with a value of unknown direction changed. */
  readonly trials: readonly CutSet[];
}

/**
 * In a check: the cuts that tell which way + goes. Null where nothing was read yet, or a wizard is to be learned. A cut that
 * differs in a setting of known direction too tells nothing of the unknown one.
 */
export function trialsOf(record: CalibrationRecord): Trials | null {
  const unknown = testable(record.settings);
  const sets = currentSets(record);
  const first = sets.find((set) => fineReadings(record, [set]).length > 0);
  if (!first || unknown.length === 0 || unknown.some((s) => s.kind === 'wizard')) return null;
  const isMoved = (set: CutSet, s: MachineSetting): boolean => set.settings[s.id] !== first.settings[s.id];
  const isTrial = (set: CutSet): boolean =>
    unknown.some((s) => isMoved(set, s)) && !record.settings.some((s) => !unknown.includes(s) && isMoved(set, s));
  return { first, trials: sets.filter((set) => set !== first && isTrial(set)) };
}

/** The two cuts to compare: those of a test, or in a check the first and the latest that was cut with a changed value. */
function cutsCompared(record: CalibrationRecord): readonly [CutSet, CutSet] | null {
  if (isTest(record)) {
    const [first, second] = doneSets(record);
    return first && second ? [first, second] : null;
  }
  const told = trialsOf(record);
  const second = told?.trials.findLast((set) => fineReadings(record, [set]).length > 0);
  return told && second ? [told.first, second] : null;
}

/** The values were changed and the second cut was made, without unloading where the sheet has two sets: written down together. */
export async function recordTrial(
  database: Database,
  actor: Actor,
  input: TrialCutInput,
): Promise<Result<string, Refusal>> {
  const replay = (record: CalibrationRecord) => record.cutSets.find((c) => c.id === input.id)?.id;
  return onOpenCheck(database, actor, { ...input, replay }, async (session, record) => {
    const first = doneSets(record).at(isTest(record) ? 0 : -1);
    if (!first) return fail(refusal('Cut set 1 first.'));
    const changes = trialChanges(record);
    const problem = typedProblem(changes, input.typed);
    if (problem) return fail(refusal(problem));
    for (const { setting, after: value } of changes)
      await storeValue(session, actor, { settingId: setting.id, value, source: 'typed', correctionId: null });
    await logChanged(session, actor, { owners: ownersOf(record.setupRow), at: now() }, changes);
    const loading = trialLoading(record);
    if (loading === 'another-sheet') await addSheet(session, actor, input);
    return recordCut(session, actor, {
      ...{ id: input.id, calibrationId: input.calibrationId, ...first.load },
      ...{ outcome: 'done', isFreshLoad: loading !== 'same-load' },
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
  const compared = cutsCompared(record);
  if (!compared) return null;
  const [first, second] = compared;
  const fits = [first, second].map((set) =>
    fitReadings(fineReadings(record, [set]), set.load, { corners: record.corners }),
  );
  const [one, two] = fits;
  if (!one?.ok || !two?.ok) return null;
  const moved = then(inverseOf(mapInMachine(one.value.map, first.load)), mapInMachine(two.value.map, second.load));
  const noise = loadCovariance(record.marks, ASSUMED_MARK_SD_MM, record.loadModel);
  const readings = two.value.readings.filter((r) => r.used);
  const typical = Math.max(...readings.map((r) => r.observation.standardUncertaintyMm));
  const unknown = isTest(record) ? record.settings : testable(record.settings);
  return changedBetween(unknown, first, second).map(({ setting, change }) => {
    const ofReading = partUncertainty(setting.actsOn, typical, readings.length / 2);
    const uncertainty =
      first.loadNo !== second.loadNo ? Math.hypot(ofReading, loadSdOf(setting.actsOn, noise)) : ofReading;
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

/** A check that is open and waits for no answer has kept what its cuts told. */
const wasKept = (record: CalibrationRecord): boolean =>
  record.calibration.state === 'open' && !isTest(record) && !trialsOf(record);

/** What a test of directions takes: a wizard hides its value, so it is believed only when two tests agree. */
export function testTakes(sets: 1 | 2, learned: readonly Pick<MachineSetting, 'kind'>[]): string {
  const one = sets === 2 ? 'One sheet, two cuts in one load' : 'Two sheets, the value changed between';
  return learned.some((s) => TESTS_NEEDED[s.kind] > 1)
    ? `${one}. A wizard hides its value: it takes this test twice, and is believed when both agree.`
    : `${one}.`;
}

/** Keeps what was learned with the settings; a test ends with it, a check goes on with its map. */
export async function keepLearned(
  database: Database,
  actor: Actor,
  input: { readonly id: string; readonly calibrationId: string },
): Promise<Result<string, Refusal>> {
  const replay = (record: CalibrationRecord) =>
    endedBefore('which_way')(record) ?? (wasKept(record) ? input.calibrationId : undefined);
  return onOpenCheck(database, actor, { ...input, replay }, async (session, record) => {
    const told = learnedFrom(record);
    if (!told) return fail(refusal('Read both cuts first.'));
    for (const one of told) await keepOne(session, actor, one);
    if (isTest(record)) await endTest(session, input.calibrationId);
    else await goToStep(session, input.calibrationId, 'map');
    return ok(input.calibrationId);
  });
}
