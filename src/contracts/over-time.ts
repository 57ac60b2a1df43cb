import { PARTS, type Part } from '@/core/verdict/parts';

/** What is followed over the years: each part of the error, and the noise of reading the marks where it was measured. */
export const FOLLOWED = [...PARTS, 'markSdMm'] as const;
export type Followed = Part | 'markSdMm';

/** One part of one check's error, with its standard uncertainty. */
export interface Told {
  readonly value: number;
  readonly standardUncertainty: number;
}
export type Parts = Readonly<Record<Part, Told>>;
/** The noise of reading the marks has no uncertainty of its own in the record. */
export type LeftParts = Parts & { readonly markSdMm: Told | null };

/** One calibration: the error as it was found, before anything was set, and as it was left, by its confirming cut. */
export interface FoundAndLeft {
  readonly id: string;
  readonly atMs: number;
  readonly materialName: string;
  readonly found: Parts | null;
  readonly left: LeftParts;
}

export interface OverTime {
  readonly setupName: string;
  readonly points: readonly FoundAndLeft[];
  /** Limits of what was left, once three were kept: within them it stays while nothing changes. */
  readonly limits: Readonly<Record<Followed, { readonly lower: number; readonly upper: number } | null>>;
  readonly events: readonly { readonly atMs: number; readonly words: string }[];
}
