import type { ReactNode } from 'react';
import type { UnitSystem } from '@/core/units/length';
import type { RollRecord } from '@/server/services/roll-read';

/** What each page of a roll is given. */
export interface RollProps {
  readonly record: RollRecord;
  readonly system: UnitSystem;
  /** Of the shop; null: not said. */
  readonly currency: string | null;
  readonly nav: ReactNode;
}
