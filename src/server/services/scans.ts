import 'server-only';
import { eq } from 'drizzle-orm';
import type { SaveScanInput } from '@/contracts/inputs';
import { PrintSizeShape, type KeptPrintSize } from '@/contracts/print-size';
import { StoredScans } from '@/contracts/stored';
import { seedFrom } from '@/core/math/random';
import { PLOTTER_ROUNDING_MM } from '@/core/reading/uncertainty';
import { fail, ok, type Result } from '@/core/result';
import { DETECTOR_VERSION } from '@/core/scan/measure-scan';
import { codedFigureOf } from '@/core/target/coded-figure';
import type { Database, Session } from '@/db/client';
import { cutSetWithCalibration, findOriginals, findScanOf, findScans, findSlot } from '@/db/queries/calibration';
import { reading, scan } from '@/db/schema/calibration';
import { now } from '../clock';
import { scanSheet, type ScanOrder } from '../standins/scanner';
import { refusal, type Actor, type Refusal } from './actor';
import { allOrNothing, lockOpenCheck } from './check-guard';
import { loadRecord, type CalibrationRecord } from './record';
import { pictureOf } from './simulation';
import { strangerTo } from './own-shop';

export { SHEET_CONDITIONS } from '../standins/glass';
export { DEVICES, SCANNER_DPI } from '../standins/scanner';

type ScannedDisc = SaveScanInput['discs'][number];

interface Component {
  readonly id: string;
  readonly axis: 'across' | 'along';
  readonly mm: number;
  readonly sdMm: number;
  readonly sharedMm: number;
}

const componentsOf = (d: ScannedDisc): readonly Component[] => [
  { id: d.acrossId, axis: 'across', mm: d.acrossMm, sdMm: d.acrossSdMm, sharedMm: d.acrossSharedMm },
  { id: d.alongId, axis: 'along', mm: d.alongMm, sdMm: d.alongSdMm, sharedMm: d.alongSharedMm },
];

async function writeDisc(
  session: Session,
  actor: Actor,
  { id: scanId, cutSetId, face }: Pick<SaveScanInput, 'id' | 'cutSetId' | 'face'>,
  disc: ScannedDisc & { readonly roundingMm: number },
): Promise<void> {
  for (const { id, axis, mm, sdMm, sharedMm } of componentsOf(disc)) {
    const method = face === 'back' ? ('scan_back' as const) : ('scan' as const);
    const slot = { cutSetId, spotNo: disc.spotNo, axis, method, repeatNo: 1 };
    const [last] = await findSlot(session, slot);
    await session.insert(reading).values({
      ...slot,
      id,
      state: 'read',
      seq: (last?.seq ?? 0) + 1,
      supersedesId: last?.id ?? null,
      readingMm: mm,
      displacementMm: mm,
      standardUncertaintyMm: Math.hypot(sdMm, disc.roundingMm),
      raw: { scanId, sharedMm, state: disc.state, instrument: 'scanner' },
      readAt: now(),
      readBy: actor.personId,
    });
  }
}

/**
 * Keeps what scans told of a set's discs: the scan with its small picture, and two readings a disc, all or nothing. A later
 * scan supersedes an earlier one's readings. The ids come from the client, so that a retry is harmless.
 */
export async function saveScan(
  database: Database,
  actor: Actor,
  input: SaveScanInput,
): Promise<Result<number, Refusal>> {
  const stranger = await strangerTo(database, actor, { cutSetId: input.cutSetId });
  if (stranger) return fail(stranger);
  const owner = await cutSetWithCalibration(database, input.cutSetId);
  const record = owner ? await loadRecord(database, owner.calibrationId) : null;
  if (!owner || !record) return fail(refusal('This cut set is not there any more.'));
  const { setNo } = owner.cutSet;
  if (input.face === 'back' && record.calibration.kind !== 'two_faces')
    return fail(refusal('This sheet has no back to be measured.'));
  const unknown = input.discs.find((d) => !codedFigureOf(record.definition, setNo, d.spotNo));
  if (unknown) return fail(refusal(`There is no disc ${unknown.spotNo} on this sheet.`));
  const isPlotterFile = record.calibration.route === 'D' && record.setupRow.cutter.fileFormat === 'hpgl';
  const roundingMm = isPlotterFile ? PLOTTER_ROUNDING_MM : 0;
  return allOrNothing(database, async (session) => {
    const closed = await lockOpenCheck(session, owner.calibrationId);
    const [known] = await session.select({ id: scan.id }).from(scan).where(eq(scan.id, input.id));
    if (known) return ok(input.discs.length);
    if (closed) return fail(closed);
    await session.insert(scan).values({
      id: input.id,
      cutSetId: input.cutSetId,
      detectorVersion: DETECTOR_VERSION,
      scans: input.scans,
      printSize: input.printSize,
      picture: input.picture === null ? null : Buffer.from(input.picture, 'base64'),
      at: now(),
      by: actor.personId,
    });
    for (const disc of input.discs) await writeDisc(session, actor, input, { ...disc, roundingMm });
    return ok(input.discs.length);
  });
}

export interface KeptScan {
  readonly id: string;
  readonly at: Date;
  readonly by: string;
  readonly count: number;
  readonly hasPicture: boolean;
  readonly printSize: KeptPrintSize | null;
  readonly originals: readonly KeptOriginalName[];
}

/** A picture kept as it came. */
export interface KeptOriginalName {
  readonly no: number;
  readonly fileName: string;
  readonly bytes: number;
}

/** What was scanned of a set before, the newest first. */
export async function keptScans(database: Database, cutSetId: string): Promise<readonly KeptScan[]> {
  const rows = await findScans(database, cutSetId);
  const originals = await findOriginals(
    database,
    rows.map(({ id }) => id),
  );
  return rows.map(({ scans, printSize, ...row }) => ({
    ...row,
    count: StoredScans.parse(scans).length,
    printSize: PrintSizeShape.nullable().parse(printSize),
    originals: originals.filter(({ scanId }) => scanId === row.id),
  }));
}

export async function scanPicture(database: Database, calibrationId: string, scanId: string): Promise<Buffer | null> {
  return (await findScanOf(database, calibrationId, scanId))?.picture ?? null;
}

/** What the stand-in scanner makes of a simulated setup's sheet. */
export async function standinScan(
  database: Database,
  record: CalibrationRecord,
  sheetNo: number,
  order: Pick<ScanOrder, 'device' | 'dotsPerInch' | 'turnDeg' | 'condition' | 'face'>,
): Promise<Result<Buffer, Refusal>> {
  const picture = await pictureOf(database, record, sheetNo, order.face);
  if (!picture.ok) return picture;
  const seed = seedFrom(record.calibration.id, sheetNo, ...Object.values(order));
  const { cutLine } = record.calibration;
  const isLifted = record.definition.liftOffs.length > 0;
  return ok(await scanSheet(picture.value, { ...order, seed, pageMm: record.block.page, cutLine, isLifted }));
}
