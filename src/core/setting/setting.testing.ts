import type { MachineSetting } from './machine-setting';

/** A plain typed offset across, in mm to a tenth, with what a test wants otherwise. */
export const testSetting = (over: Partial<MachineSetting> = {}): MachineSetting => ({
  id: over.actsOn ?? 's',
  displayName: 'CROSS SHIFT',
  kind: 'typed',
  isInProgram: false,
  actsOn: 'offset_across',
  unit: 'mm',
  unitSize: null,
  step: 0.1,
  minValue: -10,
  maxValue: 10,
  sense: 1,
  gain: 1,
  entry: 'new_value',
  combine: 'replaces',
  pivot: { x: 0, y: 0 },
  scalesOffset: 'unknown',
  pressThis: '',
  notThat: '',
  value: 0,
  ...over,
});
