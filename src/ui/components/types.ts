import type { UnitSystem } from '@/core/units/length';

export interface PersonView {
  readonly id: string;
  readonly name: string;
  readonly unitSystem: UnitSystem;
}

export interface CurrentPersonView {
  readonly person: PersonView;
  readonly persons: readonly PersonView[];
  readonly theme: 'light' | 'dark';
}
