'use client';

import type { SaveReadingInput } from '@/contracts/inputs';
import { useKeeper, type Keeper } from '../outbox/use-keeper';
import { slotKey, type Kept } from './slot';

export type ReadingAnswer = Omit<SaveReadingInput, 'id'>;
export type ReadingKeeper = Keeper<ReadingAnswer>;

/** One look at the figures of one cut set. */
export interface ReadingLook {
  readonly cutSetId: string;
  readonly lookNo: number;
  readonly kept: Readonly<Record<string, Kept>>;
}

/** Keeps readings of one look. */
export const useReadings = ({ cutSetId, lookNo, kept }: ReadingLook): ReadingKeeper =>
  useKeeper<ReadingAnswer>({
    kind: 'reading',
    owner: `${cutSetId} ${String(lookNo)}`,
    initial: kept,
    slotOf: slotKey,
    labelOf: ({ spotNo, axis }) => `Spot ${spotNo} ${axis}`,
    earlierOf: (value) => (value as { readonly earlierMm: number | null }).earlierMm,
  });
