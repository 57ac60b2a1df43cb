import { and, desc, eq, isNotNull, ne, sql } from 'drizzle-orm';
import type { Session } from '../client';
import { calibration, calibrationSheet } from '../schema/calibration';
import { setup } from '../schema/machines';
import { sheetDefinition } from '../schema/sheet';

export async function isCodeTaken(session: Session, code: string): Promise<boolean> {
  const rows = await session
    .select({ one: sql`1` })
    .from(calibrationSheet)
    .where(eq(calibrationSheet.code, code))
    .limit(1);
  return rows.length > 0;
}

/** Word shifts of the latest sheets, whosever they are. */
export async function recentWordShifts(session: Session, count: number): Promise<readonly number[]> {
  const rows = await session
    .select({ wordShift: calibrationSheet.wordShift })
    .from(calibrationSheet)
    .innerJoin(calibration, eq(calibration.id, calibrationSheet.calibrationId))
    .where(isNotNull(calibrationSheet.wordShift))
    .orderBy(desc(calibration.startedAt), desc(calibrationSheet.sheetNo))
    .limit(count);
  return rows.map((row) => row.wordShift ?? 0);
}

/** The latest sheets of a setup's shop but one, with what is printed on them. */
export function findOtherSheets(
  session: Session,
  own: { readonly setupId: string; readonly sheetId: string },
  count: number,
) {
  const shop = session.select({ shopId: setup.shopId }).from(setup).where(eq(setup.id, own.setupId));
  return session
    .select({
      code: calibrationSheet.code,
      wordShift: calibrationSheet.wordShift,
      calibrationId: calibration.id,
      content: sheetDefinition.content,
    })
    .from(calibrationSheet)
    .innerJoin(calibration, eq(calibration.id, calibrationSheet.calibrationId))
    .innerJoin(setup, eq(setup.id, calibration.setupId))
    .innerJoin(sheetDefinition, eq(sheetDefinition.id, calibrationSheet.sheetDefinitionId))
    .where(and(eq(setup.shopId, shop), ne(calibrationSheet.id, own.sheetId)))
    .orderBy(desc(calibration.startedAt), desc(calibrationSheet.sheetNo))
    .limit(count);
}
