'use client';

import type { SaveStationInput } from '@/contracts/rolls';
import { slotName } from '@/core/target/roll-strip';
import { useKeeper, type Keeper } from '../outbox/use-keeper';
import type { Kept } from '../read/slot';

export type StationAnswer = Omit<SaveStationInput, 'id'>;
export type StationKeeper = Keeper<StationAnswer>;

/** Keeps readings of one roll's stations. */
export const useStations = (rollId: string, initial: Readonly<Record<string, Kept>>): StationKeeper =>
  useKeeper<StationAnswer>({
    kind: 'station',
    owner: rollId,
    initial,
    slotOf: slotName,
    labelOf: ({ stationNo, side, axis }) => `Station ${stationNo} ${side}, ${axis}`,
    earlierOf: (value) => (value as readonly { readonly earlierMm: number | null }[])[0]?.earlierMm ?? null,
  });
