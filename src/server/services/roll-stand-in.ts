import 'server-only';
import { randomUUID } from 'node:crypto';
import { StoredSettings, StoredTruth } from '@/contracts/stored';
import { identity, inverseOf, then, type Affine } from '@/core/geometry/affine';
import { seededRng, seedFrom } from '@/core/math/random';
import { fail, ok, type Result } from '@/core/result';
import { settingMap, type MachineSetting } from '@/core/setting/machine-setting';
import { standInReadings, type RollTruth } from '@/core/simulate/simulated-roll';
import { slotName } from '@/core/target/roll-strip';
import type { Database } from '@/db/client';
import { countRollsBefore, findRoll, findStationReadings } from '@/db/queries/roll';
import { findSettings, ownersOf } from '@/db/queries/settings';
import { findSetup, findTruth } from '@/db/queries/shop';
import { refusal, type Actor, type Refusal } from './actor';
import { figuresOf, holdRoll, writeStation, type RollFigure, type RollRow } from './rolls';

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
    ...{ slipMm: 0.025, rewindMm: 0, readingMm: 0.03 },
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

/** What the stand-in machine made of everything that can be read of a roll. */
async function standInValues(database: Database, roll: RollRow, figures: readonly RollFigure[]) {
  const found = await findSetup(database, roll.setupId);
  const stored = await findTruth(database, roll.setupId);
  if (!found || !stored) return null;
  const truth = StoredTruth.parse(stored.truth);
  const settings = await findSettings(database, ownersOf(found), { x: 0, y: 0 });
  const rollNo = await countRollsBefore(database, roll);
  const known = settings.map((s) => ({ ...s, sense: s.sense ?? truth.senses[s.id] ?? 1 }));
  const map = settingsSince(known, StoredSettings.parse(roll.settingsSnapshot), truth.baseValues);
  const rng = seededRng(seedFrom(stored.seed, 'roll', rollNo));
  return standInReadings(figures, rollTruthOf(truth, stored.seed), map, rng);
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
  const found = await findRoll(database, rollId);
  if (!found) return fail(refusal('This roll is not there any more.'));
  const { roll } = found;
  const figures = figuresOf(roll);
  const values = await standInValues(database, roll, figures);
  if (!values) return fail(refusal('This setup has a real machine: read the roll itself.'));
  if (roll.state === 'ended') return fail(refusal('This roll was closed: its readings stand as they are.'));
  return database.transaction(async (session) => {
    await holdRoll(session, rollId);
    const done = new Set((await findStationReadings(session, rollId)).map(slotName));
    const open = figures.flatMap((figure, i) =>
      done.has(slotName(figure)) ? [] : [{ figure, valueMm: values[i] ?? 0 }],
    );
    const due = roll.kind === 'strip' ? open : open.filter((o) => o.figure.stationNo === open[0]?.figure.stationNo);
    for (const { figure, valueMm } of due)
      await writeStation(session, actor, roll, {
        ...{ id: randomUUID(), rollId, stationNo: figure.stationNo, side: figure.side, axis: figure.axis },
        ...{ method: 'stand_in', state: 'read', readingMm: Number(valueMm.toFixed(2)) },
      });
    return ok(due.length);
  });
}
