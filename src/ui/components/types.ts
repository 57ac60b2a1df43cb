import type { UnitSystem } from '@/core/units/length';

export interface PersonView {
  readonly id: string;
  readonly name: string;
  readonly unitSystem: UnitSystem;
}

export interface ShopView {
  readonly id: string;
  readonly name: string;
  readonly isDemo: boolean;
  /** ISO 4217 code; null: not said. */
  readonly currency: string | null;
}

export interface CurrentPersonView {
  readonly shop: ShopView;
  readonly shops: readonly ShopView[];
  readonly person: PersonView;
  readonly persons: readonly PersonView[];
  readonly theme: 'light' | 'dark';
  readonly notice: string | null;
}
