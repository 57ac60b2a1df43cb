import { z } from 'zod';

const Scale = z.number().min(0.5).max(2);
const ScaleSd = z.number().positive().max(1);
const SpotNo = z.number().int().min(1).max(99);

/** The print's absolute size, from one length on it and its shape by scans. */
export const PrintSizeShape = z.object({
  fromSpotNo: SpotNo,
  toSpotNo: SpotNo,
  lengthMm: z.number().positive().max(20_000),
  lengthSdMm: z.number().positive().max(10),
  acrossScale: Scale,
  acrossSd: ScaleSd,
  alongScale: Scale,
  alongSd: ScaleSd,
});
export type KeptPrintSize = z.infer<typeof PrintSizeShape>;
