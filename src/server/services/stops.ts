import 'server-only';
import { STEP_LABELS, STEP_NAMES } from '@/contracts/steps';
import { doneSets, type CalibrationRecord } from './record';
import type { Step } from './steps';

/** How far a calibration has come: every step up to here can be gone to. */
export function furthestStep(record: CalibrationRecord): Step {
  const { step, state } = record.calibration;
  if (state === 'saved') return 'save';
  const index = (s: Step): number => STEP_NAMES.indexOf(s);
  const fine = record.corrections.some((c) => c.objective !== 'rough');
  let reached: Step = 'print';
  if (record.printChecks.some((c) => c.verdict === 'right')) reached = 'cut';
  if (doneSets(record).length > 0) reached = 'read';
  if (record.readings.some((r) => r.method !== 'rough' && r.state === 'read')) reached = 'settings';
  if (fine) reached = 'confirm';
  return index(step) > index(reached) ? step : reached;
}

export interface Stop {
  readonly label: string;
  readonly step: Step;
  readonly place: 'done' | 'here' | 'ahead';
  readonly canGo: boolean;
}

/** The eight stops of the string, with the bob at the one shown. */
export function stopsOf(record: CalibrationRecord, shown: Step): readonly Stop[] {
  const here = STEP_NAMES.indexOf(shown);
  const furthest = STEP_NAMES.indexOf(furthestStep(record));
  const ends = TEST_ENDS[record.calibration.kind];
  return STEP_NAMES.filter((step) => !ends || TEST_STEPS.includes(step)).map((step) => ({
    label: ends && step === 'map' ? ends : STEP_LABELS[step],
    step,
    place: placeOf(STEP_NAMES.indexOf(step), here),
    canGo:
      STEP_NAMES.indexOf(step) <= furthest &&
      step !== 'set-up' &&
      (step !== 'save' || record.calibration.state === 'saved'),
  }));
}

/** What a test tells, in place of the map at which it ends. */
const TEST_ENDS: Readonly<Partial<Record<CalibrationRecord['calibration']['kind'], string>>> = {
  which_way: 'Which way',
  mark_use: 'Marks',
  two_faces: 'Front and back',
};

const TEST_STEPS: readonly Step[] = ['set-up', 'print', 'cut', 'read', 'map'];

function placeOf(i: number, here: number): Stop['place'] {
  if (i === here) return 'here';
  return i < here ? 'done' : 'ahead';
}
