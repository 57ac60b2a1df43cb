import 'server-only';
import { eq } from 'drizzle-orm';
import { PARTS, partsOf, type Part } from '@/core/verdict/parts';
import type { Database } from '@/db/client';
import { findHistoryEntry } from '@/db/queries/bench';
import { findSettings, findSettingValuesAt, ownersOf } from '@/db/queries/settings';
import { findSetup } from '@/db/queries/shop';
import { fit } from '@/db/schema/calibration';
import { settingValueWords } from './words';

export interface ComparedPart {
  readonly part: Part;
  /** As it was left; null where the entry was not confirmed. */
  readonly one: number | null;
  readonly other: number | null;
  /** Other less one, with the standard uncertainty of the difference. */
  readonly difference: { readonly value: number; readonly standardUncertainty: number } | null;
}

export interface Comparison {
  readonly entries: readonly {
    readonly id: string;
    readonly at: Date;
    readonly setupName: string;
    readonly materialName: string;
  }[];
  readonly parts: readonly ComparedPart[];
  /** What the display showed at each; only where both are of the same cutter. */
  readonly settings: readonly {
    readonly name: string;
    readonly one: string;
    readonly other: string;
    readonly isSame: boolean;
  }[];
}

type HistoryRow = NonNullable<Awaited<ReturnType<typeof findHistoryEntry>>>;

/** The error as an entry left it, part by part. */
async function partsLeft(database: Database, row: HistoryRow) {
  if (!row.confirmation) return null;
  const [found] = await database.select().from(fit).where(eq(fit.id, row.confirmation.fitId));
  return found ? partsOf(found.parameters, found.covariance) : null;
}

function comparedParts(one: ReturnType<typeof partsOf>, other: ReturnType<typeof partsOf>): readonly ComparedPart[] {
  return PARTS.map((part) => {
    const [a, b] = [one?.[part], other?.[part]];
    return {
      ...{ part, one: a?.value ?? null, other: b?.value ?? null },
      difference:
        a && b
          ? { value: b.value - a.value, standardUncertainty: Math.hypot(a.standardUncertainty, b.standardUncertainty) }
          : null,
    };
  });
}

async function comparedSettings(database: Database, [one, other]: readonly [HistoryRow, HistoryRow]) {
  const [first, second] = [
    await findSetup(database, one.entry.setupId),
    await findSetup(database, other.entry.setupId),
  ];
  if (!first || first.cutter.id !== second?.cutter.id) return [];
  const settings = await findSettings(database, ownersOf(first), { x: 0, y: 0 });
  const ids = settings.map((s) => s.id);
  const [then, later] = [
    await findSettingValuesAt(database, ids, one.entry.at),
    await findSettingValuesAt(database, ids, other.entry.at),
  ];
  return settings.map((s) => {
    const [a, b] = [then.get(s.id), later.get(s.id)];
    const words = (v: number | undefined): string => (v === undefined ? '\u2013' : settingValueWords(s, v));
    return { name: s.displayName, one: words(a), other: words(b), isSame: a === b };
  });
}

/** Two entries of the history side by side: the error as each left it, their difference, and what the display showed. */
export async function compareEntries(database: Database, oneId: string, otherId: string): Promise<Comparison | null> {
  const [one, other] = [await findHistoryEntry(database, oneId), await findHistoryEntry(database, otherId)];
  if (!one || !other) return null;
  const [left, right] = [await partsLeft(database, one), await partsLeft(database, other)];
  return {
    entries: [one, other].map(({ entry, setupName, materialName }) => ({
      ...{ id: entry.id, at: entry.at, setupName, materialName },
    })),
    parts: comparedParts(left, right),
    settings: await comparedSettings(database, [one, other]),
  };
}
