import 'server-only';
import { randomUUID } from 'node:crypto';
import { StoredSettings, StoredTruth } from '@/contracts/stored';
import { identity, inverseOf, then, type Affine } from '@/core/geometry/affine';
import { seededRng, seedFrom } from '@/core/math/random';
import { fail, ok, type Result } from '@/core/result';
import { settingMap, type MachineSetting } from '@/core/setting/machine-setting';
import { standInReadings, type RollTruth } from '@/core/simulate/simulated-roll';
import { slotName } from '@/core/target/roll-strip';
import { stationDiscs } from '@/core/target/station-disc';
import { AXES } from '@/core/target/wedge';
import type { Database } from '@/db/client';
import { countRollsBefore, findRoll, findStationReadings } from '@/db/queries/roll';
import { findSettings, ownersOf } from '@/db/queries/settings';
import { findSetup, findTruth } from '@/db/queries/shop';
import { refusal, type Actor, type Refusal } from './actor';
import { figuresOf, lockRoll, stripOf, writeStation, type RollFigure, type RollRow } from './rolls';
import { strangerTo } from './own-shop';

/** What a setup's stand-in does on a roll: its sheet error, and drift drawn once from its own seed. */
function rollTruthOf({ machineError }: StoredTruth, seed: number): RollTruth {
  const rng = seededRng(seedFrom(seed, 'roll'));
  const either = (mm: number): number => (2 * rng() - 1) * mm;
  return {
    shiftAcrossMm: machineError.offsetAcrossMm,
    shiftAlongMm: machineError.offsetAlongMm,
    feedMmPerMetre: 1000 * machineError.scaleAlong + 0.25 + 0.2 * rng(),
    walkMmPerMetre: either(0.02),
    bow: either(0.004),
    turnRad: machineError.rotationRad,
    ...{ slipMm: 0.025, rewindMm: 0, readingMm: 0.03, scatterMm: 0.008 },
  };
}

type Values = Readonly<Record<string, number>>;

/** What settings do to a cut since the truth was told. */
function settingsSince(settings: readonly MachineSetting[], values: Values, base: Values): Affine {
  const product = (of: Values): Affine<'machine', 'machine'> =>
    settings.reduce(
      (map, s) => then(map, settingMap({ ...s, pivot: { x: 0, y: 0 } }, of[s.id] ?? s.value)),
      identity<'machine'>(),
    );
  return then(inverseOf(product(base)), product(values)) as unknown as Affine;
}

/** A figure, or one way of a disc that is laid on the glass. */
interface StandInFigure extends RollFigure {
  readonly isPictured: boolean;
}

/** Everything that a roll carries, the nearest to the leading edge first: whatever is looked at first, it slipped but once. */
function everythingOf(roll: RollRow): readonly StandInFigure[] {
  const strip = stripOf(roll);
  const discs = Array.from({ length: strip.hasDiscs ? strip.stations : 0 }, (_, i) =>
    stationDiscs(strip, i + 1),
  ).flat();
  const figures = [
    ...figuresOf(roll).map((figure) => ({ ...figure, isPictured: false })),
    ...discs.flatMap(({ stationNo, side, centre }) =>
      AXES.map((axis) => ({ stationNo, side, axis, middle: centre, isPictured: true })),
    ),
  ];
  return figures.sort((a, b) => a.middle.y - b.middle.y);
}

interface StandInValue extends StandInFigure {
  readonly valueMm: number;
}

/** What the stand-in machine made of everything on a roll; null where the machine is a real one. */
export async function standInValues(database: Database, roll: RollRow): Promise<readonly StandInValue[] | null> {
  const found = await findSetup(database, roll.setupId);
  const stored = await findTruth(database, roll.setupId);
  if (!found || !stored) return null;
  const truth = StoredTruth.parse(stored.truth);
  const settings = await findSettings(database, ownersOf(found), { x: 0, y: 0 });
  const rollNo = await countRollsBefore(database, roll);
  const known = settings.map((s) => ({ ...s, sense: s.sense ?? truth.senses[s.id] ?? 1 }));
  const map = settingsSince(known, StoredSettings.parse(roll.settingsSnapshot), truth.baseValues);
  const rng = seededRng(seedFrom(stored.seed, 'roll', rollNo));
  const figures = everythingOf(roll);
  const values = standInReadings(figures, rollTruthOf(truth, stored.seed), map, rng);
  return figures.map((figure, i) => ({ ...figure, valueMm: values[i] ?? 0 }));
}

/**
 * Lets the stand-in read a simulated roll: all of a strip that is still open, or of a run the next piece that is due.
 * @returns how many figures it read.
 */
export async function readByStandIn(
  database: Database,
  actor: Actor,
  rollId: string,
): Promise<Result<number, Refusal>> {
  const stranger = await strangerTo(database, actor, { rollId });
  if (stranger) return fail(stranger);
  const found = await findRoll(database, rollId);
  if (!found) return fail(refusal('This roll is not there any more.'));
  const { roll } = found;
  const values = await standInValues(database, roll);
  if (!values) return fail(refusal('This setup has a real machine: read the roll itself.'));
  return database.transaction(async (session) => {
    if ((await lockRoll(session, rollId)) !== 'open')
      return fail(refusal('This roll is closed. Reopen it to add readings.'));
    const done = new Set((await findStationReadings(session, rollId)).map(slotName));
    const open = values.filter((value) => !value.isPictured && !done.has(slotName(value)));
    const due = roll.kind === 'strip' ? open : open.filter((o) => o.stationNo === open[0]?.stationNo);
    for (const { stationNo, side, axis, valueMm } of due)
      await writeStation(session, actor, roll, {
        ...{ id: randomUUID(), rollId, stationNo, side, axis },
        ...{ method: 'stand_in', state: 'read', readingMm: Number(valueMm.toFixed(2)) },
      });
    return ok(due.length);
  });
}
