import { randomUUID } from 'node:crypto';
import type { ErrorParameters } from '@/core/geometry/error-parameters';
import type { FileDirection } from '@/core/geometry/file-axes';
import type { FeedDirection } from '@/core/geometry/load';
import type { StartCalibrationInput } from '@/contracts/inputs';
import type { StoredTruth } from '@/contracts/stored';
import type { Family, Route } from '@/core/shop/words';
import { sheetSize } from '@/core/units/sheet-size';
import type { Database } from '@/db/client';
import { cutter, printer, printMode, program, setup, simulatedSetup } from '@/db/schema/machines';
import { machineSetting, settingValue } from '@/db/schema/settings';
import { material, person, shop } from '@/db/schema/shop';
import type { Actor } from './actor';

export interface TestShop {
  readonly actor: Actor;
  readonly shopId: string;
  readonly setupId: string;
  readonly materialId: string;
  readonly settingIds: readonly string[];
}

export interface ShopOrder {
  readonly error: ErrorParameters;
  readonly markSdMm?: number;
  /** Limit of the setup, mm. */
  readonly limitMm?: number;
  readonly printScale?: number;
  readonly route?: Route;
  readonly family?: Family;
  /** What the program is told to be, beside its import scale. */
  readonly program?: Partial<typeof program.$inferInsert>;
  readonly truth?: Pick<StoredTruth, 'placement' | 'traceGrowthMm' | 'markUse' | 'backPrint' | 'knifeFromPen'>;
  readonly fileFormat?: 'hpgl' | 'svg';
  readonly axes?: readonly [FileDirection, FileDirection];
  readonly feeds?: FeedDirection;
  /** Directions of the four settings; null leaves one unknown to the shop. */
  readonly senses?: readonly (1 | -1 | null)[];
  readonly withoutSettings?: boolean;
  readonly importScale?: '96' | '72';
}

/** Draws of the next job hang on a calibration's id: counted ids make every run of a test file the same. */
let started = 0;
const countedId = (): string => `00000000-0000-4000-8000-${String(++started).padStart(12, '0')}`;

/** What begins a calibration of a test shop's one setup on A4. */
export const startOrder = (shop: TestShop, kind: StartCalibrationInput['kind']) => ({
  id: countedId(),
  setupId: shop.setupId,
  materialId: shop.materialId,
  page: { name: 'A4', ...sheetSize('A4') },
  kind,
  toleranceMm: 0.3,
});

const FOUR = ['offset_across', 'offset_along', 'scale_across', 'scale_along'] as const;

const DEFAULTS = {
  markSdMm: 0,
  limitMm: 0.3,
  printScale: 1,
  route: 'D',
  family: 'F1',
  program: {},
  truth: {},
  fileFormat: 'hpgl',
  axes: ['+x', '+y'],
  feeds: 'away',
  senses: [1, 1, 1, 1],
  withoutSettings: false,
  importScale: '96',
} as const;

/** A setup of one printer, program and cutter with four settings, simulated. */
export async function makeShop(db: Database, given: ShopOrder): Promise<TestShop> {
  const order: Required<ShopOrder> = { ...DEFAULTS, ...given };
  const [personId, printerId, modeId, programId, cutterId, setupId, materialId, shopId] = Array.from(
    { length: 8 },
    () => randomUUID(),
  ) as [string, string, string, string, string, string, string, string];
  const tag = setupId.slice(0, 8);
  await db
    .insert(shop)
    .values({ id: shopId, name: `shop ${tag}`, isDemo: false, defaultToleranceMm: 0.3, madeAt: new Date() });
  await db.insert(person).values({ id: personId, shopId, name: `Pell ${tag}`, unitSystem: 'mm' });
  await db.insert(printer).values({ id: printerId, shopId, name: `printer ${tag}`, dotPitchMm: 25.4 / 1200 });
  await db
    .insert(printMode)
    .values({ id: modeId, printerId, name: 'best', page: 'A4', pageWidthMm: 210, pageLengthMm: 297 });
  await db.insert(program).values({
    id: programId,
    shopId,
    name: `program ${tag}`,
    opens: ['svg'],
    marksPlacedBy: 'program',
    knowsCutBy: 'colour',
    importScale: order.importScale,
    ...order.program,
  });
  const [across, along] = order.axes;
  await db.insert(cutter).values({
    id: cutterId,
    shopId,
    name: `cutter ${tag}`,
    fileFormat: order.fileFormat,
    fileAcross: across,
    fileAlong: along,
    feeds: order.feeds,
  });
  await db.insert(material).values({ id: materialId, shopId, name: `film ${tag}`, finish: 'matt' });
  await db.insert(setup).values({
    id: setupId,
    shopId,
    family: order.family,
    name: `setup ${tag}`,
    printerId,
    printModeId: modeId,
    programId: order.route === 'D' ? null : programId,
    cutterId,
    tool: 'knife',
    carrier: 'mat',
    route: order.route,
    toleranceMm: order.limitMm,
  });
  const settingIds: string[] = [];
  const baseValues: Record<string, number> = {};
  const senses: Record<string, number> = {};
  for (const [position, actsOn] of (order.withoutSettings ? [] : FOUR).entries()) {
    const id = randomUUID();
    const isOffset = actsOn.startsWith('offset');
    const sense = order.senses[position] ?? null;
    await db.insert(machineSetting).values({
      id,
      cutterId,
      position,
      displayName: actsOn.toUpperCase(),
      actsOn,
      unit: isOffset ? 'mm' : 'percent',
      step: isOffset ? 0.05 : 0.01,
      minValue: isOffset ? -20 : -2,
      maxValue: isOffset ? 40 : 2,
      sense,
      gain: 1,
      entry: 'new_value',
      combine: 'replaces',
      pivot: 'first_mark',
    });
    const value = isOffset ? 12.5 : 0.1;
    await db.insert(settingValue).values({
      id: randomUUID(),
      machineSettingId: id,
      seq: 1,
      value,
      source: 'typed',
      setAt: new Date(),
      setBy: personId,
    });
    settingIds.push(id);
    baseValues[id] = value;
    senses[id] = sense ?? -1;
  }
  await db.insert(simulatedSetup).values({
    setupId,
    seed: 7,
    truth: {
      machineError: order.error,
      markSdMm: order.markSdMm,
      printScale: order.printScale,
      importPxPerInch: Number(order.importScale),
      senses,
      order: 'settings-last',
      baseValues,
      ...order.truth,
    },
  });
  return { actor: { personId }, shopId, setupId, materialId, settingIds };
}
