import type { UnitSystem } from '@/core/units/length';
import type { CalibrationRecord } from '@/server/services/record';

/** What each step's page is given. */
export interface StepProps {
  readonly record: CalibrationRecord;
  readonly system: UnitSystem;
  readonly query: Readonly<Record<string, string>>;
}
