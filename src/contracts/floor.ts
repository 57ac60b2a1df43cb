import { z } from 'zod';
import { LIGHTS } from '@/core/shop/light';
import { FORCE_UNITS, TEST_CUT_OUTCOMES } from '@/core/shop/test-cut';

const Id = z.uuid();
/** What lies on or under the material as it is cut; empty: as it was printed. */
export const Stack = z.string().trim().max(60, 'at most 60 letters');

/** One small figure cut in the spare. */
export const KeepTestCut = z.object({
  id: Id,
  setupId: Id,
  materialId: Id,
  stack: Stack,
  force: z.number().positive('above 0').max(100_000, 'at most 100,000').nullable(),
  forceUnit: z.enum(FORCE_UNITS),
  depth: z.number().min(0, 'at least 0').max(1000, 'at most 1,000').nullable(),
  speed: z.number().positive('above 0').max(100_000, 'at most 100,000').nullable(),
  passes: z.number().int('a whole number').min(1, 'at least 1').max(20, 'at most 20'),
  outcome: z.enum(TEST_CUT_OUTCOMES),
  note: z.string().trim().max(200, 'at most 200 letters'),
});
export type KeepTestCutInput = z.infer<typeof KeepTestCut>;

/** How often the eye looked before it found a job's marks: 0 for never found. */
export const MarksRead = z.object({
  tries: z.number().int().min(1).max(20),
  wereRead: z.boolean(),
  light: z.enum(LIGHTS),
});
export type MarksReadInput = z.infer<typeof MarksRead>;

/** What mark readings are told apart by. */
export const MARK_FACTORS = ['material', 'finish', 'carrier', 'light', 'inset'] as const;
export type MarkFactor = (typeof MARK_FACTORS)[number];
export const MARK_FACTOR_WORDS: Readonly<Record<MarkFactor, string>> = {
  material: 'material',
  finish: 'finish',
  carrier: 'mat or carrier',
  light: 'light',
  inset: 'inset of the marks',
};

export const MarkReadingQuery = z.object({
  setup: z.uuid().optional().catch(undefined),
  by: z.enum([...MARK_FACTORS, 'all']).catch('all'),
});
