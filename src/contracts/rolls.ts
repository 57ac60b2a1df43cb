import { z } from 'zod';
import { READING_STATES } from '@/core/reading/methods';
import { LEAST_SPACING_MM, STRIP_FORMS, STRIP_SIDES } from '@/core/target/roll-strip';

const Id = z.uuid();
/** As long as a roll can be read off at one go. */
export const MOST_STATIONS = 2000;
/** A list that is given out to be filled in has at most so many stations. */
export const MOST_LISTED = 200;
const Tolerance = z.number().min(0.05, 'at least 0.05 mm').max(5, 'at most 5 mm');

export const StartRoll = z
  .object({
    id: Id,
    setupId: Id,
    materialId: Id,
    kind: z.enum(['strip', 'run']),
    form: z.enum(STRIP_FORMS),
    widthMm: z.number().min(30, 'at least 30 mm').max(5000, 'at most 5000 mm'),
    spacingMm: z.number().min(5, 'at least 5 mm').max(20_000, 'at most 20 m'),
    stations: z.number().int().min(1, 'at least 1').max(100_000, 'at most 100,000'),
    everyNth: z.number().int().min(1).max(10_000),
    sides: z.array(z.enum(STRIP_SIDES)).min(1, 'at least one side').max(3),
    toleranceMm: Tolerance,
  })
  .refine((r) => r.kind === 'run' || r.spacingMm >= LEAST_SPACING_MM, {
    path: ['spacingMm'],
    message: `at least ${LEAST_SPACING_MM} mm: a station's figures need so much`,
  })
  .refine((r) => r.kind === 'run' || r.stations <= MOST_STATIONS, {
    path: ['stations'],
    message: `at most ${MOST_STATIONS} on one strip`,
  });
export type StartRollInput = z.infer<typeof StartRoll>;

const Slot = {
  stationNo: z.number().int().min(1).max(100_000),
  side: z.enum(STRIP_SIDES),
  axis: z.enum(['across', 'along']),
};

export const SaveStation = z
  .object({
    id: Id,
    rollId: Id,
    ...Slot,
    method: z.enum(['eye', 'list', 'scan']),
    state: z.enum(READING_STATES),
    readingMm: z.number().min(-50, 'within 50 mm').max(50, 'within 50 mm').nullable(),
  })
  .refine((r) => (r.state === 'read') === (r.readingMm !== null), {
    path: ['readingMm'],
    message: 'a figure that was read has a value',
  });
export type SaveStationInput = z.infer<typeof SaveStation>;

export const SaveStations = z.object({
  readings: z
    .array(SaveStation)
    .min(1)
    .max(4 * MOST_STATIONS),
});

export const OnlyRoll = z.object({ rollId: Id });

export const RuledLength = z.object({
  rollId: Id,
  nominalMm: z.number().min(50, 'at least 50 mm').max(20_000, 'at most 20 m'),
  measuredMm: z.number().min(50, 'at least 50 mm').max(20_000, 'at most 20 m'),
  laminatedMm: z.number().min(50, 'at least 50 mm').max(20_000, 'at most 20 m').nullable().default(null),
});
export type RuledLengthInput = z.infer<typeof RuledLength>;

const Cost = z.number().min(0).max(1e9);

/** What a run's sections are asked for; kept, so that a width typed once survives every change. */
export const SectionWork = z.object({
  registration: z.enum(['origin', 'start-marks', 'both-ends']),
  marksApartMm: z.number().min(10, 'at least 10 mm').max(20_000).default(300),
  markSdMm: z.number().min(0, 'not below 0').max(2).default(0.05),
  originSdMm: z.number().min(0, 'not below 0').max(5).default(0.1),
  confidence: z.number().min(0.5, 'at least 50 %').max(0.999, 'at most 99.9 %').default(0.95),
  isCorrected: z.boolean().default(true),
  copies: z.number().int().min(1, 'at least one').max(1_000_000, 'at most a million'),
  itemWidthMm: z.number().positive().max(5000),
  itemLengthMm: z.number().positive().max(50_000),
  gapMm: z.number().min(0).max(1000),
  printableWidthMm: z.number().positive().max(5000),
  endWasteMm: z.number().min(0).max(5000).default(30),
  /** Shifts of one direction after each rewind, from which an origin's scatter was told. */
  rewindShiftsMm: z.array(z.number().min(-50).max(50)).max(50, 'at most 50').default([]),
  typedLengthMm: z.number().positive().max(1e6).nullable().default(null),
  setUpMinutes: z.number().min(0).max(600).default(4),
  printMetresPerHour: z.number().min(0.1, 'at least 0.1').max(10_000).default(12),
  cutMetresPerHour: z.number().min(0.1, 'at least 0.1').max(10_000).default(40),
  finishMinutes: z.number().min(0).max(600).default(5),
  hourCost: Cost.default(20),
  metreCost: Cost.default(3),
  pieceCost: Cost.default(1),
  dueHours: z.number().min(0, 'not below 0').max(2000, 'at most 2000 h').nullable().default(null),
  lateHourCost: Cost.default(20),
});
export type SectionWork = z.infer<typeof SectionWork>;

export const KeepSectionWork = z.object({ rollId: Id, work: SectionWork });
