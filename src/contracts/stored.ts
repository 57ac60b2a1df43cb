import { z } from 'zod';

const Point = z.object({ x: z.number(), y: z.number() });

/** A sheet definition as it stands in the database: re-parsed whenever it is read. */
export const StoredSheet = z.object({
  generatorVersion: z.number().int(),
  blockName: z.enum(['A4', 'Letter']),
  checkKind: z.enum(['quick', 'full']),
  spots: z.array(z.object({ spotNo: z.number().int(), centre: Point })),
  wedges: z.array(
    z.object({
      kind: z.literal('wedge'),
      setNo: z.union([z.literal(1), z.literal(2)]),
      spotNo: z.number().int(),
      axis: z.enum(['across', 'along']),
      origin: Point,
      halfLengthMm: z.number(),
      ditherMm: z.number(),
    }),
  ),
  roughs: z.array(z.object({ kind: z.literal('rough'), spotNo: z.number().int(), centre: Point })),
  trailCentre: Point,
});

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
  /** Setting values at which machineError holds. */
  baseValues: StoredSettings,
});
export type StoredTruth = z.infer<typeof StoredTruth>;
