import { z } from 'zod';
import { PrintSizeShape } from './print-size';
import { METHODS_BY_HAND, READING_STATES } from '@/core/reading/methods';
import { MOST_SCANS } from '@/core/scan/scan-result';
import { SCAN_REACH_MM } from '@/core/target/coded-figure';
import { READING_SCALES } from '@/core/target/reading-scale';
import { CUT_LINES } from '@/core/shop/cut-lines';
import { LIGHTS } from '@/core/shop/light';

const Id = z.uuid();
/** Largest length anyone could mean here; keeps nonsense out of the arithmetic. */
const Length = z.number().min(-2000).max(2000);

/** A page or a piece of a roll; a known name has its known size. */
export const Page = z.object({
  name: z.string().min(1).max(40),
  widthMm: z.number().min(100, 'at least 100 mm wide').max(2000, 'at most 2000 mm wide'),
  lengthMm: z.number().min(100, 'at least 100 mm long').max(5000, 'at most 5000 mm long'),
});
export type PageInput = z.infer<typeof Page>;

/** Enough to be seen, and within a wedge's reach. */
const MarkMove = z
  .number()
  .min(0, 'outward is no use: 0 or more')
  .max(0.8, 'at most 0.8 mm, else the figures are out of reach');

export const StartCalibration = z.object({
  id: Id,
  setupId: Id,
  materialId: Id,
  page: Page,
  kind: z.enum(['quick', 'full', 'which_way', 'mark_use', 'two_faces']),
  toleranceMm: z.number().min(0.05, 'at least 0.05 mm').max(5, 'at most 5 mm'),
  /** How the cut lines are made visible; absent: as suits the material. */
  cutLine: z.enum(CUT_LINES).optional(),
  /** Unit of the numbers on the sheet; absent: the person's. */
  scale: z.enum(READING_SCALES).optional(),
  /** How far in the program sets the marks in a test of what they are used for. */
  marksIn: z.object({ acrossMm: MarkMove, alongMm: MarkMove }).optional(),
});

export const CheckPrint = z.object({ id: Id, calibrationId: Id, lineMm: z.number().min(20).max(400) });

export const RecordCut = z.object({
  id: Id,
  calibrationId: Id,
  turnDeg: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]),
  face: z.enum(['ink-up', 'ink-down']),
  outcome: z.enum(['done', 'marks_not_read', 'wrong_place', 'stopped']),
  /** Unloaded, loaded again and marks read afresh since the set before. */
  isFreshLoad: z.boolean(),
  /** Light while the eye looked for the marks. */
  light: z.enum(LIGHTS).exactOptional(),
});

/** Set 2 of a which-way test, with what the displays were set to before it. */
export const TrialCut = z.object({ id: Id, calibrationId: Id, typed: z.record(z.string(), z.number()) });
export type TrialCutInput = z.infer<typeof TrialCut>;

export const MarkTry = z.object({
  id: Id,
  calibrationId: Id,
  tried: z.string().min(1).max(200),
  outcome: z.enum(['read', 'not_read']),
});

/** More looks at one figure say nothing new: dot and file rounding stay. */
export const MOST_LOOKS = 4;

export const SaveReading = z
  .object({
    id: Id,
    cutSetId: Id,
    spotNo: z.number().int().min(1).max(99),
    axis: z.enum(['across', 'along']),
    method: z.enum(METHODS_BY_HAND),
    /** Which look at the figure: looks are blind to each other and combine; the same one made again supersedes. Absent: the first. */
    repeatNo: z.number().int().min(1).max(MOST_LOOKS).optional(),
    state: z.enum(READING_STATES),
    readingMm: Length.nullable(),
    /** Walls and rims can be measured; absent: matched by eye. */
    instrument: z.enum(['eye', 'caliper']).optional(),
    startedAtMm: Length,
  })
  .refine((r) => (r.state === 'read') === (r.readingMm !== null), {
    path: ['readingMm'],
    message: 'a reading that was read needs a value',
  });

