import { z } from 'zod';
import { FILE_DIRECTIONS, isPerpendicular } from '@/core/geometry/file-axes';
import { ACTS_ON, SCALES_OFFSET, SETTING_KINDS, SETTING_UNITS, unitsFor } from '@/core/setting/machine-setting';
import { FAMILIES, KNOWS_CUT_BY, MARK_KINDS, MARK_USES, MARKS_PLACED_BY, OPENS } from '@/core/shop/words';
import { UNIT_SYSTEMS } from '@/core/units/length';
import { Page } from './inputs';
import { StoredOwnTest } from './stored';

const Name = z.string().trim().min(1, 'a name').max(60, 'at most 60 characters');
const Words = z.string().trim().max(200, 'at most 200 characters');
const Mm = z.number().min(0, 'zero or more').max(5000, 'at most 5000 mm');
const Shift = z.number().min(-50, 'at least -50 mm').max(50, 'at most 50 mm');
const Id = z.uuid();

const knownTimeZone = (zone: string): boolean => {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
};

/** A cutter's own test, kept for everyone who uses it. */
export const KeepOwnTest = z.object({ setupId: Id, ownTest: StoredOwnTest });
export type KeepOwnTestInput = z.infer<typeof KeepOwnTest>;

export const PersonFields = z.object({
  name: Name,
  unitSystem: z.enum(UNIT_SYSTEMS),
  timeZone: z.string().refine(knownTimeZone, 'a time zone such as Europe/Oslo or UTC'),
});

export const PrinterFields = z.object({
  name: Name,
  dotPitchMm: z.number().min(0.005, 'at least 0.005 mm').max(1, 'at most 1 mm'),
  marginLeftMm: Mm,
  marginRightMm: Mm,
  marginTopMm: Mm,
  marginBottomMm: Mm,
});

export const PrintModeFields = z.object({
  name: Name,
  tray: Words,
  quality: Words,
  isBorderless: z.boolean(),
  page: z.string().trim().min(1, 'a name').max(40),
  pageWidthMm: z.number().min(100, 'at least 100 mm').max(2000, 'at most 2000 mm'),
  pageLengthMm: z.number().min(100, 'at least 100 mm').max(5000, 'at most 5000 mm'),
});

const ProgramShape = z.object({
  name: Name,
  opens: z.array(z.enum(OPENS)).min(1, 'at least one kind of file'),
  marksPlacedBy: z.enum(MARKS_PLACED_BY),
  knowsCutBy: z.enum(KNOWS_CUT_BY),
  canCutAgain: z.boolean(),
  importScale: z.enum(['96', '72', 'asks']),
  spotInkName: Name.nullable(),
  largestWidthMm: Mm.nullable(),
  largestLengthMm: Mm.nullable(),
  bleedDefaultMm: Mm,
  printsUnstroked: z.boolean(),
  holdsCutData: z.boolean(),
  markSchemeId: Id.nullable(),
});
export const ProgramFields = ProgramShape.refine((p) => (p.knowsCutBy === 'spot_ink') === (p.spotInkName !== null), {
  path: ['spotInkName'],
  message: 'the name of the spot ink, when cut lines are known by one',
});

export const CutterFields = z
  .object({
    name: Name,
    fileFormat: z.enum(['hpgl', 'svg', 'dxf', 'none']),
    fileAcross: z.enum(FILE_DIRECTIONS),
    fileAlong: z.enum(FILE_DIRECTIONS),
    feeds: z.enum(['away', 'towards']),
    markSchemeId: Id.nullable(),
    markUse: z.enum(MARK_USES),
    hpglTool: z.number().int().min(1, '1 to 8').max(8, '1 to 8'),
    hpglOutlineFirst: z.boolean(),
    spareFrontMm: Mm,
    spareRearMm: Mm,
    rollerWidthMm: Mm.refine((mm) => mm > 0, 'more than 0').nullable(),
    rollerFromEdgeMm: Mm.nullable(),
    knifeFromPenAcrossMm: Shift.nullable(),
    knifeFromPenAlongMm: Shift.nullable(),
  })
  .refine((c) => (c.rollerWidthMm === null) === (c.rollerFromEdgeMm === null), {
    path: ['rollerFromEdgeMm'],
    message: 'both lengths of the rollers, or neither',
  })
  .refine((c) => (c.knifeFromPenAcrossMm === null) === (c.knifeFromPenAlongMm === null), {
    path: ['knifeFromPenAlongMm'],
    message: 'both lengths, across and along, or neither',
  })
  .refine((c) => isPerpendicular({ across: c.fileAcross, along: c.fileAlong }), {
    path: ['fileAlong'],
    message: 'a file axis at right angles to the one across',
  });

export const MarkSchemeFields = z.object({
  name: Name,
  kind: z.enum(MARK_KINDS),
  sizeMm: Mm,
  insetMm: Mm,
  keepOutMm: Mm,
  edgeMinMm: Mm,
  leadingMark: Words,
  readingOrder: Words,
});

