import type { KeepDraftInput } from '@/contracts/jobs';
import type { SetupError } from '@/core/budget/job-error';
import type { JobDraft } from '@/core/layout/job-draft';
import type { PageFacts } from '@/core/layout/lay-out';
import type { LayoutFacts } from '@/core/layout/layout-findings';
import type { UnitSystem } from '@/core/units/length';

/** What the page of a job that is being laid out is given. */
export interface JobEditorView {
  readonly jobId: string;
  readonly setupId: string;
  readonly version: number;
  readonly name: string;
  readonly materialId: string;
  readonly draft: JobDraft;
  readonly currency: string | null;
  readonly system: UnitSystem;
  readonly page: PageFacts;
  readonly layout: LayoutFacts;
  readonly onlyProgram: string | null;
  readonly hasOwnMarks: boolean;
  readonly leadingMark: string;
  readonly materials: readonly {
    readonly id: string;
    readonly name: string;
    readonly thermalPerK: number | null;
    readonly printableWidthMm: number | null;
  }[];
  readonly error: (SetupError & { readonly isMarkSdAssumed: boolean; readonly since: string }) | null;
}

export type Kept = Pick<KeepDraftInput, 'name' | 'materialId' | 'draft'>;
