import type { ComputeSettingsInput } from '@/contracts/compute';
import { apply, cornersOf, largestDisplacement } from '@/core/geometry/affine';
import { fromParameters, toParameters } from '@/core/geometry/error-parameters';
import { mapInMachine, mapOnSheet, sheetToMachine, type Load } from '@/core/geometry/load';
import { ok, type Result } from '@/core/result';
import type { MachineSetting } from '@/core/setting/machine-setting';
import { planSettings } from '@/core/setting/plan-settings';

type Problem = { readonly kind: 'mirrored-or-singular'; readonly determinant: number };

const settingOf = (s: ComputeSettingsInput['settings'][number]): MachineSetting => ({
  ...s,
  displayName: s.id,
  kind: 'typed',
  isInProgram: false,
  pivot: { x: s.pivotXMm, y: s.pivotYMm },
  pressThis: '',
  notThat: '',
});

/** Values to key in, all together, and the error that is left after them, told on the sheet again. */
export function computeSettings(input: ComputeSettingsInput): Result<object, Problem> {
  const load: Load = { turnDeg: input.turnDeg, face: input.face };
  const corners = cornersOf(input.workWidthMm, input.workLengthMm);
  const plan = planSettings(
    mapInMachine(fromParameters(input.error), load),
    input.settings.map(settingOf),
    corners.map((p) => apply(sheetToMachine(load), p)),
    { order: input.order },
  );
  const left = mapOnSheet(plan.after, load);
  const after = toParameters(left);
  if (!after.ok) return after;
  return ok({
    settings: plan.changes.map((c) => ({
      id: c.setting.id,
      before: c.before,
      after: c.after,
      toType: c.toType,
      isAtLimit: c.isAtLimit,
    })),
    worstBeforeMm: plan.worstBeforeMm,
    worstAfterMm: largestDisplacement(left, corners),
    errorAfter: after.value,
  });
}
