import { z } from 'zod';
import { SCHOOLS } from '@/core/charts/control-chart';
import { BORDER_SIDES } from '@/core/reading/borders';
import { POLICY_KINDS } from '@/core/trust/policy';

const Id = z.uuid();
const border = z.number().min(0, 'zero or more').max(1000, 'at most 1,000 mm');
const cost = z.number().min(0, 'at least 0').max(1e9, 'at most 1,000,000,000');
const whole = (most: number) => z.number().int('a whole number').min(1, 'at least 1').max(most, `at most ${most}`);

/** Four borders of one finished piece, measured by hand or on a photograph. */
export const KeepDailyCheck = z.object({
  id: Id,
  setupId: Id,
  materialId: Id,
  method: z.enum(['hand', 'photo']).default('hand'),
  side: z.enum(BORDER_SIDES),
  borders: z.object({ leftMm: border, rightMm: border, topMm: border, bottomMm: border }),
  borderSdMm: z.number().min(0.001, 'at least 0.001 mm').max(5, 'at most 5 mm'),
  note: z.string().trim().max(200, 'at most 200 letters'),
});
export type KeepDailyCheckInput = z.input<typeof KeepDailyCheck>;

const shiftMm = z.number().min(-20, 'at least -20 mm').max(20, 'at most 20 mm');
const discShift = <N extends number>(discNo: N) =>
  z.object({
    discNo: z.literal(discNo),
    acrossMm: shiftMm,
    alongMm: shiftMm,
    standardUncertaintyMm: z.number().positive('more than zero').max(1, 'at most 1 mm'),
  });

/** The two small discs of a job's template, as a scan or photograph tells them. */
export const KeepDiscCheck = z.object({
  id: Id,
  setupId: Id,
  materialId: Id,
  one: discShift(1),
  other: discShift(2),
  note: z.string().trim().max(200, 'at most 200 letters'),
});
export type KeepDiscCheckInput = z.infer<typeof KeepDiscCheck>;

export const TakeBackDailyCheck = z.object({ id: Id });

/** When a setup is checked again; materialId null: for every material that has no policy of its own. */
export const KeepPolicy = z.object({
  id: Id,
  setupId: Id,
  materialId: Id.nullable(),
  version: z.number().int(),
  kind: z.enum(POLICY_KINDS),
  everyDays: whole(3650),
  everyJobs: whole(10_000),
  costlyFrom: cost,
  spoilCost: cost,
  checkCost: cost,
  jobsAhead: whole(1000),
  school: z.enum(SCHOOLS),
});
export type KeepPolicyInput = z.infer<typeof KeepPolicy>;
