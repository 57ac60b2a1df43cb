import { reachOf, valueAfterTyping } from './machine-setting';
import type { SettingChange } from './plan-settings';

export type TypedCheck =
  | { readonly kind: 'as-planned' }
  | { readonly kind: 'change-for-value'; readonly change: number }
  | { readonly kind: 'value-for-change'; readonly value: number }
  | { readonly kind: 'other-sign' }
  | { readonly kind: 'out-of-range' }
  | { readonly kind: 'not-on-step' }
  | { readonly kind: 'unchanged' }
  | { readonly kind: 'another-value' };

const near = (a: number, b: number, step: number): boolean => Math.abs(a - b) < step / 1000;

/** What the value typed back looks like against the plan: 3 where 29.5 belongs is the change, not the new value. */
export function checkTyped(plan: SettingChange, typed: number): TypedCheck {
  const { setting, before, after, toType } = plan;
  const { step } = setting;
  if (near(typed, toType, step)) return { kind: 'as-planned' };
  const change = after - before;
  if (setting.combine === 'replaces' && near(typed, change, step)) return { kind: 'change-for-value', change };
  if (setting.combine === 'adds' && near(typed, after, step)) return { kind: 'value-for-change', value: after };
  if (toType !== 0 && near(typed, -toType, step)) return { kind: 'other-sign' };
  return checkValue(plan, typed);
}

/** Whether a display that moves in steps can show this value. */
export function isOnStep(value: number, step: number): boolean {
  const steps = value / step;
  return Math.abs(steps - Math.round(steps)) <= 1e-6;
}

function checkValue({ setting, before }: SettingChange, typed: number): TypedCheck {
  const { step } = setting;
  const { lowest, highest } = reachOf(setting);
  const total = valueAfterTyping(setting, typed);
  if (total < lowest - step / 1000 || total > highest + step / 1000) return { kind: 'out-of-range' };
  if (!isOnStep(typed, step)) return { kind: 'not-on-step' };
  return near(total, before, step) ? { kind: 'unchanged' } : { kind: 'another-value' };
}
