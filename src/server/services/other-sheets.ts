import 'server-only';
import { StoredSheet } from '@/contracts/stored';
import { scanFigures } from '@/core/scan/scan-figures';
import type { OtherSheet } from '@/core/scan/scan-result';
import { withWordsMoved, wordShiftOf } from '@/core/target/sheet-words';
import type { Database } from '@/db/client';
import { findOtherSheets } from '@/db/queries/sheets';
import type { CalibrationRecord, CutSet } from './record';
import { APART_FROM_LAST } from './sheet-marks';

/** Sheets that may lie on the scanner in place of a set's: the shop's latest, with what is printed on each. */
export async function otherSheets(
  database: Database,
  record: CalibrationRecord,
  { sheetId }: Pick<CutSet, 'sheetId'>,
): Promise<readonly OtherSheet[]> {
  const { setupId } = record.calibration;
  const rows = await findOtherSheets(database, { setupId, sheetId }, APART_FROM_LAST);
  return rows.map(({ code, content, wordShift, calibrationId }) => {
    const drawn = StoredSheet.parse(content);
    const definition = withWordsMoved(drawn, wordShift ?? wordShiftOf(calibrationId));
    return { code, figures: scanFigures(definition) };
  });
}
