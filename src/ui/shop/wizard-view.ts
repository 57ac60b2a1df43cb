import type { UnitSystem } from '@/core/units/length';

export interface KnownMachine {
  readonly id: string;
  readonly name: string;
}

export interface WizardView {
  readonly system: UnitSystem;
  readonly printers: readonly KnownMachine[];
  readonly cutters: readonly KnownMachine[];
  readonly programs: readonly KnownMachine[];
  readonly takenNames: readonly string[];
}
