import { MM_PER_INCH, type UnitSystem } from '../units/length';
import type { Family } from './words';

/** Sheets cut on a mat with a consumer's cutter or by its camera. */
const HOME: readonly Family[] = ['F1', 'F1c', 'F7'];

const inch = (part: number): number => MM_PER_INCH / part;

/**
 * Limits of a printer + cutter that are offered, mm, the one to begin with first; round in the person's own units. Home cutters
 * 0.8 mm or 1/32 in, machines with registration marks 0.5 mm (0.020 in), fine work less. Common practice, no published source.
 */
export function usualLimitsMm(family: Family, system: UnitSystem): readonly [number, ...number[]] {
  const isHome = HOME.includes(family);
  if (system === 'mm') return isHome ? [0.8, 0.5, 0.3, 1.6] : [0.5, 0.3, 0.8];
  return isHome ? [inch(32), inch(50), inch(16)] : [inch(50), inch(32)];
}
