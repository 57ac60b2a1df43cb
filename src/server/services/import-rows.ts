import 'server-only';
import { v5 as namedUuid } from 'uuid';
import { KeepDailyCheck } from '@/contracts/trust';
import { KeepTestCut } from '@/contracts/floor';
import type { ImportKind } from '@/contracts/import';
import { MaterialFields } from '@/contracts/shop';
import { BORDER_CALIPER_SD_MM, readBorders } from '@/core/reading/borders';
import type { SetupRow } from '@/db/queries/shop';
import type { testCut } from '@/db/schema/floor';
import type { material } from '@/db/schema/shop';
import type { dailyCheck } from '@/db/schema/trust';
import type { TableLine, TableProblem } from '@/formats/csv/read-table';

/** What stands in the shop, by the names that a table may say. */
export interface ImportPlace {
  readonly shopId: string;
  readonly personId: string;
  readonly now: Date;
  readonly setups: readonly SetupRow[];
  readonly materials: readonly { readonly id: string; readonly name: string }[];
}

export type ImportRow =
  | { readonly what: 'daily-checks'; readonly value: typeof dailyCheck.$inferInsert }
  | { readonly what: 'test-cuts'; readonly value: typeof testCut.$inferInsert }
  | { readonly what: 'materials'; readonly value: typeof material.$inferInsert };

export type MadeRow = { readonly row: ImportRow } | { readonly problem: Omit<TableProblem, 'line'> };

const problem = (field: string, words: string): MadeRow => ({ problem: { field, words } });
const same = (a: string, b: unknown): boolean => typeof b === 'string' && a.toLowerCase() === b.toLowerCase();

/** The same line twice is the same row: its id is made of what tells it apart. */
const idOf = (place: ImportPlace, ...parts: readonly unknown[]): string => namedUuid(parts.join('\n'), place.shopId);

interface Issues {
  readonly issues: readonly { readonly path: readonly PropertyKey[]; readonly message: string }[];
}
const wrong = ({ issues }: Issues): MadeRow =>
  problem(String(issues[0]?.path.at(-1) ?? 'line'), `Expected ${issues[0]?.message ?? 'another value'}.`);

/** The moment, and the material that the line names; or what is wrong with them. */
function whenAndWhat(place: ImportPlace, { values }: TableLine) {
  const at = new Date(Number(values.at));
  if (at > place.now) return problem('at', 'That day has not come yet.');
  const found = place.materials.find((m) => same(m.name, values.material));
  if (!found) return problem('material', `No material here is called "${String(values.material)}".`);
  return { at, materialId: found.id };
}

function dailyRow(place: ImportPlace, line: TableLine): MadeRow {
  const { values } = line;
  const known = whenAndWhat(place, line);
  if (!('at' in known)) return known;
  const found = place.setups.find((s) => same(s.setup.name, values.setup));
  if (!found) return problem('printer + cutter', `No printer + cutter here is called "${String(values.setup)}".`);
  const { leftMm, rightMm, topMm, bottomMm } = values;
  const parsed = KeepDailyCheck.safeParse({
    id: idOf(
      place,
      'daily',
      found.setup.id,
      known.materialId,
      known.at.toISOString(),
      leftMm,
      rightMm,
      topMm,
      bottomMm,
    ),
    ...{
      setupId: found.setup.id,
      materialId: known.materialId,
      method: values.method ?? 'hand',
      side: values.side ?? 'outside',
    },
    ...{ borders: { leftMm, rightMm, topMm, bottomMm }, borderSdMm: BORDER_CALIPER_SD_MM, note: values.note ?? '' },
  });
  if (!parsed.success) return wrong(parsed.error);
  const { borders, ...rest } = parsed.data;
  const read = readBorders(borders, { ...rest, nominalMm: null, toleranceMm: found.setup.toleranceMm });
  if (!read.ok) return problem(read.error.side, 'A border is zero or more.');
  const { shift, standardUncertaintyMm } = read.value;
  return {
    row: {
      what: 'daily-checks',
      value: {
        ...{ ...rest, ...borders, at: known.at, by: place.personId },
        ...{ acrossMm: shift.x, alongMm: shift.y, standardUncertaintyMm },
      },
    },
  };
}

/** A cutter is named in the table, not a printer with it. */
const TestCutFigures = KeepTestCut.omit({ setupId: true });

function testCutRow(place: ImportPlace, line: TableLine): MadeRow {
  const { values } = line;
  const known = whenAndWhat(place, line);
  if (!('at' in known)) return known;
  const found = place.setups.find((s) => same(s.cutter.name, values.cutter));
  if (!found) return problem('cutter', `No cutter of a printer + cutter here is called "${String(values.cutter)}".`);
  const { stack, force, forceUnit, depth, speed, passes, outcome, note } = values;
  const parsed = TestCutFigures.safeParse({
    id: idOf(place, 'test-cut', found.cutter.id, known.materialId, known.at.toISOString(), stack, force, outcome),
    ...{ materialId: known.materialId, stack: stack ?? '', force, depth, speed },
    ...{ forceUnit: forceUnit ?? 'gf', passes: passes ?? 1, outcome, note: note ?? '' },
  });
  if (!parsed.success) return wrong(parsed.error);
  return {
    row: { what: 'test-cuts', value: { ...parsed.data, cutterId: found.cutter.id, at: known.at, by: place.personId } },
  };
}

function materialRow(place: ImportPlace, { values }: TableLine): MadeRow {
  const { form, colour, transparency, carrier, dryingHours, cost } = values;
  const parsed = MaterialFields.safeParse({
    ...values,
    ...{ form: form ?? 'sheet', colour: colour ?? 'white', transparency: transparency ?? 'opaque' },
    ...{ carrier: carrier ?? '', dryingHours: dryingHours ?? 0, cost: cost ?? '' },
    ...{ thermalPerK: null, thermalSource: '', humidityPerPercent: null, humiditySource: '' },
  });
  if (!parsed.success) return wrong(parsed.error);
  if (place.materials.some((m) => same(m.name, parsed.data.name)))
    return problem('name', `A material called "${parsed.data.name}" is here already.`);
  const id = idOf(place, 'material', parsed.data.name.toLowerCase());
  return { row: { what: 'materials', value: { ...parsed.data, id, shopId: place.shopId } } };
}

/** A line of a table as a row of the shop, or what is wrong with it. */
export const rowFrom: Readonly<Record<ImportKind, (place: ImportPlace, line: TableLine) => MadeRow>> = {
  'daily-checks': dailyRow,
  'test-cuts': testCutRow,
  materials: materialRow,
};
