import type { RollError } from '@/core/cutting/roll-move';
import type { FileAxes } from '@/core/geometry/file-axes';
import type { FeedDirection, Load } from '@/core/geometry/load';
import type { UnitSystem } from '@/core/units/length';

/** What the page knows of the setup whose cut files are corrected. */
export interface CutFileToolView {
  readonly feed: FeedDirection;
  readonly axes: FileAxes | null;
  readonly isTraced: boolean;
  readonly load: Load;
  readonly saved: { readonly correction: readonly number[] | null; readonly words: string } | null;
  /** Steady drift of a roll that was read, and how it is called. */
  readonly roll: { readonly error: RollError; readonly words: string } | null;
  readonly system: UnitSystem;
}
