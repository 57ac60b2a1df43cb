import type { OtherSheet } from '@/core/scan/scan-result';
import type { ScanFigure } from '@/core/scan/measured-figure';
import type { CutShape } from '@/core/target/coded-figure';
import type { UnitSystem } from '@/core/units/length';

/** A disc of the set to be read, as the page knows it. */
export interface OwnDisc {
  readonly key: string;
  readonly spotNo: number;
  readonly figure: ScanFigure;
  /** What the eye read at the same spot, mm; null where it did not, or must not be told. */
  readonly eyeMm: { readonly across: number | null; readonly along: number | null };
}

/** A disc as it is shown over its scan and in its close-up. */
export interface ShownDisc {
  readonly key: string;
  /** As in a sentence, and as beside its ring. */
  readonly name: string;
  readonly short: string;
  readonly figure: ScanFigure;
}

export const shownDisc = ({ key, spotNo, figure }: OwnDisc): ShownDisc => ({
  ...{ key, figure },
  ...{ name: `Spot ${spotNo}`, short: String(spotNo) },
});

/** Where the stand-in scanner of a simulated setup is asked. */
export interface StandinScanner {
  readonly href: string;
  readonly sheetNo: number;
  readonly face: 'front' | 'back';
}

export interface ScanView {
  readonly calibrationId: string;
  readonly cutSetId: string;
  readonly discs: readonly OwnDisc[];
  /** All coded discs of the sheet: those of the other set carry the page as well. */
  readonly figures: readonly ScanFigure[];
  /** Code of the sheet to be scanned, and other sheets that may lie there by mistake. */
  readonly code: string;
  readonly others: readonly OtherSheet[];
  readonly cutShape: CutShape;
  readonly face: 'front' | 'back';
  /** Discs are printed on both faces: a scan must show the one that is asked for. */
  readonly isFaceTold: boolean;
  readonly system: UnitSystem;
  readonly standin: StandinScanner | null;
  /** Where a cut too far off for a scan is read; null where the sheet has no grids for it. */
  readonly roughHref: string | null;
  readonly next: { readonly href: string; readonly words: string };
}
