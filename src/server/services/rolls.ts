import 'server-only';
import { eq } from 'drizzle-orm';
import type { RuledLengthInput, SaveStationInput, SectionWork, StartRollInput } from '@/contracts/rolls';
import { fail, ok, type Result } from '@/core/result';
import type { Point } from '@/core/geometry/affine';
import type { RollPlace } from '@/core/simulate/simulated-roll';
import {
  leastWidthMm,
  stationAtMm,
  stripFigureOf,
  stripFigures,
  type RollStrip,
  type StripSide,
} from '@/core/target/roll-strip';
import { stationDiscOf } from '@/core/target/station-disc';
import { AXES, WEDGE_REACH_MM } from '@/core/target/wedge';
import type { Database, Session } from '@/db/client';
import { findRoll, findStationReading, findStationSlot } from '@/db/queries/roll';
import { findSettings, ownersOf } from '@/db/queries/settings';
import { findMaterials, findSetup } from '@/db/queries/shop';
import { rollRun, stationReading } from '@/db/schema/roll';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { strangerTo } from './own-shop';
import { readingScaleOf } from './reading-scale-of';

export type RollRow = NonNullable<Awaited<ReturnType<typeof findRoll>>>['roll'];

/** The strip that a stretch of a roll carries; of a run, its pieces. */
export const stripOf = ({ widthMm, spacingMm, stations, sides, form, hasDiscs, scale }: RollRow): RollStrip => ({
  ...{ widthMm, spacingMm, stations, sides, form, hasDiscs, scale },
});

type Method = SaveStationInput['method'] | 'stand_in';

/** A thing of a roll that can be read: a figure of a strip, or an edge of a piece of a run. */
export interface RollFigure extends RollPlace {
  readonly stationNo: number;
  readonly side: StripSide;
}

/** Pieces of a run that are looked at: the first, and every nth after it. */
const looksOf = ({ stations, everyNth }: RollRow): readonly number[] =>
  Array.from({ length: Math.ceil(stations / everyNth) }, (_, i) => 1 + i * everyNth);

/** Everything of a roll that can be read, the nearest to the leading edge first. */
export function figuresOf(roll: RollRow): readonly RollFigure[] {
  const strip = stripOf(roll);
  if (roll.kind === 'strip') return stripFigures(strip);
  return looksOf(roll).flatMap((stationNo) =>
    roll.sides.flatMap((side) =>
      AXES.map((axis) => ({ stationNo, side, axis, middle: placeOf(roll, { stationNo, side, axis }) })),
    ),
  );
}

/** Where a reading's figure stands: its wedge, or the disc that was scanned; a piece of a run by its own middle, its left and right edges. */
export function placeOf(
  roll: RollRow,
  slot: Pick<RollFigure, 'stationNo' | 'side' | 'axis'> & { readonly method?: Method },
): Point {
  if (slot.method === 'scan') return stationDiscOf(stripOf(roll), slot).centre;
  const figure = roll.kind === 'strip' ? stripFigureOf(stripOf(roll), slot) : undefined;
  if (figure) return figure.middle;
  const sign = { left: -1, centre: 0, right: 1 }[slot.side];
  return { x: (sign * roll.widthMm) / 2, y: stationAtMm(roll, slot.stationNo) };
}

const GONE = 'This roll is not there any more.';

/** Begins a test strip, or the log of a run. The id comes from the client: begun twice is begun once. */
export async function startRoll(
  database: Database,
  actor: Actor,
  input: StartRollInput,
): Promise<Result<string, Refusal>> {
  const stranger = await strangerTo(database, actor, { setupId: input.setupId, materialId: input.materialId });
  if (stranger) return fail(stranger);
  if (await findRoll(database, input.id)) return ok(input.id);
  const found = await findSetup(database, input.setupId);
  if (!found) return fail(refusal('This printer + cutter is not there any more.'));
  const materials = await findMaterials(database, found.setup.shopId);
  if (!materials.some((m) => m.id === input.materialId)) return fail(refusal('Choose the material first.'));
  const neededMm = leastWidthMm(input.sides);
  if (input.kind === 'strip' && input.widthMm < neededMm + 2)
    return fail(
      refusal(
        `${input.widthMm} mm is too narrow for figures at ${input.sides.length} places: at least ${neededMm + 2} mm, or fewer places.`,
      ),
    );
  const settings = await findSettings(database, ownersOf(found), { x: 0, y: 0 });
  await database.insert(rollRun).values({
    ...input,
    hasDiscs: input.kind === 'strip',
    scale: await readingScaleOf(database, actor),
    settingsSnapshot: Object.fromEntries(settings.map((s) => [s.id, s.value])),
    state: 'open',
    startedAt: now(),
    startedBy: actor.personId,
  });
  return ok(input.id);
}

/** Why a reading cannot belong to this stretch; null when it can: one that waited in a browser is taken after the roll was closed, too. */
function problemWith(roll: RollRow, input: SaveStationInput): string | null {
  const name = `Station ${input.stationNo} ${input.side}`;
  if (input.stationNo > roll.stations) return `${name}: there are ${roll.stations} only.`;
  if (!roll.sides.includes(input.side)) return `${name}: nothing was printed there.`;
  if (input.method === 'scan' && !roll.hasDiscs) return `${name}: this roll has no discs that could be scanned.`;
  const { readingMm } = input;
  if (input.method === 'eye' && readingMm !== null && Math.abs(readingMm) > WEDGE_REACH_MM)
    return `${name}: ${readingMm.toFixed(2)} mm is beyond the figure, which shows ${WEDGE_REACH_MM} mm to either side.`;
  return null;
}

