import 'server-only';
import { count, eq } from 'drizzle-orm';
import sharp from 'sharp';
import { StoredTruth } from '@/contracts/stored';
import { apply, type Affine, type Point } from '@/core/geometry/affine';
import { seededRng, seedFrom, type Rng } from '@/core/math/random';
import { fail, ok, type Result } from '@/core/result';
import type { GrayImage } from '@/core/scan/gray';
import { templateFigures } from '@/core/scan/measure-template-discs';
import { loadModelOf } from '@/core/shop/marks';
import { renderPiece } from '@/core/simulate/piece-image';
import { renderScan } from '@/core/simulate/scan-image';
import { actualCutMap } from '@/core/simulate/simulated-load';
import { layOutBlock } from '@/core/target/block';
import type { Database } from '@/db/client';
import { findSettings, ownersOf } from '@/db/queries/settings';
import { findSetup, findTruth } from '@/db/queries/shop';
import { dailyCheck } from '@/db/schema/trust';
import { refusal, type Refusal } from './actor';
import type { MadeFile } from './files';
import { marksFor, markSpaceFor } from './setup-marks';

export const DAILY_PICTURES = ['piece', 'discs'] as const;
export type DailyPicture = (typeof DAILY_PICTURES)[number];

/** The label that the stand-in camera looks at, and where it stood on its sheet. */
export const STAND_IN_PIECE = { widthMm: 60, heightMm: 40 };
const BORDER_MM = 3;
const PIECE_AT: Point = { x: 25, y: -40 };
const DISC_PLACES: readonly Point[] = [
  { x: -85, y: 120 },
  { x: 82, y: -118 },
];

/** Cut less print at a place of the sheet. */
function shiftAt(map: Affine, at: Point): Point {
  const cut = apply(map, at);
  return { x: cut.x - at.x, y: cut.y - at.y };
}

/** A camera held over the label by hand. */
const photographed = (map: Affine, rng: Rng): GrayImage =>
  renderPiece(
    {
      print: {
        kind: 'rectangle',
        widthMm: STAND_IN_PIECE.widthMm - 2 * BORDER_MM,
        heightMm: STAND_IN_PIECE.heightMm - 2 * BORDER_MM,
      },
      ...{ borderMm: BORDER_MM, shift: shiftAt(map, PIECE_AT), turnRad: (map.yx - map.xy) / 2 },
    },
    {
      ...{ dotsPerInch: 300, lyingRad: 0.12 * (rng() - 0.5), blurMm: 0.06, fallOff: 0.2, patternMm: 1, raggedMm: 0.02 },
      camera: { tiltRad: 0.15 * rng(), towardsRad: 2 * Math.PI * rng(), radial: 0.02 },
    },
    rng,
  );

/** The job's sheet on a scanner's glass. */
const scanned = (map: Affine, rng: Rng): GrayImage =>
  renderScan(
    templateFigures.map((figure, i) => {
      const centre = DISC_PLACES[i] ?? PIECE_AT;
      return { ...figure, centre, cutOff: shiftAt(map, centre), fate: 'whole' as const };
    }),
    { dotsPerInch: 200, widthMm: 210, lengthMm: 297, turnRad: 0.02 * (rng() - 0.5) },
    rng,
  );

/** What the simulated machine makes of its marks now, with the settings as they stand, on a load of its own. */
async function cutNow(
  database: Database,
  setupId: string,
): Promise<{ readonly map: Affine; readonly rng: Rng } | null> {
  const [row, stored] = await Promise.all([findSetup(database, setupId), findTruth(database, setupId)]);
  if (!row || !stored) return null;
  const truth = StoredTruth.parse(stored.truth);
  const settings = await findSettings(database, ownersOf(row), { x: 0, y: 0 });
  const [checks] = await database.select({ n: count() }).from(dailyCheck).where(eq(dailyCheck.setupId, setupId));
  const rng = seededRng(seedFrom(stored.seed, 'daily', checks?.n ?? 0));
  const { page: name, pageWidthMm: widthMm, pageLengthMm: lengthMm } = row.printMode;
  const block = layOutBlock({ name, widthMm, lengthMm }, markSpaceFor(row));
  const marks = block.ok ? marksFor(row, block.value) : { places: [], model: 'shift' as const };
  const map = actualCutMap(
    {
      ...{ truth, load: { turnDeg: 0, face: 'ink-up' }, marks: marks.places },
      loadModel: truth.markUse ? loadModelOf(truth.markUse, marks.places.length) : marks.model,
      settings: settings.map((s) => ({ ...s, value: truth.baseValues[s.id] ?? s.value })),
      valuesNow: settings.map((s) => s.value),
    },
    rng,
  );
  return { map, rng };
}

/** A made-up picture for the daily check of a simulated setup: of a finished label, or of a sheet with the two small discs. */
export async function dailyPicture(
  database: Database,
  setupId: string,
  what: DailyPicture,
): Promise<Result<MadeFile, Refusal>> {
  const cut = await cutNow(database, setupId);
  if (!cut) return fail(refusal('This setup has a real machine: photograph a piece of its own.'));
  const { width, height, data } = what === 'piece' ? photographed(cut.map, cut.rng) : scanned(cut.map, cut.rng);
  const picture = sharp(data, { raw: { width, height, channels: 1 } });
  return ok(
    what === 'piece'
      ? { name: 'finished-label.jpg', mediaType: 'image/jpeg', body: await picture.jpeg({ quality: 90 }).toBuffer() }
      : { name: 'job-sheet.png', mediaType: 'image/png', body: await picture.png({ compressionLevel: 3 }).toBuffer() },
  );
}