/** A whole list of readings of one set: all of it is kept, or nothing. */
export const SaveReadingList = z.object({
  readings: z.array(SaveReading).min(1, 'at least one reading').max(200, 'at most 200 readings'),
});
export type SaveReadingListInput = z.input<typeof SaveReadingList>;

/** As far as a disc can be measured, and no better than a scanner can be. */
const DiscShift = z.number().min(-SCAN_REACH_MM).max(SCAN_REACH_MM);
const ScanSd = z.number().min(1e-4).max(1);
const SharedShift = z.number().min(-1).max(1);

/** Discs of one set as one or more scans of its sheet tell them, with a small picture to look at later. */
export const SaveScan = z.object({
  id: Id,
  cutSetId: Id,
  /** Which print the discs show: the back only where front and back are compared. */
  face: z.enum(['front', 'back']),
  scans: z
    .array(
      z.object({
        fileName: z.string().max(200),
        dotsPerInch: z.number().positive().max(20_000),
        /** Null of loose pieces. */
        turnDeg: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]).nullable(),
        isMirrored: z.boolean(),
        goodCount: z.number().int().min(0).max(200),
      }),
    )
    .min(1)
    .max(MOST_SCANS, 'at most eight scans'),
  discs: z
    .array(
      z.object({
        acrossId: Id,
        alongId: Id,
        spotNo: z.number().int().min(1).max(99),
        state: z.enum(['good', 'partial']),
        acrossMm: DiscShift,
        alongMm: DiscShift,
        acrossSdMm: ScanSd,
        alongSdMm: ScanSd,
        acrossSharedMm: SharedShift,
        alongSharedMm: SharedShift,
      }),
    )
    .min(1, 'at least one disc')
    .max(99),
  /** Null where no length was measured. */
  printSize: PrintSizeShape.nullable(),
  /** JPEG in base64. */
  picture: z.base64().startsWith('/9j/', 'a JPEG').max(900_000, 'a picture of at most 650 kB').nullable(),
});
export type SaveScanInput = z.infer<typeof SaveScan>;

export const UseRough = z.object({
  id: Id,
  calibrationId: Id,
  way: z.enum(['file', 'settings']),
  typed: z.record(z.string(), z.number()),
});

export const AcceptCorrection = z.object({
  id: Id,
  calibrationId: Id,
  way: z.enum(['settings', 'settings-and-file', 'file', 'none']),
  /** Readings that the others contradict are counted all the same, by the operator's choice. */
  keepAll: z.boolean().default(false),
  /** What was typed back, by machine setting id. */
  typed: z.record(z.string(), z.number()),
});

export const LogEvent = z.object({ id: Id, setupId: Id, kind: z.string().min(1).max(40), note: z.string().max(500) });
export const UndoEvent = z.object({ id: Id, eventId: Id });
export const PutBack = z.object({ id: Id, historyEntryId: Id, typed: z.record(z.string(), z.number()) });
export const OnlyCalibration = z.object({ id: Id, calibrationId: Id });
export const TellShownValue = z.object({ id: Id, settingId: Id, value: z.number().min(-1e6).max(1e6) });
/** From the sign-in form: anything longer is no passphrase. */
export const SignIn = z.object({ passphrase: z.string().min(1).max(512), to: z.string().max(2048).default('/') });
export const OpenDoor = z.object({ passphrase: z.string().max(512) });
export const LetGo = z.object({ id: Id });

export const SetPerson = z.object({ personId: Id });

export type StartCalibrationInput = z.infer<typeof StartCalibration>;
export type CheckPrintInput = z.infer<typeof CheckPrint>;
export type RecordCutInput = z.infer<typeof RecordCut>;
export type MarkTryInput = z.infer<typeof MarkTry>;
export type SaveReadingInput = z.input<typeof SaveReading>;
export type UseRoughInput = z.infer<typeof UseRough>;
export type AcceptCorrectionInput = z.input<typeof AcceptCorrection>;
/** Ways to correct: settings alone, with the rest in the file, the file alone, or nothing. */
export type Way = AcceptCorrectionInput['way'];
