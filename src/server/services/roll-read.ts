import 'server-only';
import { SectionWork } from '@/contracts/rolls';
import { z } from 'zod';
import { rollErrorOf } from '@/core/cutting/roll-move';
import { adviseRun, type RunAdvice } from '@/core/drift/run-advice';
import { rollDrift, type StationValue } from '@/core/drift/roll-drift';
import { slotName } from '@/core/target/roll-strip';
import type { Session } from '@/db/client';
import { findRoll, findRolls, findStationReadings, type StationReadingRow } from '@/db/queries/roll';
import { findMaterials, findSetup, findTruth, type SetupRow } from '@/db/queries/shop';
import { figuresOf, placeOf, type RollFigure, type RollRow } from './rolls';

/** One stretch of a roll with everything that its pages need. */
export interface RollRecord {
  readonly roll: RollRow;
  readonly setupRow: SetupRow;
  readonly materialName: string;
  readonly startedByName: string;
  /** All that can be read of it, the nearest to the leading edge first. */
  readonly figures: readonly RollFigure[];
  /** The newest reading of every figure, by its name. */
  readonly readings: ReadonlyMap<string, StationReadingRow>;
  readonly values: readonly StationValue[];
  readonly isSimulated: boolean;
  readonly work: SectionWork | null;
}

export async function loadRoll(session: Session, id: string): Promise<RollRecord | null> {
  const found = await findRoll(session, id);
  const setupRow = found ? await findSetup(session, found.roll.setupId) : undefined;
  if (!found || !setupRow) return null;
  const { roll } = found;
  const rows = await findStationReadings(session, id);
  const work = SectionWork.safeParse(roll.sectionWork);
  return {
    roll,
    setupRow,
    materialName: found.material.name,
    startedByName: found.startedByName,
    figures: figuresOf(roll),
    readings: new Map(rows.map((row) => [slotName(row), row])),
    values: rows.flatMap((row): readonly StationValue[] => {
      if (row.displacementMm === null) return [];
      const { x, y } = placeOf(roll, row);
      return [{ axis: row.axis, atMm: y, asideMm: x, valueMm: row.displacementMm }];
    }),
    isSimulated: (await findTruth(session, roll.setupId)) !== undefined,
    work: work.success ? work.data : null,
  };
}

/** Where the roll ends, mm from its leading edge. */
export const rollEndMm = ({ spacingMm, stations }: RollRow): number => spacingMm * stations;

/** What is told while a run goes on. */
export function adviceOf({ roll, values, figures, readings }: RollRecord): RunAdvice {
  const lastMm = values.reduce((most, { atMm }) => Math.max(most, atMm), 0);
  const nextMm = lastMm + roll.spacingMm * (roll.kind === 'run' ? roll.everyNth : 1);
  const isOver = figures.every((figure) => readings.has(slotName(figure)));
  const endMm = Math.max(nextMm, rollEndMm(roll));
  return adviseRun({ values, toleranceMm: roll.toleranceMm, nextMm, endMm, isOver });
}

/** What a setup's rolls page begins with. */
export async function readRolls(session: Session, setupId: string) {
  const row = await findSetup(session, setupId);
  if (!row) return null;
  const [rolls, materials] = await Promise.all([findRolls(session, setupId), findMaterials(session, row.setup.shopId)]);
  const onRolls = materials.filter((m) => m.form === 'roll');
  return {
    setupName: row.setup.name,
    toleranceMm: row.setup.toleranceMm,
    pageWidthMm: row.printMode.pageWidthMm,
    rolls,
    materials: (onRolls.length > 0 ? onRolls : materials).map((m) => ({
      ...{ id: m.id, name: m.name, finish: m.finish, printableWidthMm: m.printableWidthMm },
    })),
    isSimulated: (await findTruth(session, setupId)) !== undefined,
  };
}
export type RollsView = NonNullable<Awaited<ReturnType<typeof readRolls>>>;

/** Steady drift of one of a setup's rolls, to correct a cut file by; null where there is none. */
export async function rollError(session: Session, setupId: string, rollId: string | undefined) {
  const record = rollId !== undefined && z.uuid().safeParse(rollId).success ? await loadRoll(session, rollId) : null;
  if (record?.roll.setupId !== setupId) return null;
  const drift = rollDrift(record.values);
  if (!drift.ok) return null;
  return { error: rollErrorOf(drift.value), at: record.roll.startedAt, lengthMm: drift.value.lengthMm };
}
