import type { Block } from './block';
import { LIFT_OFF_RIM_MM } from './lift-off';

const FINE_MM = 0.1;
const RIM_STEP_MM = 0.2;

/**
 * Gaps of the strip of reference gaps, least first, mm: 0.1 and up for borders that should be nothing, or every 0.2 mm
 * about the rim that a lift-off disc is to have. Between two of them half a step is judged by eye.
 */
export function referenceGapsMm(block: Pick<Block, 'gapCount'>, isForRims: boolean): readonly number[] {
  const middle = (block.gapCount - 1) / 2;
  return Array.from({ length: block.gapCount }, (_, i) => {
    const gap = isForRims ? LIFT_OFF_RIM_MM + RIM_STEP_MM * (i - middle) : FINE_MM * (i + 1);
    return Number(gap.toFixed(2));
  });
}
