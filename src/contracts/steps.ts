/** The eight steps of a calibration, in order. */
export const STEP_NAMES = ['set-up', 'print', 'cut', 'read', 'map', 'settings', 'confirm', 'save'] as const;
export type StepName = (typeof STEP_NAMES)[number];
