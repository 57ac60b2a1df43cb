import 'server-only';
import type { SaveReadingInput, SaveReadingListInput } from '@/contracts/inputs';
import { StoredSheet } from '@/contracts/stored';
import type { ReadingMethod } from '@/core/reading/methods';
import {
  EYE_SD_MM,
  readingUncertainty,
  RIM_EYE_SD_MM,
  ROUND_CALIPER_SD_MM,
  ROUGH_EYE_SD_MM,
  ROUGH_STEP_MM,
  SCAN_SD_MM,
  type ReadingConditions,
} from '@/core/reading/uncertainty';
import { fail, ok, type Result } from '@/core/result';
import { ROUGH_REACH_MM } from '@/core/target/block';
import { COMB_REACH_MM, COMB_STEP_MM } from '@/core/target/comb';
import { SCAN_REACH_MM } from '@/core/target/coded-figure';
import { SMALL_DISC_REACH_MM } from '@/core/target/disc';
import { LIFT_OFF_REACH_MM } from '@/core/target/lift-off';
import type { Route } from '@/core/shop/words';
import { combOf, discOf, wedgeOf, type SheetDefinition } from '@/core/target/sheet-definition';
import { READING_STEP_MM, WEDGE_REACH_MM } from '@/core/target/wedge';
import type { Database, Session } from '@/db/client';
import { cutSetWithCalibration, findCalibration, findReading, findSlot } from '@/db/queries/calibration';
import { findSetup, type SetupRow } from '@/db/queries/shop';
import { reading } from '@/db/schema/calibration';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { allOrNothing, lockOpenCheck } from './check-guard';
import { strangerTo } from './own-shop';

export interface SavedReading {
  readonly id: string;
  /** A reading of the same figure that was there already, from another browser or an earlier look. */
  readonly earlierMm: number | null;
}

const OPERATOR_SD_MM: Readonly<Record<ReadingMethod, number>> = {
  wedge: EYE_SD_MM,
  comb: EYE_SD_MM,
  wall: RIM_EYE_SD_MM,
  rim: RIM_EYE_SD_MM,
  rim_back: RIM_EYE_SD_MM,
  rough: ROUGH_EYE_SD_MM,
  scan: SCAN_SD_MM,
  scan_back: SCAN_SD_MM,
};

const STEP_MM: Readonly<Record<ReadingMethod, number>> = {
  wedge: READING_STEP_MM,
  comb: COMB_STEP_MM,
  wall: READING_STEP_MM,
  rim: READING_STEP_MM,
  rim_back: READING_STEP_MM,
  rough: ROUGH_STEP_MM,
  scan: 0,
  scan_back: 0,
};

/** What a reading needs of its calibration: far less than the whole record, because readings come one by one. */
interface ReadingContext {
  readonly calibrationId: string;
  readonly setNo: number;
  readonly definition: SheetDefinition;
  readonly route: Route;
  readonly setupRow: SetupRow;
}

async function contextOf(
  database: Database,
  calibrationId: string,
): Promise<Omit<ReadingContext, 'setNo' | 'calibrationId'> | null> {
  const found = await findCalibration(database, calibrationId);
  const setupRow = found ? await findSetup(database, found.calibration.setupId) : undefined;
  if (!found || !setupRow) return null;
  return { definition: StoredSheet.parse(found.definition.content), route: found.calibration.route, setupRow };
}

/** What the uncertainty of a reading stands on, apart from repeats. */
export function conditionsOf(
  { setupRow, route }: Pick<ReadingContext, 'setupRow' | 'route'>,
  method: ReadingMethod,
  instrument: SaveReadingInput['instrument'] = 'eye',
): ReadingConditions {
  return {
    stepMm: STEP_MM[method],
    operatorSdMm: instrument === 'caliper' ? ROUND_CALIPER_SD_MM : OPERATOR_SD_MM[method],
    printerDotMm: setupRow.printer.dotPitchMm,
    isPlotterFile: route === 'D' && setupRow.cutter.fileFormat === 'hpgl',
  };
}

const REACH_MM: Readonly<Record<ReadingMethod, number>> = {
  wedge: WEDGE_REACH_MM,
  comb: COMB_REACH_MM + COMB_STEP_MM,
  wall: SMALL_DISC_REACH_MM,
  rim: LIFT_OFF_REACH_MM,
  rim_back: LIFT_OFF_REACH_MM,
  rough: ROUGH_REACH_MM,
  scan: SCAN_REACH_MM,
  scan_back: SCAN_REACH_MM,
};

/** Whether the sheet has the figure that was looked at, and what it is called if not. */
function missingFigure(
  { definition }: Pick<ReadingContext, 'definition'>,
  { method, spotNo, axis }: SaveReadingInput,
  setNo: number,
): string | null {
  switch (method) {
    case 'wedge':
      return wedgeOf(definition, setNo, spotNo, axis) ? null : `Spot ${spotNo} has no such figure on this sheet.`;
    case 'comb':
      return combOf(definition, spotNo, axis) ? null : `Spot ${spotNo} has no comb ${axis} on this sheet.`;
    case 'wall':
      return discOf(definition, setNo, spotNo) ? null : `There is no disc ${spotNo} on this sheet.`;
    case 'rim':
    case 'rim_back':
      return definition.liftOffs.some((f) => f.spotNo === spotNo) ? null : `There is no disc ${spotNo} on this sheet.`;
    case 'rough':
      return definition.roughs.some((r) => r.spotNo === spotNo)
        ? null
        : `There is no rough grid ${spotNo} on this sheet.`;
  }
}