/** What was matched, and the ink's own displacement; a list tells what the cut is off by itself. */
function displacementOf(roll: RollRow, input: SaveStationInput): number | null {
  if (input.readingMm === null) return null;
  const dither = input.method === 'eye' && roll.kind === 'strip' ? stripFigureOf(stripOf(roll), input)?.ditherMm : 0;
  return input.readingMm + (dither ?? 0);
}

/** Writes one reading in a transaction that holds its roll. @returns the value that it supersedes. */
export async function writeStation(
  session: Session,
  actor: Actor,
  roll: RollRow,
  input: Omit<SaveStationInput, 'method'> & { readonly method: Method },
): Promise<number | null> {
  const { id, rollId, stationNo, side, axis, method, state, readingMm } = input;
  const last = await findStationSlot(session, input);
  await session.insert(stationReading).values({
    ...{ id, stationNo, side, axis, method, state, readingMm },
    rollRunId: rollId,
    seq: (last?.seq ?? 0) + 1,
    supersedesId: last?.id ?? null,
    displacementMm: method === 'stand_in' ? readingMm : displacementOf(roll, { ...input, method }),
    readAt: now(),
    readBy: actor.personId,
  });
  return last?.readingMm ?? null;
}

/** Locks a roll's row for the rest of the transaction: one writer at a time. @returns its state under the lock */
export async function lockRoll(session: Session, rollId: string): Promise<RollRow['state'] | undefined> {
  const [row] = await session
    .select({ state: rollRun.state })
    .from(rollRun)
    .where(eq(rollRun.id, rollId))
    .for('update');
  return row?.state;
}

export interface SavedStation {
  readonly id: string;
  readonly earlierMm: number | null;
}

/**
 * Keeps readings of one roll, all of them or none; those that are there already are left as they are. A closed roll takes them too:
 * one that waited in a browser is not lost because somebody closed the roll meanwhile.
 */
export async function saveStations(
  database: Database,
  actor: Actor,
  inputs: readonly SaveStationInput[],
): Promise<Result<readonly SavedStation[], Refusal>> {
  const stranger = await strangerTo(database, actor, { rollId: inputs[0]?.rollId });
  if (stranger) return fail(stranger);
  const rollId = inputs[0]?.rollId ?? '';
  const found = await findRoll(database, rollId);
  if (!found) return fail(refusal(GONE));
  for (const input of inputs) {
    if (input.rollId !== rollId) return fail(refusal('These readings belong to more than one roll.'));
    const problem = problemWith(found.roll, input);
    if (problem) return fail(refusal(problem));
  }
  return database.transaction(async (session) => {
    await lockRoll(session, rollId);
    const saved: SavedStation[] = [];
    for (const input of inputs) {
      const known = await findStationReading(session, input.id);
      const earlierMm = known ? null : await writeStation(session, actor, found.roll, input);
      saved.push({ id: input.id, earlierMm });
    }
    return ok(saved);
  });
}

/** Closes a roll, or opens it again: nothing of it is lost either way. */
export async function closeRoll(
  database: Database,
  rollId: string,
  isClosed: boolean,
): Promise<Result<string, Refusal>> {
  const changed = await database
    .update(rollRun)
    .set({ state: isClosed ? 'ended' : 'open', endedAt: isClosed ? now() : null })
    .where(eq(rollRun.id, rollId))
    .returning({ id: rollRun.id });
  return changed.length > 0 ? ok(rollId) : fail(refusal(GONE));
}

/** Furthest that a print may be from its length before a wrong length was looked at. */
const MOST_STRETCH = 0.03;

/** Keeps what a rule says of the print's own length. */
export async function keepRuled(
  database: Database,
  { rollId, nominalMm, measuredMm, laminatedMm }: RuledLengthInput,
): Promise<Result<string, Refusal>> {
  const far = [measuredMm, laminatedMm ?? measuredMm].find((mm) => Math.abs(mm / nominalMm - 1) > MOST_STRETCH);
  if (far !== undefined)
    return fail(refusal(`${far} mm is far from ${nominalMm} mm: measure between the same two lines.`));
  const changed = await database
    .update(rollRun)
    .set({ ruledNominalMm: nominalMm, ruledMm: measuredMm, ruledLaminatedMm: laminatedMm })
    .where(eq(rollRun.id, rollId))
    .returning({ id: rollRun.id });
  return changed.length > 0 ? ok(rollId) : fail(refusal(GONE));
}

/** Keeps what sections were asked for, so that it stands there again. */
export async function keepSectionWork(
  database: Database,
  rollId: string,
  work: SectionWork,
): Promise<Result<string, Refusal>> {
  const changed = await database
    .update(rollRun)
    .set({ sectionWork: work })
    .where(eq(rollRun.id, rollId))
    .returning({ id: rollRun.id });
  return changed.length > 0 ? ok(rollId) : fail(refusal(GONE));
}
