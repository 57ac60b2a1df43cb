import { z } from 'zod';
import { FACES, TURNS } from '@/core/geometry/load';
import { ACTS_ON, SCALES_OFFSET, SETTING_UNITS, unitsFor } from '@/core/setting/machine-setting';

/** No sheet reaches further from its middle: 100 m. */
const Place = z.number().min(-1e5).max(1e5);
const PlaceMm = z.object({ xMm: Place, yMm: Place });

/** Readings of one check, as other software or a script gives them: mm about the middle of the work area, x right, y along the arrow. */
export const ComputeFit = z
  .object({
    readings: z
      .array(
        z.object({
          axis: z.enum(['across', 'along']),
          xMm: Place,
          yMm: Place,
          displacementMm: z.number().min(-1e4).max(1e4).meta({ description: 'Cut minus print.' }),
          standardUncertaintyMm: z.number().positive().max(100),
          load: z
            .number()
            .int()
            .min(1)
            .default(1)
            .meta({ description: 'Readings of one loading of the sheet share its noise.' }),
          approach: z
            .union([z.literal(1), z.literal(-1)])
            .exactOptional()
            .meta({
              description:
                'Side from which the cutter came to this place, along the reading\u2019s own axis. Where both occur, what is lost at a change of direction is fitted as well and left out of the map.',
            }),
        }),
      )
      .max(100_000),
    workWidthMm: z.number().min(10).max(1e5),
    workLengthMm: z.number().min(10).max(1e5),
    toleranceMm: z.number().positive().max(100),
    marks: z.array(PlaceMm).max(100).default([]),
    markModel: z.enum(['shift', 'rigid', 'similarity', 'two_scales', 'affine']).default('shift'),
    markSdMm: z.number().min(0).max(10).optional(),
  })
  .meta({ id: 'Readings' });
export type ComputeFitInput = z.infer<typeof ComputeFit>;

export const ComputeBorder = ComputeFit.extend({
  yieldShare: z
    .number()
    .min(0.5, 'from 0.5')
    .max(0.999, 'to 0.999')
    .default(0.95)
    .meta({ description: 'Share of jobs whose worst copy the border is to hide.' }),
}).meta({ id: 'BorderQuestion' });
export type ComputeBorderInput = z.infer<typeof ComputeBorder>;

const Ratio = z.number().min(-0.5).max(0.5);

/** An error map by its parts, about the middle of the work area: cut minus print. */
export const ErrorParts = z
  .object({
    offsetAcrossMm: z.number().min(-1000).max(1000).default(0),
    offsetAlongMm: z.number().min(-1000).max(1000).default(0),
    rotationRad: z.number().min(-3.2).max(3.2).default(0),
    scaleAcross: Ratio.default(0),
    scaleAlong: Ratio.default(0),
    squareness: Ratio.default(0),
  })
  .meta({ id: 'ErrorParts' });

const Setting = z
  .object({
    id: z.string().min(1).max(60),
    actsOn: z.enum(ACTS_ON),
    unit: z.enum(SETTING_UNITS),
    unitSize: z.number().positive().nullable().default(null),
    step: z.number().positive().max(1e6),
    minValue: z.number().min(-1e9).max(1e9),
    maxValue: z.number().min(-1e9).max(1e9),
    sense: z.union([z.literal(1), z.literal(-1)]),
    gain: z.number().positive().max(100).default(1),
    entry: z.enum(['new_value', 'change']).default('new_value'),
    combine: z.enum(['replaces', 'adds']).default('replaces'),
    pivotXMm: Place.default(0),
    pivotYMm: Place.default(0),
    scalesOffset: z.enum(SCALES_OFFSET).default('unknown'),
    value: z.number().min(-1e9).max(1e9),
  })
  .refine((s) => s.minValue < s.maxValue, { path: ['maxValue'], message: 'above minValue' })
  .refine((s) => (s.maxValue - s.minValue) / s.step < 1e9, { path: ['step'], message: 'large enough for its range' })
  .refine((s) => unitsFor(s.actsOn).includes(s.unit), { path: ['unit'], message: 'a unit of what it acts on' })
  .refine((s) => ['step', 'nominal_measured'].includes(s.unit) === (s.unitSize !== null), {
    path: ['unitSize'],
    message: 'a size, for the units step and nominal_measured only',
  });

const Turn = z.union(
  TURNS.map((t) => z.literal(t)) as [z.ZodLiteral<0>, z.ZodLiteral<90>, z.ZodLiteral<180>, z.ZodLiteral<270>],
);

/** Which values to key in, all together, for an error map of the sheet. */
export const ComputeSettings = z
  .object({
    error: ErrorParts,
    turnDeg: Turn.default(0),
    face: z.enum(FACES).default('ink-up'),
    workWidthMm: z.number().min(10).max(1e5),
    workLengthMm: z.number().min(10).max(1e5),
    order: z.enum(['settings-last', 'settings-first']).default('settings-last'),
    settings: z.array(Setting).min(1).max(7),
  })
  .meta({ id: 'SettingsQuestion' });
