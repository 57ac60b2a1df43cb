import type { SheetSize } from '../units/sheet-size';

export const CUT_SHAPES = ['rectangle', 'ellipse'] as const;
export type CutShape = (typeof CUT_SHAPES)[number];
export const EDGE_KINDS = ['none', 'border', 'bleed'] as const;
export type EdgeKind = (typeof EDGE_KINDS)[number];
/** Which of a job's lines one file of the cutter holds. */
export const LINE_CHOICES = ['all', 'scored', 'cut'] as const;
export type LineChoice = (typeof LINE_CHOICES)[number];
export const CUT_SOURCES = ['lines', 'outline'] as const;

/** How far the cut runs from the art's edge: outside it (a border), inside it (a bleed), or on it. */
export interface JobEdge {
  readonly kind: EdgeKind;
  readonly mm: number;
}

/** Distance of the cut line from the art's edge, outward. */
export function edgeOffsetMm({ kind, mm }: JobEdge): number {
  if (kind === 'none') return 0;
  return kind === 'border' ? mm : -mm;
}

/** What is printed and cut for one item. */
export type ItemArt =
  | { readonly kind: 'plain'; readonly shape: CutShape; readonly cornerMm: number }
  | {
      readonly kind: 'picture';
      readonly fileId: string;
      readonly fileName: string;
      readonly widthPx: number;
      readonly heightPx: number;
      readonly shape: CutShape;
      readonly cornerMm: number;
    }
  | {
      readonly kind: 'drawing';
      readonly fileId: string;
      readonly fileName: string;
      /** Whether its cut lines are known by colour or by layer, and which they are. */
      readonly cutBy: 'colour' | 'layer';
      readonly cutNames: readonly string[];
      /** Of the same kind: those that are scored, to be folded or bent; absent: none. */
      readonly scoreNames?: readonly string[];
      /** Its own lines, or a line round its art. */
      readonly cutFrom: (typeof CUT_SOURCES)[number];
      readonly keepsHoles: boolean;
    };

export interface JobItem {
  readonly id: string;
  readonly name: string;
  readonly quantity: number;
  /** Size of the art as it is printed. */
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly mayTurn: boolean;
  readonly art: ItemArt;
}

/** Where a program's own art stands on its page. */
export interface ArtBox extends SheetSize {
  readonly leftMm: number;
  readonly topMm: number;
}

/** A job as it is being laid out. */
export interface JobDraft {
  readonly laysOut: 'here' | 'program';
  readonly form: 'sheet' | 'roll';
  readonly page: SheetSize & { readonly name: string };
  readonly insetMm: number;
  /** Of work printed on both sides: the inset typed for the other page. */
  readonly backInsetMm: number | null;
  readonly isMirrored: boolean;
  readonly gapMm: number;
  readonly spareFrontMm: number;
  readonly spareRearMm: number;
  readonly items: readonly JobItem[];
  /** Only where the program lays it out. */
  readonly artBox: ArtBox | null;
  readonly edge: JobEdge;
  /** Share of jobs that are to come out with no error to be seen. */
  readonly yieldShare: number;
  /** Warmer or colder by up to so much between printing and cutting. */
  readonly warmingK: number;
  /** What the job is worth, in the shop's own money; absent: not told. */
  readonly worth?: number | null | undefined;
}
