import 'server-only';
import { eq } from 'drizzle-orm';
import type { SaveReadingInput } from '@/contracts/inputs';
import { StoredSheet } from '@/contracts/stored';
import {
  EYE_SD_MM,
  readingUncertainty,
  RIM_EYE_SD_MM,
  ROUGH_EYE_SD_MM,
  ROUGH_STEP_MM,
  type ReadingConditions,
} from '@/core/reading/uncertainty';
import { fail, ok, type Result } from '@/core/result';
import { ROUGH_REACH_MM } from '@/core/target/block';
import { LIFT_OFF_REACH_MM } from '@/core/target/lift-off';
import type { Route } from '@/core/shop/words';
import { wedgeOf, type SheetDefinition } from '@/core/target/sheet-definition';
import { READING_STEP_MM, WEDGE_REACH_MM } from '@/core/target/wedge';
import type { Database } from '@/db/client';
import { cutSetWithCalibration, findCalibration, findReading, findSlot } from '@/db/queries/calibration';
import { findSetup, type SetupRow } from '@/db/queries/shop';
import { cutSet, reading } from '@/db/schema/calibration';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';

export interface SavedReading {
  readonly id: string;
  /** A reading of the same figure that was there already, from another browser or an earlier look. */
  readonly earlierMm: number | null;
}

const OPERATOR_SD_MM = {
  wedge: EYE_SD_MM,
  rim: RIM_EYE_SD_MM,
  rim_back: RIM_EYE_SD_MM,
  rough: ROUGH_EYE_SD_MM,
} as const;

/** What a reading needs of its calibration: far less than the whole record, because readings come one by one. */
interface ReadingContext {
  readonly definition: SheetDefinition;
  readonly route: Route;
  readonly setupRow: SetupRow;
}

async function contextOf(database: Database, calibrationId: string): Promise<ReadingContext | null> {
  const found = await findCalibration(database, calibrationId);
  const setupRow = found ? await findSetup(database, found.calibration.setupId) : undefined;
  if (!found || !setupRow) return null;
  return { definition: StoredSheet.parse(found.definition.content), route: found.calibration.route, setupRow };
}

/** What the uncertainty of a reading stands on, apart from repeats. */
export function conditionsOf(
  { setupRow, route }: Pick<ReadingContext, 'setupRow' | 'route'>,
  method: SaveReadingInput['method'],
): ReadingConditions {
  return {
    stepMm: method === 'rough' ? ROUGH_STEP_MM : READING_STEP_MM,
    operatorSdMm: OPERATOR_SD_MM[method],
    printerDotMm: setupRow.printer.dotPitchMm,
    isPlotterFile: route === 'D' && setupRow.cutter.fileFormat === 'hpgl',
  };
}

const REACH_MM = {
  wedge: WEDGE_REACH_MM,
  rim: LIFT_OFF_REACH_MM,
  rim_back: LIFT_OFF_REACH_MM,
  rough: ROUGH_REACH_MM,
} as const;

function problemWith(record: ReadingContext, input: SaveReadingInput, setNo: number): string | null {
  const reach = REACH_MM[input.method];
  if (input.method === 'wedge' && !wedgeOf(record.definition, setNo, input.spotNo, input.axis))
    return `Spot ${input.spotNo} has no such figure on this sheet.`;
  if (input.method.startsWith('rim') && !record.definition.liftOffs.some((f) => f.spotNo === input.spotNo))
    return `There is no disc ${input.spotNo} on this sheet.`;
  if (input.method === 'rough' && !record.definition.roughs.some((r) => r.spotNo === input.spotNo))
    return `There is no rough grid ${input.spotNo} on this sheet.`;
  if (input.readingMm !== null && Math.abs(input.readingMm) > reach)
    return `${input.readingMm.toFixed(2)} mm is beyond the figure: it shows ${reach} mm to either side.`;
  return null;
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
  const known = await findReading(database, input.id);
  if (known) return ok({ id: known.id, earlierMm: null });
  const owner = await cutSetWithCalibration(database, input.cutSetId);
  const record = owner ? await contextOf(database, owner.calibrationId) : null;
  if (!owner || !record) return fail(refusal('This cut set is not there any more.'));
  const problem = problemWith(record, input, owner.cutSet.setNo);
  if (problem) return fail(refusal(problem));
  const dither =
    input.method === 'wedge'
      ? (wedgeOf(record.definition, owner.cutSet.setNo, input.spotNo, input.axis)?.ditherMm ?? 0)
      : 0;
  return database.transaction(async (session) => {
    // One writer at a time in a slot: the newest is read under a lock on the set.
    await session.select({ id: cutSet.id }).from(cutSet).where(eq(cutSet.id, input.cutSetId)).for('update');
    const { repeatNo = 1 } = input;
    const slot = await findSlot(session, { ...input, repeatNo });
    const last = slot[0];
    await session.insert(reading).values({
      id: input.id,
      cutSetId: input.cutSetId,
      spotNo: input.spotNo,
      axis: input.axis,
      method: input.method,
      repeatNo,
      seq: (last?.seq ?? 0) + 1,
      supersedesId: last?.id ?? null,
      state: input.state,
      readingMm: input.readingMm,
      displacementMm: input.readingMm === null ? null : input.readingMm + dither,
      standardUncertaintyMm: input.readingMm === null ? null : readingUncertainty(conditionsOf(record, input.method)),
      raw: { startedAtMm: input.startedAtMm, ditherMm: dither },
      readAt: now(),
      readBy: actor.personId,
    });
    return ok({ id: input.id, earlierMm: last?.readingMm ?? null });
  });
}
