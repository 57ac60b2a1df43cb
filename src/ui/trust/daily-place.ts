import type { UnitSystem } from '@/core/units/length';

/** Of which setup and material a daily check is. */
export interface DailyPlace {
  readonly setupId: string;
  readonly materialId: string;
  readonly toleranceMm: number;
  readonly system: UnitSystem;
  readonly isSimulated: boolean;
}
