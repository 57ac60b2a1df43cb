import 'server-only';
import { z } from 'zod';
import { formatFixed } from '@/core/units/length';
import type { lockedLayout } from '@/db/schema/job';
import type { material } from '@/db/schema/shop';

type Material = typeof material.$inferSelect;
type Layout = Pick<typeof lockedLayout.$inferSelect, 'materialVersion' | 'materialSnapshot'>;

const NOT_GIVEN = 'not given';
const words = (text: string): string => text || NOT_GIVEN;
const mm = (value: number | null): string => (value === null ? NOT_GIVEN : `${formatFixed(value, 2)} mm`);
const rate = (value: number | null): string => (value === null ? NOT_GIVEN : String(value));

const Text = z.string();
const Size = z.number().nullable();

/** What of a material a layout was locked on. */
const Described = z.object({
  form: Text,
  finish: Text,
  widthMm: Size,
  printableWidthMm: Size,
  thicknessMm: Size,
  colour: Text,
  transparency: Text,
  carrier: Text,
  dryingHours: z.number(),
  thermalPerK: Size,
  humidityPerPercent: Size,
});
type Described = z.infer<typeof Described>;

/** What is said of each, and how its value is written. */
const SAID: { readonly [K in keyof Described]: readonly [name: string, write: (value: Described[K]) => string] } = {
  form: ['form', words],
  finish: ['finish', words],
  widthMm: ['width', mm],
  printableWidthMm: ['printable width', mm],
  thicknessMm: ['thickness', mm],
  colour: ['colour', words],
  transparency: ['transparency', words],
  carrier: ['carrier', words],
  dryingHours: ['drying time', (hours) => `${String(hours)} h`],
  thermalPerK: ['growth per kelvin', rate],
  humidityPerPercent: ['growth per % humidity', rate],
};

/** The part of a material that is kept with a locked layout. */
export const describedMaterial = (row: Material): Described => Described.parse(row);

function changeOf(name: string, field: keyof Described, was: Described, is: Described): string[] {
  if (was[field] === is[field]) return [];
  const [said, write] = SAID[field] as readonly [string, (value: Described[keyof Described]) => string];
  return [`${name}: ${said} was ${write(was[field])} and is ${write(is[field])} now.`];
}

/** What of the material changed since a layout was locked, each by name. */
export function materialChanges(layout: Layout, row: Material): readonly string[] {
  const kept = Described.safeParse(layout.materialSnapshot);
  const is = describedMaterial(row);
  if (kept.success)
    return (Object.keys(SAID) as (keyof Described)[]).flatMap((field) => changeOf(row.name, field, kept.data, is));
  return row.version === layout.materialVersion ? [] : [`The description of the material ${row.name} changed.`];
}