function problemWith(
  record: Pick<ReadingContext, 'definition'>,
  input: SaveReadingInput,
  setNo: number,
): string | null {
  const reach = REACH_MM[input.method];
  const missing = missingFigure(record, input, setNo);
  if (missing) return missing;
  if (input.readingMm !== null && Math.abs(input.readingMm) > reach)
    return `${input.readingMm.toFixed(2)} mm is beyond the figure: it shows ${reach} mm to either side.`;
  return null;
}

/** The readings' set with what is needed to judge them; a reading that cannot be is refused by name. */
async function checkedContext(
  database: Database,
  inputs: readonly SaveReadingInput[],
): Promise<Result<ReadingContext, Refusal>> {
  const cutSetId = inputs[0]?.cutSetId ?? '';
  const owner = await cutSetWithCalibration(database, cutSetId);
  const record = owner ? await contextOf(database, owner.calibrationId) : null;
  if (!owner || !record) return fail(refusal('This cut set is not there any more.'));
  for (const input of inputs) {
    if (input.cutSetId !== cutSetId) return fail(refusal('These readings belong to more than one cut.'));
    const problem = problemWith(record, input, owner.cutSet.setNo);
    if (problem) return fail(refusal(problem));
  }
  return ok({ ...record, calibrationId: owner.calibrationId, setNo: owner.cutSet.setNo });
}

/** Displacement of the ink itself in a figure, which the reading is told apart from. */
function ditherIn({ definition, setNo }: ReadingContext, { method, spotNo, axis }: SaveReadingInput): number {
  return method === 'wedge' ? (wedgeOf(definition, setNo, spotNo, axis)?.ditherMm ?? 0) : 0;
}

/** What a reading says of the displacement, and how far it can be trusted; nothing for a figure that was not read. */
function displacementOf(record: ReadingContext, input: SaveReadingInput) {
  const { readingMm, startedAtMm, method, instrument = 'eye' } = input;
  const ditherMm = ditherIn(record, input);
  const raw = { startedAtMm, ditherMm, instrument };
  if (readingMm === null) return { readingMm, displacementMm: null, standardUncertaintyMm: null, raw };
  const standardUncertaintyMm = readingUncertainty(conditionsOf(record, method, instrument));
  return { readingMm, displacementMm: readingMm + ditherMm, standardUncertaintyMm, raw };
}

/** Writes one reading in a transaction that holds its set. @returns the value that it supersedes. */
async function writeReading(
  session: Session,
  actor: Actor,
  record: ReadingContext,
  input: SaveReadingInput,
): Promise<number | null> {
  const { id, cutSetId, spotNo, axis, method, state, repeatNo = 1 } = input;
  const [last] = await findSlot(session, { ...input, repeatNo });
  await session.insert(reading).values({
    ...{ id, cutSetId, spotNo, axis, method, state, repeatNo },
    seq: (last?.seq ?? 0) + 1,
    supersedesId: last?.id ?? null,
    ...displacementOf(record, input),
    readAt: now(),
    readBy: actor.personId,
  });
  return last?.readingMm ?? null;
}

/**
 * Keeps one reading. Nothing is ever changed: a later reading of the same figure supersedes the one that stood, whoever
 * made it, and the earlier value is told. The id comes from the client, so that a retry after sleep is harmless.
 */
export async function saveReading(
  database: Database,
  actor: Actor,
  input: SaveReadingInput,
): Promise<Result<SavedReading, Refusal>> {
  const stranger = await strangerTo(database, actor, { cutSetId: input.cutSetId });
  if (stranger) return fail(stranger);
  const known = await findReading(database, input.id);
  if (known) return ok({ id: known.id, earlierMm: null });
  const record = await checkedContext(database, [input]);
  if (!record.ok) return record;
  const { calibrationId } = record.value;
  return allOrNothing(database, async (session) => {
    const closed = await lockOpenCheck(session, calibrationId);
    if (closed) return fail(closed);
    return ok({ id: input.id, earlierMm: await writeReading(session, actor, record.value, input) });
  });
}

/** Keeps a whole list of readings of one set, or nothing of it. Those that are there already are left as they are. */
export async function saveReadingList(
  database: Database,
  actor: Actor,
  { readings }: SaveReadingListInput,
): Promise<Result<number, Refusal>> {
  const stranger = await strangerTo(database, actor, { cutSetId: readings[0]?.cutSetId });
  if (stranger) return fail(stranger);
  const record = await checkedContext(database, readings);
  if (!record.ok) return record;
  const { calibrationId } = record.value;
  return allOrNothing(database, async (session) => {
    const known = await Promise.all(readings.map((input) => findReading(session, input.id)));
    const closed = await lockOpenCheck(session, calibrationId);
    if (closed && known.includes(undefined)) return fail(closed);
    for (const input of readings)
      if (!(await findReading(session, input.id))) await writeReading(session, actor, record.value, input);
    return ok(readings.length);
  });
}
