export interface Kept {
  readonly state: 'read' | 'skipped' | 'unreadable';
  readonly readingMm: number | null;
}

/** Name of one figure's place among a set's readings. */
export const slotKey = (slot: { readonly method: string; readonly spotNo: number; readonly axis: string }): string =>
  `${slot.method} ${slot.spotNo} ${slot.axis}`;