export type ComputeSettingsInput = z.infer<typeof ComputeSettings>;

const MarkSd = z.number().min(0).max(10);
const Registration = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('origin'), originSdMm: MarkSd }),
  z.object({ kind: z.literal('start-marks'), apartMm: z.number().min(1).max(1e5), markSdMm: MarkSd }),
  z.object({ kind: z.literal('both-ends'), markSdMm: MarkSd }),
]);

/** Stations along a roll: the cut against the print at places to the left and right of its middle. */
const SectionPricesShape = z.object({
  setUpMinutes: z.number().min(0).max(1e4),
  printMetresPerHour: z.number().positive().max(1e5),
  cutMetresPerHour: z.number().positive().max(1e5),
  finishMinutes: z.number().min(0).max(1e4),
  endWasteMm: z.number().min(0).max(1e5),
  hourCost: z.number().min(0).max(1e9),
  metreCost: z.number().min(0).max(1e9),
  pieceCost: z.number().min(0).max(1e9),
  due: z
    .object({ dueHours: z.number().min(0).max(1e4), lateHourCost: z.number().min(0).max(1e9) })
    .optional()
    .meta({ description: 'When the run is wanted, from the beginning of printing, and what an hour later costs.' }),
});

export const ComputeRoll = z
  .object({
    stations: z
      .array(
        z.object({
          atMm: z.number().min(0).max(1e6).meta({ description: 'Way from the registered origin along the roll.' }),
          asideMm: z.number().min(-1e4).max(1e4).meta({ description: 'Sideways from the middle, right is plus.' }),
          acrossMm: z.number().min(-1e3).max(1e3).nullable().meta({ description: 'Null where it was not read.' }),
          alongMm: z.number().min(-1e3).max(1e3).nullable(),
        }),
      )
      .max(8000),
    toleranceMm: z.number().positive().max(100),
    confidence: z.number().min(0.5, 'from 0.5').max(0.999, 'to 0.999').default(0.95),
    registration: Registration.meta({ description: 'What the machine reads where a section begins and ends.' }),
    isCorrected: z
      .boolean()
      .default(true)
      .meta({ description: 'Whether the steady drift that is found will be keyed in.' }),
    farthestMm: z
      .number()
      .positive()
      .max(1e6)
      .optional()
      .meta({ description: 'As far as sections are looked at: the run, or twice the strip.' }),
    run: z
      .object({
        copies: z.number().int().min(1).max(1e7),
        itemWidthMm: z.number().positive().max(1e4),
        itemLengthMm: z.number().positive().max(1e5),
        gapMm: z.number().min(0).max(1e4),
        printableWidthMm: z.number().positive().max(1e5),
        prices: SectionPricesShape.optional().meta({
          description: 'What setting up, waste and spoilt pieces cost: the cheapest sections are then found.',
        }),
      })
      .optional(),
    isWhatIf: z
      .boolean()
      .default(false)
      .meta({ description: 'Whether sections at half the tolerance and at half the drift are told as well.' }),
  })
  .meta({ id: 'RollQuestion' });
export type ComputeRollInput = z.infer<typeof ComputeRoll>;

/** 64 MiB in base64. */
const LONGEST_FILE = 90_000_000;
const File = z
  .object({
    text: z.string().max(LONGEST_FILE).optional().meta({ description: 'The file as UTF-8 text.' }),
    base64: z.base64().max(LONGEST_FILE).optional().meta({ description: 'The file as bytes.' }),
    pxPerInch: z.union([z.literal(96), z.literal(72)]).default(96),
    mmPerUnit: z.number().positive().max(1e4).default(1),
  })
  .refine((f) => (f.text === undefined) !== (f.base64 === undefined), { message: 'either text or base64' });
export type ComputeFile = z.infer<typeof File>;

export const ComputeSurvey = z.object({ file: File }).meta({ id: 'DrawingQuestion' });
export type ComputeSurveyInput = z.infer<typeof ComputeSurvey>;

/** A cut file whose lines are moved so that, cut with the stated error, they land where they should. */
export const ComputeCorrectedFile = z
  .object({
    file: File,
    by: z.enum(['colour', 'layer']).default('colour'),
    cut: z
      .array(z.string().max(500))
      .min(1)
      .max(1000)
      .meta({ description: 'Names of the colours, pens or layers to be cut.' }),
    error: ErrorParts,
    centre: PlaceMm.meta({
      description: 'Where the middle that the error was measured about lies, from the lower left.',
    }),
    bow: z
      .object({ perMm: z.number().min(-0.01).max(0.01), along: z.enum(['x', 'y']) })
      .optional()
      .meta({ description: 'Of a long run: the cut bows sideways by perMm times half the square of the way.' }),
  })
  .meta({ id: 'CutFileQuestion' });
export type ComputeCorrectedFileInput = z.infer<typeof ComputeCorrectedFile>;
