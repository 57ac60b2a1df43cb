import 'server-only';
import type { TurnDeg } from '@/core/geometry/load';
import { seededRng, seedFrom } from '@/core/math/random';
import { fail, ok, type Result } from '@/core/result';
import { slotName } from '@/core/target/roll-strip';
import type { Database } from '@/db/client';
import { findRoll } from '@/db/queries/roll';
import { GLASS_MM, piecesFrom, piecesOnGlass } from '../standins/roll-glass';
import { scanSheet } from '../standins/scanner';
import { refusal, type Refusal } from './actor';
import { standInValues } from './roll-stand-in';
import { stripOf } from './rolls';

export interface PiecesOrder {
  readonly firstNo: number;
  /** How the pieces lie on the glass. */
  readonly turnDeg: Extract<TurnDeg, 0 | 180>;
}

/** What the stand-in scanner makes of a simulated roll's pieces: a gray PNG at 300 dpi. */
export async function scanPieces(
  database: Database,
  rollId: string,
  { firstNo, turnDeg }: PiecesOrder,
): Promise<Result<Buffer, Refusal>> {
  const found = await findRoll(database, rollId);
  if (!found) return fail(refusal('This roll is not there any more.'));
  const { roll } = found;
  const strip = stripOf(roll);
  if (!strip.hasDiscs) return fail(refusal('This roll has no discs that could be scanned.'));
  const values = await standInValues(database, roll);
  if (!values) return fail(refusal('This setup has a real machine: scan the pieces themselves.'));
  const pieces = piecesFrom(strip, firstNo);
  if (pieces.length === 0) return fail(refusal(`There is no station ${firstNo}: the last one is ${strip.stations}.`));
  const cutOffs = new Map(values.filter((v) => v.isPictured).map((v) => [slotName(v), v.valueMm]));
  const seed = seedFrom(roll.id, 'glass', firstNo, turnDeg);
  const picture = piecesOnGlass(strip, pieces, { cutOffs, isTurned: turnDeg === 180 }, seededRng(seed));
  return ok(
    await scanSheet(picture, {
      ...{ device: 'scanner', dotsPerInch: 300, turnDeg: 0, seed, pageMm: GLASS_MM },
      ...{ condition: 'clean', cutLine: 'weeded', isLifted: false, face: 'front' },
    }),
  );
}
