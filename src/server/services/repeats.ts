import 'server-only';
import { MOST_LOOKS } from '@/contracts/inputs';
import {
  assumedLookSd,
  combineLooks,
  ENOUGH_DEGREES,
  lookSd,
  looksUncertainty,
  repeatabilityOf,
  type CombinedLooks,
  type FigureLook,
  type Repeatability,
} from '@/core/reading/repeats';
import { isFine, type ReadingMethod } from '@/core/reading/methods';
import type { ReadingConditions } from '@/core/reading/uncertainty';
import { formatFine, formatLength, type UnitSystem } from '@/core/units/length';
import { looksOf, mainMethod } from './looks';
import { conditionsOf } from './readings';
import { currentSets, type CalibrationRecord, type CutSet } from './record';

type ReadingRow = CalibrationRecord['readings'][number];

/** One figure of a set with everything that was read of it. */
export interface FigureLooks {
  /** The first look that was read: the figure is known by it. */
  readonly row: ReadingRow;
  readonly looks: readonly FigureLook[];
  readonly combined: CombinedLooks;
  readonly standardUncertaintyMm: number;
  /** The first look that was not read yet; null after the last. */
  readonly freeLook: number | null;
}

/** The first look at a figure that none of these readings is. */
function freeLookOf(rows: readonly ReadingRow[]): number | null {
  for (let look = 1; look <= MOST_LOOKS; look++) if (!rows.some((r) => r.repeatNo === look)) return look;
  return null;
}

/** How far looks at one kind of figure scatter: assumed, and known from repeats. */
interface Scatter {
  readonly conditions: ReadingConditions;
  readonly known: Repeatability | null;
}

/** All figures with their looks; the scatter is that of the figures the sheet is first of all read by. */
export interface Repeats extends Scatter {
  readonly figures: readonly FigureLooks[];
}

const slotOf = (r: ReadingRow): string => `${r.cutSetId} ${r.method} ${r.spotNo} ${r.axis}`;

/** Looks at each figure of some sets taken together, with the scatter that they themselves show. */
export function repeatsOf(record: CalibrationRecord, sets: readonly CutSet[]): Repeats {
  const isOwn = (r: ReadingRow): boolean => sets.some((s) => s.id === r.cutSetId);
  const bySlot = new Map<string, ReadingRow[]>();
  for (const row of [...record.readings, ...record.repeats]) {
    if (row.state !== 'read' || !isFine(row.method) || !isOwn(row)) continue;
    bySlot.set(slotOf(row), [...(bySlot.get(slotOf(row)) ?? []), row]);
  }
  const slots = [...bySlot.values()].map((rows) => ({
    row: rows[0] as ReadingRow,
    freeLook: freeLookOf(rows),
    looks: rows.map((r): FigureLook => ({ id: r.id, valueMm: r.readingMm ?? 0 })),
  }));
  const scatterOf = (method: ReadingMethod): Scatter => {
    const conditions = conditionsOf({ setupRow: record.setupRow, route: record.calibration.route }, method);
    const own = slots.filter((s) => s.row.method === method).map((s) => s.looks);
    return { conditions, known: repeatabilityOf(own, assumedLookSd(conditions)) };
  };
  const scatters = new Map([...new Set(slots.map((s) => s.row.method))].map((m) => [m, scatterOf(m)]));
  const figures = slots.map(({ row, looks, freeLook }): FigureLooks => {
    const { conditions, known } = scatters.get(row.method) ?? scatterOf(row.method);
    const combined = combineLooks(looks, lookSd(conditions, known));
    // A single look keeps the doubt it was written down with.
    const isPlain = looks.length === 1 && (known?.degrees ?? 0) < ENOUGH_DEGREES;
    const stated = isPlain ? row.standardUncertaintyMm : null;
    const standardUncertaintyMm = stated ?? looksUncertainty(conditions, known, combined);
    return { row, looks, combined, standardUncertaintyMm, freeLook };
  });
  return { figures, ...scatterOf(mainMethod(record)) };
}

/** What to tell of one figure whose looks contradict each other. */
export interface LooksNote {
  readonly words: string;
  readonly spotNo: number;
  readonly axis: string;
  /** The look to make next; null where there have been enough. */
  readonly nextLook: number | null;
}

const ANOTHER = ['', 'A second', 'A third', 'A fourth'];

function noteOf({ row, looks, combined, freeLook: nextLook }: FigureLooks, system: UnitSystem): LooksNote | null {
  const { spotNo, axis } = row;
  const mm = (value: number): string => formatLength(value, system, true);
  const place = `Spot ${spotNo} ${axis}`;
  if (combined.disputeMm > 0) {
    const seen = looks.map((l) => mm(l.valueMm)).join(' and ');
    const then = nextLook ? ` ${ANOTHER[looks.length] ?? 'Another'} look tells which is wrong.` : '';
    return { words: `${place} was seen at ${seen}: they contradict each other.${then}`, spotNo, axis, nextLook };
  }
  const odd = looks.filter((l) => combined.oddIds.includes(l.id)).map((l) => mm(l.valueMm));
  if (odd.length === 0) return null;
  return {
    words: `${place}: ${odd.join(', ')} is the odd one of ${looks.length} looks and is left out.`,
    spotNo,
    axis,
    nextLook: null,
  };
}

export interface RepeatsView {
  /** How steady the eye is, in words; null before anything was looked at twice. */
  readonly steadiness: string | null;
  readonly notes: readonly LooksNote[];
  /** The round of looks that is begun or comes next; null after the last. */
  readonly nextLook: number | null;
}

const plural = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;

function steadinessWords(known: Repeatability, conditions: ReadingConditions, system: UnitSystem): string {
  // A scatter is finer than the lengths that are shown elsewhere.
  const mm = (value: number): string => formatFine(value, system);
  const found = `Looks at the same figure scatter by ${mm(known.sdMm)} (95 %: ${mm(known.lowerMm)} to ${mm(known.upperMm)}, from ${plural(known.degrees, 'repeat')}).`;
  return known.degrees >= ENOUGH_DEGREES
    ? `${found} Verdicts now use it instead of the usual ${formatFine(assumedLookSd(conditions), system)}.`
    : `${found} After ${ENOUGH_DEGREES} repeats verdicts use it instead of the usual ${formatFine(assumedLookSd(conditions), system)}.`;
}

/** What the repeats of a calibration's current sets say, and which round of looks comes next. */
export function repeatsView(record: CalibrationRecord, system: UnitSystem): RepeatsView {
  const sets = currentSets(record);
  const { figures, known, conditions } = repeatsOf(record, sets);
  const last = sets.at(-1);
  const method = mainMethod(record);
  const own = record.repeats.filter((r) => r.cutSetId === last?.id && r.method === method);
  const answered = (look: number): number => own.filter((r) => r.repeatNo === look).length;
  const all = last ? looksOf(record, last).length : 0;
  let nextLook = 2;
  while (nextLook <= MOST_LOOKS && answered(nextLook) >= all) nextLook += 1;
  return {
    steadiness: known && steadinessWords(known, conditions, system),
    notes: figures.flatMap((f) => noteOf(f, system) ?? []),
    nextLook: nextLook <= MOST_LOOKS ? nextLook : null,
  };
}
