import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import type { SaveScanInput } from '@/contracts/inputs';
import type { TurnDeg } from '@/core/geometry/load';
import type { Result } from '@/core/result';
import { combineScans } from '@/core/scan/combine-scans';
import type { GrayImage } from '@/core/scan/gray';
import { measureScan } from '@/core/scan/measure-scan';
import { scanFigures } from '@/core/scan/scan-figures';
import type { OtherSheet, ScanProblem, ScanResult } from '@/core/scan/scan-result';
import type { Database } from '@/db/client';
import type { SheetCondition } from '../standins/glass';
import type { Device } from '../standins/scanner';
import type { CalibrationRecord } from './record';
import { standinScan } from './scans';

/** How a sheet, or what was lifted out of it, lies on the stand-in scanner. */
export interface Laid {
  readonly turnDeg?: TurnDeg;
  readonly condition?: SheetCondition;
  readonly device?: Device;
  readonly face?: 'front' | 'back';
}

/** What the stand-in scanner makes of a record's first sheet at 300 dpi. */
export async function scannedImage(database: Database, record: CalibrationRecord, laid: Laid): Promise<GrayImage> {
  const { turnDeg = 0, condition = 'clean', device = 'scanner', face = 'front' } = laid;
  const made = await standinScan(database, record, 1, { device, dotsPerInch: 300, turnDeg, condition, face });
  if (!made.ok) throw new Error(made.error.message);
  const { data, info } = await sharp(made.value).toColourspace('b-w').raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8Array(data) };
}

export function measuredImage(
  image: GrayImage,
  record: CalibrationRecord,
  others: readonly OtherSheet[] = [],
): Result<ScanResult, ScanProblem> {
  const work = measureScan(image, scanFigures(record.definition), undefined, others);
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
  }
}

export async function scanWith(database: Database, record: CalibrationRecord, laid: Laid = {}): Promise<ScanResult> {
  const result = measuredImage(await scannedImage(database, record, laid), record);
  if (!result.ok) throw new Error(result.error.kind);
  return result.value;
}

/** What the page sends of scans of a record's first cut. */
export function inputOf(
  record: CalibrationRecord,
  scans: readonly ScanResult[],
  face: SaveScanInput['face'] = 'front',
): SaveScanInput {
  const set = record.cutSets[0]!;
  const own = combineScans(scans).discs.filter((d) => d.key.startsWith(`${set.setNo} `));
  return {
    id: randomUUID(),
    cutSetId: set.id,
    face,
    scans: scans.map((s) => ({
      fileName: 'scan.png',
      dotsPerInch: s.pixelsPerMm * 25.4,
      turnDeg: s.turnDeg,
      isMirrored: s.isMirrored,
      goodCount: s.discs.filter((d) => d.state === 'good').length,
    })),
    discs: own.flatMap((d) =>
      d.state === 'good' || d.state === 'partial'
        ? [{ ...d, state: d.state, acrossId: randomUUID(), alongId: randomUUID(), spotNo: Number(d.key.split(' ')[1]) }]
        : [],
    ),
    printSize: null,
    picture: null,
  };
}