export const MaterialFields = z
  .object({
    name: Name,
    finish: Words,
    form: z.enum(['sheet', 'roll']),
    widthMm: Mm.nullable(),
    printableWidthMm: Mm.nullable(),
    thicknessMm: Mm.nullable(),
    colour: z.enum(['white', 'light', 'dark', 'metallic']),
    transparency: z.enum(['opaque', 'translucent', 'clear']),
    carrier: Words,
    dryingHours: z.number().min(0, 'zero or more').max(1000, 'at most 1000 hours'),
    thermalPerK: z.number().min(0).max(0.001, 'at most 0.001 per kelvin').nullable(),
    thermalSource: Words,
    humidityPerPercent: z.number().min(0).max(0.001, 'at most 0.001 per percent').nullable(),
    humiditySource: Words,
    cost: Words,
  })
  .refine((m) => (m.printableWidthMm ?? 0) <= (m.widthMm ?? Infinity), {
    path: ['printableWidthMm'],
    message: 'at most the width itself: printers leave an edge free',
  })
  .refine((m) => m.thermalPerK === null || m.thermalSource !== '', {
    path: ['thermalSource'],
    message: 'where the figure is from: a data sheet, a measurement, a guess',
  })
  .refine((m) => m.humidityPerPercent === null || m.humiditySource !== '', {
    path: ['humiditySource'],
    message: 'where the figure is from: a data sheet, a measurement, a guess',
  });

export const SettingFields = z
  .object({
    displayName: Name,
    kind: z.enum(SETTING_KINDS),
    actsOn: z.enum(ACTS_ON),
    unit: z.enum(SETTING_UNITS),
    unitSize: z.number().min(-10000).max(10000).nullable(),
    step: z.number().min(1e-6, 'more than zero').max(1000),
    minValue: z.number().min(-1e6).max(1e6),
    maxValue: z.number().min(-1e6).max(1e6),
    sense: z.union([z.literal(1), z.literal(-1)]).nullable(),
    entry: z.enum(['new_value', 'change']),
    combine: z.enum(['replaces', 'adds']),
    pivot: z.enum(['centre', 'first_mark']),
    scalesOffset: z.enum(SCALES_OFFSET),
    pressThis: Words,
    notThat: Words,
  })
  .refine((s) => unitsFor(s.actsOn).includes(s.unit), { path: ['unit'], message: 'a unit that fits what it acts on' })
  .refine((s) => s.minValue < s.maxValue, { path: ['maxValue'], message: 'more than the smallest value' })
  .refine((s) => (s.unit === 'step' || s.unit === 'nominal_measured') === (s.unitSize !== null && s.unitSize > 0), {
    path: ['unitSize'],
    message: 'the size of one step, or the nominal length, and only for those units',
  });

/** Each thing of a shop by its name, with the fields that may be written. */
export const THING_FIELDS = {
  person: PersonFields,
  printer: PrinterFields,
  printMode: PrintModeFields,
  program: ProgramFields,
  cutter: CutterFields,
  markScheme: MarkSchemeFields,
  material: MaterialFields,
  setting: SettingFields,
} as const;
export type ThingKind = keyof typeof THING_FIELDS;
export const THING_KINDS = Object.keys(THING_FIELDS) as readonly ThingKind[];
export type ThingValues<K extends ThingKind = ThingKind> = z.infer<(typeof THING_FIELDS)[K]>;

/** `ownerId`: the printer of a mode, the cutter or program of a setting. The id comes from the client: a retry is harmless. */
export const SaveThing = z.object({
  kind: z.enum(['person', 'printer', 'printMode', 'program', 'cutter', 'markScheme', 'material', 'setting']),
  id: Id,
  ownerId: Id.nullable(),
  values: z.record(z.string(), z.unknown()),
});
export type SaveThingInput = z.infer<typeof SaveThing>;

/** How far the cut of one printer + cutter may be off and still be good work. */
export const SetLimit = z.object({ id: Id, setupId: Id, limitMm: z.number() });
export type SetLimitInput = z.infer<typeof SetLimit>;

/** The answers of the first taps; names have usual values and can be changed at any time. */
export const NewSetup = z.object({
  id: Id,
  family: z.enum(FAMILIES),
  name: Name,
  printerName: Name,
  cutterName: Name,
  /** Existing machines to share; new ones are made where absent. */
  printerId: Id.nullable(),
  cutterId: Id.nullable(),
  programId: Id.nullable(),
  program: ProgramShape.pick({
    name: true,
    opens: true,
    marksPlacedBy: true,
    knowsCutBy: true,
    canCutAgain: true,
    importScale: true,
    spotInkName: true,
  })
    .refine((p) => (p.knowsCutBy === 'spot_ink') === (p.spotInkName !== null), {
      path: ['spotInkName'],
      message: 'the name of the spot ink, when cut lines are known by one',
    })
    .nullable(),
  fileFormat: z.enum(['hpgl', 'svg', 'dxf', 'none']),
  page: Page,
  markKind: z.enum(MARK_KINDS),
  kitId: z.string().max(40),
  isSimulated: z.boolean(),
});
export type NewSetupInput = z.infer<typeof NewSetup>;

/** A shop of one's own with its first person. */
export const NewShop = z.object({
  id: Id,
  name: Name,
  personName: Name,
  unitSystem: z.enum(UNIT_SYSTEMS),
  timeZone: PersonFields.shape.timeZone,
});
export type NewShopInput = z.infer<typeof NewShop>;
/** What a shop says of itself: its name, and the currency that its costs are in. */
export const SaveShop = z.object({
  id: Id,
  name: Name,
  currency: z
    .string()
    .regex(/^[A-Z]{3}$/, 'a code of three letters, such as EUR')
    .nullable(),
});
export const ChooseShop = z.object({ shopId: Id });
