/** The eight steps of a calibration, in order. */
export const STEP_NAMES = ['set-up', 'print', 'cut', 'read', 'map', 'settings', 'confirm', 'save'] as const;
export type StepName = (typeof STEP_NAMES)[number];

/** The steps as the screen names them. */
export const STEP_LABELS: Readonly<Record<StepName, string>> = {
  'set-up': 'Set up',
  print: 'Print',
  cut: 'Cut',
  read: 'Read',
  map: 'Map',
  settings: 'Settings',
  confirm: 'Confirm',
  save: 'Save',
};
