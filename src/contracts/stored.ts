import { z } from 'zod';
import { isLadder, LINE_LABELS, MOST_LETTERS, MOST_LINES } from '@/core/reading/ladder';
import { MARK_USES } from '@/core/shop/words';
import { DISC_CUTS } from '@/core/target/disc';
import { READING_SCALES } from '@/core/target/reading-scale';
import { blockNamed, ROUGH_REACH_MM } from '@/core/target/block';

const Point = z.object({ x: z.number(), y: z.number() });

/** Absent: mm, and of every sheet made before there was a choice. */
const Scale = z.enum(READING_SCALES).exactOptional();

const Spots = z.array(z.object({ spotNo: z.number().int(), centre: Point }));
const Wedges = z.array(
  z.object({
    kind: z.literal('wedge'),
    setNo: z.union([z.literal(1), z.literal(2)]),
    spotNo: z.number().int(),
    axis: z.enum(['across', 'along']),
    origin: Point,
    halfLengthMm: z.number(),
    ditherMm: z.number(),
    scale: Scale,
  }),
);
const Combs = z.array(
  z.object({
    kind: z.literal('comb'),
    setNo: z.literal(1),
    spotNo: z.number().int(),
    axis: z.enum(['across', 'along']),
    centre: Point,
    approach: z.union([z.literal(1), z.literal(-1)]),
    scale: Scale,
  }),
);
const Discs = z.array(
  z.object({
    kind: z.literal('disc'),
    setNo: z.union([z.literal(1), z.literal(2)]),
    spotNo: z.number().int(),
    centre: Point,
    radiusMm: z.number(),
    /** Of the fifth generator and later. */
    cut: z.enum(DISC_CUTS).default('hole'),
    holeRadiusMm: z.number(),
    codeNo: z.number().int(),
  }),
);
const LiftOffs = z.array(
  z.object({
    kind: z.literal('lift-off'),
    setNo: z.literal(1),
    spotNo: z.number().int(),
    centre: Point,
    /** Of the fifth generator and later. */
    codeNo: z.number().int().exactOptional(),
  }),
);
const Rough = z.object({ kind: z.literal('rough'), spotNo: z.number().int(), centre: Point });

const StoredBlock = z.object({
  name: z.string(),
  page: z.object({ widthMm: z.number(), lengthMm: z.number() }),
  widthMm: z.number(),
  lengthMm: z.number(),
  columnLeftsMm: z.array(z.number()),
  rowBottomsMm: z.array(z.number()),
  roughPlaces: z.array(Point.extend({ reachMm: z.number() })),
  trailCentre: Point.nullable(),
  checkLineMm: z.number(),
  gapCount: z.number().int(),
  markHalfX: z.number(),
  markHalfY: z.number(),
});

/** Definitions of the first generator named their block; it has stood in the same place since. */
const FirstSheet = z
  .object({
    generatorVersion: z.literal(1),
    blockName: z.enum(['A4', 'Letter']),
    checkKind: z.enum(['quick', 'full']),
    spots: Spots,
    wedges: Wedges,
    roughs: z.array(Rough),
    trailCentre: Point,
  })
  .transform(({ blockName, roughs, ...rest }) => ({
    ...rest,
    block: blockNamed(blockName),
    sets: 2 as const,
    combs: [],
    discs: [],
    liftOffs: [],
    roughs: roughs.map((r) => ({ ...r, reachMm: ROUGH_REACH_MM })),
  }));

const PresentSheet = z.object({
  generatorVersion: z.number().int(),
  block: StoredBlock,
  checkKind: z.enum(['quick', 'full']),
  sets: z.union([z.literal(1), z.literal(2)]),
  spots: Spots,
  wedges: Wedges,
  /** Of the third generator and later. */
  combs: Combs.default([]),
  discs: Discs.default([]),
  liftOffs: LiftOffs,
  roughs: z.array(Rough.extend({ reachMm: z.number(), scale: Scale })),
  trailCentre: Point.nullable(),
});

/** A sheet definition as it stands in the database: re-parsed whenever it is read. */
export const StoredSheet = z.union([PresentSheet, FirstSheet]);

/** What is kept with a reading that a scan gave. */
export const StoredScanReading = z.object({ scanId: z.uuid(), sharedMm: z.number() });

/** The scans that one measuring stands on. */
export const StoredScans = z.array(z.object({ fileName: z.string(), dotsPerInch: z.number(), goodCount: z.number() }));

/** Setting values by setting id, as they stood when a set was cut. */
export const StoredSettings = z.record(z.string(), z.number());

export const StoredTruth = z.object({
  machineError: z.object({
    offsetAcrossMm: z.number(),
    offsetAlongMm: z.number(),
    rotationRad: z.number(),
    scaleAcross: z.number(),
    scaleAlong: z.number(),
    squareness: z.number(),
  }),
  markSdMm: z.number().min(0),
  printScale: z.number().positive(),
  importPxPerInch: z.union([z.literal(72), z.literal(96)]),
  senses: z.record(z.string(), z.union([z.literal(1), z.literal(-1)])),
  order: z.enum(['settings-last', 'settings-first']),
  placement: z.object({ xMm: z.number(), yMm: z.number() }).exactOptional(),
  traceGrowthMm: z.number().exactOptional(),
  markUse: z.enum(MARK_USES).exactOptional(),
  knifeFromPen: z.object({ xMm: z.number(), yMm: z.number() }).exactOptional(),
  backPrint: z.object({ xMm: z.number(), yMm: z.number(), rotationRad: z.number() }).exactOptional(),
  /** Setting values at which machineError holds. */
  baseValues: StoredSettings,
});
export type StoredTruth = z.infer<typeof StoredTruth>;

const StoredLadder = z
  .object({
    labels: z.enum(LINE_LABELS),
    firstNumber: z.int(),
    lines: z.int(),
    middle: z.int(),
    takesHalves: z.boolean(),
    stepMm: z.number().positive().max(50).nullable(),
  })
  .refine(isLadder, {
    path: ['middle'],
    message: `expected two lines or more (${MOST_LINES} at most, ${MOST_LETTERS} with letters), the one without shift among them`,
  });

/** A cutter's own test: its rows of lines and where it cuts them. */
export const StoredOwnTest = z
  .object({
    across: StoredLadder.nullable(),
    along: StoredLadder.nullable(),
    sheet: z.enum(['own', 'check-sheet']),
  })
  .refine((t) => t.across !== null || t.along !== null, { message: 'expected at least one row' });
