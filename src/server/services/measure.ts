import 'server-only';
import { and, eq, sql } from 'drizzle-orm';
import type { KeepOwnTestInput } from '@/contracts/shop';
import { StoredOwnTest } from '@/contracts/stored';
import type { Ladder, OwnTest } from '@/core/reading/ladder';
import { fail, ok, type Result } from '@/core/result';
import { layOutBlock, ownMarkCentres } from '@/core/target/block';
import type { Point } from '@/core/geometry/affine';
import type { Database, Session } from '@/db/client';
import { findSetup } from '@/db/queries/shop';
import { cutter } from '@/db/schema/machines';
import { machineSetting, whichWayTest } from '@/db/schema/settings';
import { refusal, type Refusal } from './actor';
import { markSpaceFor } from './setup-marks';

export interface MeasureView {
  readonly setupName: string;
  readonly page: { readonly widthMm: number; readonly lengthMm: number };
  /** The frame that a check sheet prints round itself, in the middle of its page. */
  readonly frame: { readonly widthMm: number; readonly lengthMm: number };
  /** Where marks usually stand about the middle of the page. */
  readonly marks: readonly Point[];
  readonly toleranceMm: number;
  readonly cutterName: string;
  /** The cutter's own test, where someone described it. */
  readonly ownTest: OwnTest | null;
}

/** What measuring a sheet of one setup by rule starts from. */
export async function readMeasure(database: Database, setupId: string): Promise<MeasureView | null> {
  const row = await findSetup(database, setupId);
  if (!row) return null;
  const { page, pageWidthMm: widthMm, pageLengthMm: lengthMm } = row.printMode;
  const block = layOutBlock({ name: page, widthMm, lengthMm }, markSpaceFor(row));
  const frame = block.ok
    ? { widthMm: block.value.widthMm, lengthMm: block.value.lengthMm }
    : { widthMm: widthMm - 30, lengthMm: lengthMm - 30 };
  const half = { x: frame.widthMm / 2, y: frame.lengthMm / 2 };
  return {
    setupName: row.setup.name,
    page: { widthMm, lengthMm },
    frame,
    marks: block.ok
      ? ownMarkCentres(block.value)
      : [
          { x: -half.x, y: -half.y },
          { x: half.x, y: -half.y },
          { x: half.x, y: half.y },
          { x: -half.x, y: half.y },
        ],
    toleranceMm: row.setup.toleranceMm,
    cutterName: row.cutter.name,
    ownTest: ownTestOf(row.cutter),
  };
}

/** The cutter's own test as it was described; null where it was not. */
export const ownTestOf = (row: { readonly ownTest: unknown }): OwnTest | null =>
  row.ownTest === null ? null : StoredOwnTest.parse(row.ownTest);

/**
 * A wizard's line is picked by the row that the machine shows: as far and as fine as that row has. Its step is taken too, unless two
 * cuts have told already how far a line moves the cut: what was measured stays.
 */
async function followRow(
  session: Session,
  cutterId: string,
  actsOn: 'offset_across' | 'offset_along',
  row: Ladder,
): Promise<void> {
  await session
    .update(machineSetting)
    .set({
      minValue: 1 - row.middle,
      maxValue: row.lines - row.middle,
      step: row.takesHalves ? 0.5 : 1,
      ...(row.stepMm !== null && {
        unitSize: sql`case when exists (select 1 from ${whichWayTest} where ${whichWayTest.machineSettingId} = ${machineSetting.id}) then ${machineSetting.unitSize} else ${row.stepMm}::float8 end`,
      }),
      version: sql`${machineSetting.version} + 1`,
    })
    .where(
      and(
        eq(machineSetting.cutterId, cutterId),
        eq(machineSetting.kind, 'wizard'),
        eq(machineSetting.unit, 'step'),
        eq(machineSetting.actsOn, actsOn),
      ),
    );
}

/** Keeps how a cutter's own test is labelled, so that the next reading needs only the line; its wizard's settings follow. */
export async function keepOwnTest(
  database: Database,
  shopId: string,
  input: KeepOwnTestInput,
): Promise<Result<string, Refusal>> {
  const row = await findSetup(database, input.setupId);
  if (!row || row.cutter.shopId !== shopId) return fail(refusal('This setup is not there any more.'));
  const { across, along } = input.ownTest;
  await database.transaction(async (session) => {
    await session.update(cutter).set({ ownTest: input.ownTest }).where(eq(cutter.id, row.cutter.id));
    if (across) await followRow(session, row.cutter.id, 'offset_across', across);
    if (along) await followRow(session, row.cutter.id, 'offset_along', along);
  });
  return ok(row.cutter.name);
}
